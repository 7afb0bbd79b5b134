/** The questionnaire as a file to keep: of the draft or of a version, in any format that can be written of it alone. */
import * as v from 'valibot';
import { FORMATS, type FormatName } from '../../../../core/exchange/formats';
import { NO_WORK } from '../../../../core/exchange/work-file';
import { fileToKeep, noSuchStudy, refuse } from '../../../../server/respond';
import { withStudy, type StudyCall } from '../../../../server/with-study';
import { findStudy, storedText } from '../../../../store/studies';
import { findVersion } from '../../../../store/versions';

/** The work that was done on a study has a door of its own. */
const WRITTEN = (Object.keys(FORMATS) as FormatName[]).filter(
  (name) => FORMATS[name].write !== null && name !== 'work',
);
const Asked = v.object({
  format: v.optional(v.picklist(WRITTEN, `a file is written as ${WRITTEN.join(', ')}`), 'document'),
  version: v.optional(
    v.pipe(v.string(), v.regex(/^\d{1,6}$/, 'a version is named by its number'), v.transform(Number)),
  ),
});

export const GET = withStudy(async ({ db, id, url }: StudyCall<undefined>) => {
  const asked = v.safeParse(Asked, Object.fromEntries(url.searchParams));
  if (!asked.success) return refuse(400, `This file cannot be made: ${asked.issues[0].message}.`);
  const { format, version } = asked.output;
  const found = version === undefined ? findStudy(db, id) : findVersion(db, id, version);
  if (found === null)
    return version === undefined
      ? // What cannot be read is given as it is, so that it can be mended elsewhere.
        unreadable(storedText(db, id), id)
      : refuse(404, `This study has no version ${version}. Its versions are listed under Release.`);
  const body = await FORMATS[format].write?.({ document: found.document, work: NO_WORK });
  return fileToKeep(format, found.document, bytesOf(body ?? ''), version);
});

function unreadable(text: string | null, id: string): Response {
  return text === null ? noSuchStudy(id) : fileToKeep('document', { title: 'unreadable' }, text);
}

function bytesOf(body: string | Uint8Array): string | Uint8Array<ArrayBuffer> {
  return typeof body === 'string' ? body : new Uint8Array(body);
}
