/** Handing a respondent on, at an ending, to another questionnaire in the same sitting. */
import type { Answers } from '../document/types';
import type { Plan } from '../routing/plan';
import { walkOfCase } from './case-data';
import type { KeptCase } from './kept-case';

export interface HandedOn {
  /** As the ending names the questionnaire. */
  readonly to: string;
  /** The values that are carried along, by name; one that has none is left out. */
  readonly carried: Answers;
}

/** Where a closed case goes on; null where its ending leads to no other questionnaire. */
export function handedOn(plan: Plan, kept: KeptCase): HandedOn | null {
  const walked = kept.closed?.by === 'ending' ? walkOfCase(plan, kept) : null;
  const ending = walked?.ending == null ? undefined : plan.endings[walked.ending]?.ending;
  const next = ending?.next;
  if (walked === null || next === undefined || !('questionnaire' in next)) return null;
  const environment = walked.environment(plan.sections.length, null);
  const carried = (next.carry ?? []).flatMap((name) => {
    const { value } = environment.read(name.toLowerCase());
    return value === null ? [] : [[name, value] as const];
  });
  return { to: next.questionnaire, carried: Object.fromEntries(carried) };
}
