/** The study that a questionnaire hands on to, by what its ending names. */
import type { Questionnaire } from '../core/document/types';
import type { Store } from './open';
import { findStudy, listStudies } from './studies';

/** By the id of a study, or by a file name or title like its own; null where there is none. */
export function findFollowUp(db: Store, named: string): Questionnaire | null {
  const name = named.replace(/\.fork\.json$/, '');
  const byId = findStudy(db, name);
  if (byId !== null) return byId.document;
  const wanted = plain(name);
  return listStudies(db).find(({ document }) => plain(document.title) === wanted)?.document ?? null;
}

function plain(text: string): string {
  return text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '-');
}
