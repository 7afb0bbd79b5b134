/** The walk goes on in the study that an ending hands on to, with the values it carries. */
import { useState } from 'react';
import { readDocument } from '../../core/document/read';
import type { Answers } from '../../core/document/types';
import type { Plan } from '../../core/routing/plan';
import { planOf } from '../../core/routing/planner';
import { FollowUpSchema } from '../../wire/studies';
import { useStudy } from '../state/store';
import type { Session } from '../../core/responding/session';
import { call } from '../ui/api';
import { firstGiven } from './first-given';

export interface FollowedUp {
  readonly plan: Plan;
  readonly given: Answers;
  /** Names of the values that came along. */
  readonly carried: readonly string[];
}

export function useFollowUp(plan: Plan, session: Session) {
  const api = useStudy((state) => state.api);
  const [followUp, setFollowUp] = useState<FollowedUp | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  /** From an ending, by its id; where the follow-up cannot be had, `problem` says why. */
  const walkOn = async (ending: string) => {
    const reply = await call(FollowUpSchema, 'GET', `${api}/follow-up?ending=${encodeURIComponent(ending)}`);
    const read = reply.ok ? readDocument(reply.body.document) : null;
    if (!reply.ok || read?.ok !== true) {
      setProblem(reply.ok ? 'The follow-up is no questionnaire that can be used.' : reply.problem);
      return;
    }
    const next = planOf(read.document);
    const to = plan.endings.find((each) => each.ending.id === ending)?.ending.next;
    const carry = to !== undefined && 'carry' in to ? (to.carry ?? []) : [];
    const environment = session.walk?.environment(plan.sections.length, null);
    const carried = Object.fromEntries(
      carry.map((name) => [name, environment?.read(name.toLowerCase()).value ?? null]),
    );
    setProblem(null);
    setFollowUp({ plan: next, given: { ...firstGiven(next), ...carried }, carried: carry });
  };
  return { followUp, problem, walkOn, back: () => setFollowUp(null) };
}
