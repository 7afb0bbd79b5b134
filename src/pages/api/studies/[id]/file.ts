/** The questionnaire as a file to keep. */
import type { APIRoute } from 'astro';
import { writeDocument } from '../../../../core/document/read';
import { fileName } from '../../../../core/exchange/work-file';
import { noSuchStudy } from '../../../../server/respond';
import { store } from '../../../../store/open';
import { findStudy, storedText } from '../../../../store/studies';

export const GET: APIRoute = ({ params }) => {
  const study = findStudy(store(), params.id ?? '');
  const text = study === null ? storedText(store(), params.id ?? '') : writeDocument(study.document);
  if (text === null) return noSuchStudy(params.id);
  // What cannot be read is given as it is, so that it can be mended elsewhere.
  const name = study === null ? 'unreadable.fork.json' : fileName(study.document, 'fork.json');
  return new Response(text, {
    headers: {
      'Content-Type': 'application/json; charset=utf-8',
      'Content-Disposition': `attachment; filename="${name}"`,
      'Cache-Control': 'no-store',
    },
  });
};
