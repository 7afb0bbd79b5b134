/** What came, as a sample that the forecast is held against: chosen from what there is, read in the forecast's worker. */
import { useState } from 'react';
import * as v from 'valibot';
import type { SeenSample } from '../../core/forecast/seen/sample';
import { TrialSchema, type Trial } from '../../wire/trials';
import { useCollected, type Collected } from '../state/collected';
import { useStudy } from '../state/store';
import { call } from '../ui/api';
import { useAsked } from '../ui/use-asked';
import { rowsOf, type CameSource } from './came-sources';
import type { Forecasting } from './use-forecast';
import { why } from '../ui/why';

export interface Came {
  /** What the source is called, for the shares that are taken of it. */
  readonly name: string;
  readonly sample: SeenSample;
}

export interface CameInHand {
  readonly collected: Collected;
  readonly links: readonly Trial[];
  readonly problem: string | null;
  readonly isReading: boolean;
  readonly take: (source: CameSource, name: string) => Promise<void>;
  /** Shares that came without rows: a pasted table. */
  readonly put: (came: Came | null) => void;
}

/** What was read is held above the leaf, by `setCame`: it is there when it is opened again. */
export function useCame({ client }: Forecasting, setCame: (came: Came | null) => void): CameInHand {
  const api = useStudy((state) => state.api);
  const plan = useStudy((state) => state.plan);
  const collected = useCollected(api);
  const [links, setLinks] = useState<readonly Trial[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const [isReading, setReading] = useState(false);
  useAsked(
    () => call(v.array(TrialSchema), 'GET', `${api}/trials`),
    [api],
    (reply) => reply.ok && setLinks(reply.body.filter(({ begun }) => begun > 0)),
  );
  const read = async (source: CameSource): Promise<SeenSample | string> => {
    const rows = await rowsOf(source, { api, plan });
    return typeof rows === 'string' ? rows : client.sample(plan.document, rows.header, rows.rows);
  };
  return {
    collected,
    links,
    problem,
    isReading,
    async take(source, name) {
      setReading(true);
      setProblem(null);
      const found = await read(source).catch((error: unknown) => why(error));
      setReading(false);
      if (typeof found === 'string') setProblem(found);
      else setCame({ name, sample: found });
    },
    put(next) {
      setProblem(null);
      setCame(next);
    },
  };
}
