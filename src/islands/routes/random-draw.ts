/** Routes drawn at random to be walked: those that made-up respondents take, the same for all who sign off. */
import { useEffect, useState } from 'react';
import * as v from 'valibot';
import { DrawSchema, type Draw } from '../../wire/draw';
import { useAnalysisClient } from '../study/analysis';
import { useStudy } from '../study/store';
import { call } from '../ui/api';

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
  useEffect(() => {
    let current = true;
    void call(v.nullable(DrawSchema), 'GET', `${api}/draw`).then((reply) => {
      if (current && reply.ok) setDraw(reply.body);
    });
    return () => {
      current = false;
    };
  }, [api]);
  useEffect(() => {
    if (analysed === undefined || draw === null) return;
    let current = true;
    void client.api.drawn(draw.seed, draw.count).then((found) => {
      if (current) setNumbers(found.filter((number) => number !== null));
    });
    return () => {
      current = false;
    };
  }, [client, analysed, draw]);
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
