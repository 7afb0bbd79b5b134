/**
 * Studies that hand respondents on to each other: which study an ending names, and which values each takes from
 * others.
 */
import type { Given, Questionnaire } from '../core/document/types';
import { namedStudy, type OtherStudy } from '../core/snags/hand-off';
import type { Store } from './open';
import { findStudy, listStudies, saveStudy, type SaveResult } from './studies';

/** By the id of a study, or by a file name or title like its own; null where there is none. */
export function followUpStudy(
  db: Store,
  named: string,
): { readonly id: string; readonly document: Questionnaire } | null {
  const studies = listStudies(db).map(({ id, document }) => ({ id, title: document.title, document }));
  return namedStudy(studies, named);
}

export function findFollowUp(db: Store, named: string): Questionnaire | null {
  return followUpStudy(db, named)?.document ?? null;
}

/** The studies that one can hand on to. */
export function otherStudies(db: Store, id: string): OtherStudy[] {
  return listStudies(db)
    .filter((study) => study.id !== id)
    .map(({ id: of, document }) => ({ id: of, title: document.title, given: document.given ?? [] }));
}

/** Has a study take a value beforehand, unless it takes one of that name already. Null where there is no such study. */
export function takeGiven(db: Store, id: string, given: Given, now: number): SaveResult | null {
  const study = findStudy(db, id);
  if (study === null) return null;
  const known = study.document.given ?? [];
  if (known.some(({ name }) => name === given.name)) return { saved: true, study };
  return saveStudy(db, id, study.revision, { ...study.document, given: [...known, given] }, now);
}
