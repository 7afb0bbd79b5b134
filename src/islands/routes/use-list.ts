/** The list of routes that the ledger shows: how many rows, which stands where, and the rows in sight. */
import { useEffect, useMemo, useRef, useState } from 'react';
import { ALL_ROUTES, type ListQuery, type ListSummary } from '../../worker/list-query';
import type { RouteRow } from '../../worker/types';
import { useAnalysisClient } from '../study/analysis';
import { useStudy } from '../study/store';
import { beforeLastEdit } from './since';
import type { Since } from './query';

export interface ListedRoutes {
  readonly query: ListQuery;
  readonly summary: ListSummary;
}

/** Null while it is looked up; the list before stays meanwhile. */
export function useList(query: ListQuery, since: Since | null): ListedRoutes | null {
  const client = useAnalysisClient();
  const analysis = useStudy((state) => state.analysis);
  const opened = useStudy((state) => state.opened);
  const document = useStudy((state) => state.document);
  const past = useStudy((state) => state.past);
  // What is told of the same document afterwards changes no list.
  const analysed = analysis?.document;
  const key = JSON.stringify(query);
  // How many there are in all is known already.
  const [list, setList] = useState<ListedRoutes | null>(() =>
    analysis !== null && key === JSON.stringify(ALL_ROUTES)
      ? { query, summary: { total: analysis.routes, exact: analysis.exact, front: 0, refused: null } }
      : null,
  );
  const isGiven = useRef(list !== null);
  const base = useMemo(
    () => (since === null ? null : since === 'opened' ? opened : beforeLastEdit(document, past)),
    [since, opened, document, past],
  );
  useEffect(() => {
    if (analysed === undefined) return;
    if (isGiven.current) {
      isGiven.current = false;
      return;
    }
    let current = true;
    const asked = JSON.parse(key) as ListQuery;
    const look = async () => {
      if (base !== null) await client.api.since(base);
      const summary = await client.api.list(asked);
      if (current) setList({ query: asked, summary });
    };
    void look();
    return () => {
      current = false;
    };
  }, [client, analysed, key, base]);
  return list;
}

/** The rows from place `first`, counted from 0; while others are fetched, those that were shown last. */
export function useRows(list: ListedRoutes | null, first: bigint, count: number): readonly RouteRow[] {
  const client = useAnalysisClient();
  const [rows, setRows] = useState<readonly RouteRow[]>([]);
  useEffect(() => {
    if (list === null) return;
    let current = true;
    void client.api.rows(list.query, String(first + 1n), count).then((next) => {
      if (current) setRows(next);
    });
    return () => {
      current = false;
    };
  }, [client, list, first, count]);
  return rows;
}

/** Shares of the sample by number, of the rows in sight; they follow after the rows. */
export function useShares(rows: readonly RouteRow[]): ReadonlyMap<string, number> {
  const client = useAnalysisClient();
  const [shares, setShares] = useState<ReadonlyMap<string, number>>(new Map());
  useEffect(() => {
    let current = true;
    const numbers = rows.map(({ number }) => number);
    if (numbers.length === 0) return;
    const timer = setTimeout(() => {
      void client.api.sharesOf(numbers).then((found) => {
        if (!current) return;
        setShares(
          new Map(
            numbers.flatMap((number, n) => {
              const share = found[n];
              return share === null || share === undefined ? [] : [[number, share] as const];
            }),
          ),
        );
      });
    }, 60);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [client, rows]);
  return shares;
}
