/** Which route a walk has taken, once it has come to an ending: its number, and what it shows. */
import { useState } from 'react';
import { nameInKey } from '../../core/document/addresses';
import type { Walked } from '../../core/document/walked';
import type { Plan } from '../../core/routing/plan';
import { contentMarks, fingerprint, routeMarks } from '../../core/routing/route-content';
import type { Walk } from '../../core/routing/walk';
import { useAnalysisClient } from './analysis';
import { useStudy } from './store';
import type { Session } from '../../core/responding/session';
import { useAsked } from '../ui/use-asked';

export interface WalkedRoute {
  readonly number: string;
  readonly items: readonly string[];
  readonly marks: readonly string[];
  readonly fingerprint: string;
  /** The respondent who took it. */
  readonly walked: Walked;
}

function walkedAs(plan: Plan, { drawn, given }: Walk, { answers, inputs }: Session): Walked {
  return {
    answers: Object.fromEntries(Object.entries(answers).filter(([, value]) => value !== null)),
    draws: Object.fromEntries(
      [...drawn].map(([key, indices]) => {
        const section = plan.sections.find(({ section: { id } }) => id === nameInKey(key));
        return [key, [...indices].map((index) => section?.items[index]?.item.name ?? '')];
      }),
    ),
    given,
    full: [...(inputs.full ?? [])],
  };
}

/** Null while the walk has a fault left, or where the number is not known yet. */
export function useRouteOfWalk(plan: Plan, session: Session): WalkedRoute | null {
  const client = useAnalysisClient();
  const analysis = useStudy((state) => state.analysis);
  const [found, setFound] = useState<{ key: string; number: string | null } | null>(null);
  const { walk } = session;
  const clean =
    walk !== null &&
    walk.ending !== null &&
    walk.steps.every(({ faults }) => faults.every(({ kind }) => kind === 'soft'));
  const items = clean ? walk.steps.map(({ key }) => key) : [];
  const ending = clean ? (plan.endings[walk.ending ?? -1]?.ending.id ?? '') : '';
  const key = JSON.stringify([...items, ending]);
  const current = analysis?.document === plan.document;
  useAsked(
    () => (clean && current ? client.api.numberOf(items, ending) : null),
    [client, clean, current, key],
    (number) => setFound({ key, number }),
  );
  if (!clean || found?.key !== key || found.number === null) return null;
  const marks = routeMarks(contentMarks(plan), items, ending);
  return {
    number: found.number,
    items,
    marks,
    fingerprint: fingerprint(marks),
    walked: walkedAs(plan, walk, session),
  };
}
