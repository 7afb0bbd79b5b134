/** The program of respondents' pages, under a name that changes with it. */
import type { APIRoute } from 'astro';
import { compressed } from '../../../server/compressed';
import { respondentProgram } from '../../../server/respondent-program';

export const GET: APIRoute = ({ params, request }) => {
  const { name, script } = respondentProgram;
  if (params.file !== name)
    return new Response('There is no such program: reload the page.', { status: 404 });
  return compressed(
    request,
    script,
    {
      headers: {
        'Content-Type': 'text/javascript; charset=utf-8',
        'Cache-Control': 'public, max-age=31536000, immutable',
      },
    },
    name,
  );
};
