/** The questionnaire that an ending of a study hands on to, to be walked in the same sitting. */
import type { APIRoute } from 'astro';
import { json, noSuchStudy, refuse } from '../../../../server/respond';
import { findFollowUp } from '../../../../store/follow-up';
import { store } from '../../../../store/open';
import { findStudy } from '../../../../store/studies';

export const GET: APIRoute = ({ params, request }) => {
  const study = findStudy(store(), params.id ?? '');
  if (study === null) return noSuchStudy(params.id ?? '');
  const ending = study.document.endings.find(
    ({ id }) => id === new URL(request.url).searchParams.get('ending'),
  );
  const next = ending?.next;
  if (next === undefined || !('questionnaire' in next))
    return refuse(404, 'This ending hands on to no questionnaire.');
  const document = findFollowUp(store(), next.questionnaire);
  return document === null
    ? refuse(404, `There is no study “${next.questionnaire}” here: import it, or name another at the ending.`)
    : json({ document });
};
