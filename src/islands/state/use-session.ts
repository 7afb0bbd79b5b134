/** A walk in the preview that a component holds. */
import { useMemo, useReducer } from 'react';
import type { Plan } from '../../core/routing/plan';
import { followed, NO_SESSION, sessionAfter, sessionOf, type Session } from '../../core/responding/session';

export function useSession(plan: Plan): Session {
  const [state, dispatch] = useReducer(sessionAfter, NO_SESSION);
  const { answers, inputs } = state;
  const now = useMemo(() => followed(plan, { answers, inputs }), [plan, answers, inputs]);
  return sessionOf(plan, state, now, dispatch);
}
