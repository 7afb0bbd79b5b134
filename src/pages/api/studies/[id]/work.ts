/** A study with the work done on it, as a file to keep. `with` names the kinds of work that come along. */
import type { APIRoute } from 'astro';
import * as v from 'valibot';
import { fileName, NO_WORK, WORK_PARTS, writeWork, type Work } from '../../../../core/exchange/work-file';
import { noSuchStudy, refuse } from '../../../../server/respond';
import { store } from '../../../../store/open';
import { findStudy } from '../../../../store/studies';
import { workOn } from '../../../../store/work';

const WithSchema = v.pipe(
  v.string(),
  v.transform((text) => text.split(',').filter((part) => part !== '')),
  v.array(v.picklist(WORK_PARTS)),
);

export const GET: APIRoute = ({ params, url }) => {
  const study = findStudy(store(), params.id ?? '');
  if (study === null) return noSuchStudy(params.id);
  const parts = v.safeParse(WithSchema, url.searchParams.get('with') ?? WORK_PARTS.join(','));
  if (!parts.success) return refuse(400, `What comes along is any of ${WORK_PARTS.join(', ')}.`);
  const all = workOn(store(), study.id);
  const work: Work = { ...NO_WORK, ...Object.fromEntries(parts.output.map((part) => [part, all[part]])) };
  return new Response(Buffer.from(writeWork(study.document, work)), {
    headers: {
      'Content-Type': 'application/zip',
      'Content-Disposition': `attachment; filename="${fileName(study.document, 'zip')}"`,
      'Cache-Control': 'no-store',
    },
  });
};
