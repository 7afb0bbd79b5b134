/** The questionnaire that an ending of a study hands on to, as an answer. */
import { findFollowUp } from '../store/follow-up';
import type { Store } from '../store/open';
import { findStudy } from '../store/studies';
import { json, noSuchStudy, refuse } from './respond';

export function followUpOf(db: Store, id: string, named: string | null): Response {
  const study = findStudy(db, id);
  if (study === null) return noSuchStudy(id);
  const next = study.document.endings.find((ending) => ending.id === named)?.next;
  if (next === undefined || !('questionnaire' in next))
    return refuse(404, 'This ending hands on to no questionnaire.');
  const document = findFollowUp(db, next.questionnaire);
  return document === null
    ? refuse(404, `There is no study “${next.questionnaire}” here: import it, or name another at the ending.`)
    : json({ document });
}
