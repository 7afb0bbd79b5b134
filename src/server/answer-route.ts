/** Answers with the page of a respondent's link. */
import type { APIRoute } from 'astro';
import { store } from '../store/open';
import { timeUnder } from '../store/panels';
import { answerPage } from './answer-page';
import { compressed } from './compressed';
import { respondentProgram } from './respondent-program';

export const answerRoute: APIRoute = ({ params, request }) => {
  const { status, html, policy } = answerPage(
    store(),
    respondentProgram,
    { token: params.token ?? '', key: params.key ?? null },
    timeUnder(store(), params.token ?? '', Date.now()),
  );
  return compressed(request, html, {
    status,
    headers: {
      'Content-Type': 'text/html; charset=utf-8',
      'Content-Security-Policy': policy,
      'Cache-Control': 'no-store',
    },
  });
};
