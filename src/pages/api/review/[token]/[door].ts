/** The doors of a reviewer's link; what each may is in `server/review.ts`. */
import type { APIRoute } from 'astro';
import { refuse } from '../../../../server/respond';
import { answerReviewer } from '../../../../server/review';
import { openLink } from '../../../../store/links';
import { store } from '../../../../store/open';

export const ALL: APIRoute = ({ params, request }) => {
  const link = openLink(store(), params.token ?? '');
  if (link === null) return refuse(404, 'This link opens nothing: it may have been withdrawn.');
  return answerReviewer({ db: store(), link, request, now: Date.now() }, params.door ?? '');
};
