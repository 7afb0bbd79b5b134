/** The questionnaire that an ending of a study hands on to, to be walked in the same sitting. */
import type { APIRoute } from 'astro';
import { followUpOf } from '../../../../server/follow-up';
import { store } from '../../../../store/open';

export const GET: APIRoute = ({ params, url }) =>
  followUpOf(store(), params.id ?? '', url.searchParams.get('ending'));
