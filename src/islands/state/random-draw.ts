/** Routes drawn at random to be walked: those that made-up respondents take, the same for all who sign off. */
import { useState } from 'react';
import * as v from 'valibot';
import { DrawSchema, type Draw } from '../../wire/draw';
import { call } from '../ui/api';
import { useAsked } from '../ui/use-asked';
import { useAnalysisClient } from './analysis';
import { useStudy } from './store';

export interface DrawnRoutes {
  /** How many respondents were drawn. */
  readonly count: number;
  /** The route of each, in order; who gets stuck has none. */
  readonly numbers: readonly string[];
  /** Why drawing failed; null where it did not. */
  readonly problem: string | null;
  /** Draws so many more. */
  more(count: number): Promise<void>;
}

const MOST = 500;

export function useRandomDraw(): DrawnRoutes {
  const client = useAnalysisClient();
  const api = useStudy((state) => state.api);
  const analysed = useStudy((state) => state.analysis?.document);
  const [draw, setDraw] = useState<Draw | null>(null);
  const [numbers, setNumbers] = useState<readonly string[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  useAsked(
    () => call(v.nullable(DrawSchema), 'GET', `${api}/draw`),
    [api],
    (reply) => reply.ok && setDraw(reply.body),
  );
  useAsked(
    () => (analysed === undefined || draw === null ? null : client.api.drawn(draw.seed, draw.count)),
    [client, analysed, draw],
    (found) => setNumbers(found.filter((number) => number !== null)),
  );
  return {
    count: draw?.count ?? 0,
    numbers,
    problem,
    async more(count) {
      const next = {
        seed: draw?.seed ?? 1 + Math.floor(Math.random() * 999_999),
        count: Math.min(MOST, (draw?.count ?? 0) + count),
      };
      const reply = await call(DrawSchema, 'PUT', `${api}/draw`, next);
      setProblem(reply.ok ? null : reply.problem);
      if (reply.ok) setDraw(reply.body);
    },
  };
}
