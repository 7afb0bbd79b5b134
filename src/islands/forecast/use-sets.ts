/** The figures of all sets of assumptions, once those of the one in hand stand; null where there is but one. */
import { useMemo, useState } from 'react';
import { groupKey } from '../../core/forecast/groups';
import { setsOf } from '../../core/forecast/sets';
import type { SetFigures } from '../../worker/forecast/types';
import { useStudy } from '../state/store';
import type { Forecasting } from './use-forecast';
import { useSettled } from './use-settled';

export interface Sets {
  readonly all: readonly SetFigures[];
  /** By `groupKey`, the least and the most people that a group can come to under any of them, 95 times in 100. */
  readonly spans: ReadonlyMap<string, { readonly low: number; readonly high: number }>;
}

export function useSets(forecasting: Forecasting): Sets | null {
  const document = useStudy((state) => state.document);
  const [all, setAll] = useState<readonly SetFigures[]>([]);
  const hasSets = setsOf(document).length > 0;
  useSettled(
    forecasting,
    () => (hasSets ? forecasting.client.more.sets().catch(() => []) : null),
    [hasSets],
    setAll,
  );
  return useMemo(() => {
    if (setsOf(document).length === 0 || all.length < 2) return null;
    const spans = new Map<string, { low: number; high: number }>();
    for (const { items, endings } of all)
      for (const { group, low, high } of [...items, ...endings]) {
        const key = groupKey(group);
        const known = spans.get(key) ?? { low, high };
        spans.set(key, { low: Math.min(known.low, low), high: Math.max(known.high, high) });
      }
    return { all, spans };
  }, [all, document]);
}
