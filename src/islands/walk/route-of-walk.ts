/** Which route a walk has taken, once it has come to an ending: its number, and what it shows. */
import { useEffect, useState } from 'react';
import type { Plan } from '../../core/routing/plan';
import { contentMarks, fingerprint, routeMarks } from '../../core/views/route-content';
import { useAnalysisClient } from '../study/analysis';
import { useStudy } from '../study/store';
import type { Session } from './session';

export interface WalkedRoute {
  readonly number: string;
  readonly items: readonly string[];
  readonly marks: readonly string[];
  readonly fingerprint: string;
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
  useEffect(() => {
    if (!clean || !current) return;
    let latest = true;
    const [list, last] = [JSON.parse(key) as string[], ending];
    void client.api.numberOf(list.slice(0, -1), last).then((number) => {
      if (latest) setFound({ key, number });
    });
    return () => {
      latest = false;
    };
  }, [client, clean, current, key, ending]);
  if (!clean || found?.key !== key || found.number === null) return null;
  const marks = routeMarks(contentMarks(plan), items, ending);
  return { number: found.number, items, marks, fingerprint: fingerprint(marks) };
}
