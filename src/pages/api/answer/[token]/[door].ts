/** The doors of a respondent's page; what each may is in `server/answer.ts`. */
import type { APIRoute } from 'astro';
import { answerRespondent } from '../../../../server/answer';
import { store } from '../../../../store/open';

export const ALL: APIRoute = ({ params, request }) =>
  answerRespondent({ db: store(), request, now: Date.now() }, params.token ?? '', params.door ?? '');
