/** The questionnaire as a file to keep. */
import type { APIRoute } from 'astro';
import { writeDocument } from '../../../../core/document/read';
import { noSuchStudy } from '../../../../server/respond';
import { store } from '../../../../store/open';
import { findStudy } from '../../../../store/studies';

export const GET: APIRoute = ({ params }) => {
  const study = findStudy(store(), params.id ?? '');
  if (study === null) return noSuchStudy(params.id);
  const name =
    study.document.title
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'questionnaire';
  return new Response(writeDocument(study.document), {
    headers: {
      'Content-Type': 'application/json; charset=utf-8',
      'Content-Disposition': `attachment; filename="${name}.fork.json"`,
      'Cache-Control': 'no-store',
    },
  });
};
