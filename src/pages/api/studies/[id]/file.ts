/** The questionnaire as a file to keep. */
import type { APIRoute } from 'astro';
import { writeDocument } from '../../../../core/document/read';
import { fileName } from '../../../../core/exchange/work-file';
import { noSuchStudy } from '../../../../server/respond';
import { store } from '../../../../store/open';
import { findStudy } from '../../../../store/studies';

export const GET: APIRoute = ({ params }) => {
  const study = findStudy(store(), params.id ?? '');
  if (study === null) return noSuchStudy(params.id);
  const name = fileName(study.document, 'fork.json');
  return new Response(writeDocument(study.document), {
    headers: {
      'Content-Type': 'application/json; charset=utf-8',
      'Content-Disposition': `attachment; filename="${name}"`,
      'Cache-Control': 'no-store',
    },
  });
};
