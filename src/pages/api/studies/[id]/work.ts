/** A study with the work done on it, as a file to keep. `with` names the kinds of work that come along. */
import * as v from 'valibot';
import { NO_WORK, WORK_PARTS, writeWork, type Work } from '../../../../core/exchange/work-file';
import { fileToKeep, noSuchStudy, refuse } from '../../../../server/respond';
import { withStudy } from '../../../../server/with-study';
import { findStudy } from '../../../../store/studies';
import { workOn } from '../../../../store/work';

const WithSchema = v.pipe(
  v.string(),
  v.transform((text) => text.split(',').filter((part) => part !== '')),
  v.array(v.picklist(WORK_PARTS)),
);

export const GET = withStudy(({ db, id, url }) => {
  const study = findStudy(db, id);
  if (study === null) return noSuchStudy(id);
  const parts = v.safeParse(WithSchema, url.searchParams.get('with') ?? WORK_PARTS.join(','));
  if (!parts.success) return refuse(400, `What comes along is any of ${WORK_PARTS.join(', ')}.`);
  const all = workOn(db, id);
  const work: Work = { ...NO_WORK, ...Object.fromEntries(parts.output.map((part) => [part, all[part]])) };
  return fileToKeep('work', study.document, new Uint8Array(writeWork(study.document, work)));
});
