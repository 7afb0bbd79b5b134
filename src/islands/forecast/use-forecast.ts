/** The forecast of the open study: its figures follow every share that is moved, before it is written into the document. */
import { useEffect, useMemo, useState } from 'react';
import type { Assume, ForecastSettings, Questionnaire } from '../../core/document/types';
import { editSettings } from '../../core/editing/structure';
import { madeFor, type MadeFor } from '../../core/forecast/made-for';
import { assume, assumedInSet, setsOf } from '../../core/forecast/sets';
import { ForecastClient } from '../../worker/forecast/client';
import type { Figures } from '../../worker/forecast/types';
import { useStudy } from '../state/store';
import { useAsked } from '../ui/use-asked';
import { why } from '../ui/why';

export interface Forecasting {
  /** Null until they are worked out for the first time. */
  readonly figures: Figures | null;
  /** The questions whose answers decide, as they stood when first told: nothing moves away under a hand that drags. */
  readonly order: readonly string[];
  /** Other shares, or another document, are being worked out. */
  readonly isBehind: boolean;
  /** A share is being dragged. */
  readonly isLeaning: boolean;
  readonly problem: string | null;
  readonly client: ForecastClient;
  readonly held: MadeFor;
  /** Why a change was refused, as a sentence, or null. */
  readonly hold: (change: Partial<ForecastSettings>) => string | null;
  /** The set of assumptions in hand; null: what stands at the questions. */
  readonly set: string | null;
  readonly takeSet: (set: string | null) => void;
  /** What is assumed now of a question, as it is dragged; null: it is let go without a change. */
  readonly lean: (name: string, assumed: Assume | null) => void;
  /** Writes it into the document, into the set in hand; null: what the set says otherwise is taken back. */
  readonly keep: (name: string, assumed: Assume | null) => string | null;
}

export function useForecast(): Forecasting {
  const document = useStudy((state) => state.document);
  const commit = useStudy((state) => state.commit);
  const client = useMemo(() => new ForecastClient(), []);
  useEffect(() => () => client.stop(), [client]);
  const [leaning, setLeaning] = useState<{ readonly name: string; readonly assumed: Assume } | null>(null);
  const [last, setLast] = useState<{
    document: Questionnaire;
    leaning: unknown;
    set: string | null;
    is: Figures | string;
  } | null>(null);
  const [order, setOrder] = useState<readonly string[]>([]);
  const held = useMemo(() => madeFor(document), [document]);
  const { starts, breakOff } = held;
  const [chosen, takeSet] = useState<string | null>(null);
  // It may have been deleted, or called otherwise, meanwhile.
  const set = setsOf(document).some(({ name }) => name === chosen) ? chosen : null;
  const assumptions = useMemo(() => [...assumedInSet(document, set)], [document, set]);
  useAsked(
    () =>
      client
        .figures(document, {
          starts,
          breakOff,
          // What comes later counts.
          assumptions:
            leaning === null ? assumptions : [...assumptions, [leaning.name, leaning.assumed] as const],
        })
        .catch(why),
    [client, document, starts, breakOff, assumptions, leaning],
    (is) => {
      if (is === null) return;
      setLast({ document, leaning, set, is });
      if (typeof is !== 'string') setOrder((known) => ordered(known, is));
    },
  );
  return {
    figures: last === null || typeof last.is === 'string' ? null : last.is,
    order,
    isBehind: last === null || last.document !== document || last.leaning !== leaning || last.set !== set,
    isLeaning: leaning !== null,
    problem: typeof last?.is === 'string' ? last.is : null,
    client,
    held,
    hold: (change) =>
      commit(
        editSettings('Change what the forecast is made for', (draft) => {
          draft.forecast = { ...draft.forecast, ...structuredClone(change) } as typeof draft.forecast;
        }),
      ),
    set,
    takeSet,
    lean: (name, assumed) => setLeaning(assumed === null ? null : { name, assumed }),
    keep: (name, assumed) => {
      const refused = commit(assume(set, name, assumed));
      setLeaning(null);
      return refused;
    },
  };
}

/** New ones come last. */
function ordered(known: readonly string[], { steering }: Figures): readonly string[] {
  const names = steering.map(({ name }) => name);
  return [...known.filter((name) => names.includes(name)), ...names.filter((name) => !known.includes(name))];
}
