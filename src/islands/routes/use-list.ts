/** The list of routes that the ledger shows: how many rows, which stands where, and the rows in sight. */
import { useMemo, useRef, useState } from 'react';
import { ALL_ROUTES, type ListQuery, type ListSummary } from '../../worker/list-query';
import type { RouteRow } from '../../worker/types';
import { useAnalysisClient } from '../state/analysis';
import type { Since } from '../state/routes-shown';
import { useStudy } from '../state/store';
import { useAsked } from '../ui/use-asked';
import { beforeLastEdit } from './since';

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
  const look = async (): Promise<ListedRoutes | null> => {
    if (analysed === undefined) return null;
    if (isGiven.current) {
      isGiven.current = false;
      return null;
    }
    const query = JSON.parse(key) as ListQuery;
    if (base !== null) await client.api.since(base);
    return { query, summary: await client.api.list(query) };
  };
  useAsked(look, [client, analysed, key, base], (found) => found && setList(found));
  return list;
}

/** The rows from place `first`, counted from 0; while others are fetched, those that were shown last. */
export function useRows(list: ListedRoutes | null, first: bigint, count: number): readonly RouteRow[] {
  const client = useAnalysisClient();
  const [rows, setRows] = useState<readonly RouteRow[]>([]);
  useAsked(
    () => (list === null ? null : client.api.rows(list.query, String(first + 1n), count)),
    [client, list, first, count],
    setRows,
  );
  return rows;
}

/** Shares of the sample by number, of the rows in sight; they follow after the rows. */
export function useShares(rows: readonly RouteRow[]): ReadonlyMap<string, number> {
  const client = useAnalysisClient();
  const [shares, setShares] = useState<ReadonlyMap<string, number>>(new Map());
  const look = async (isWanted: () => boolean) => {
    const numbers = rows.map(({ number }) => number);
    // While somebody scrolls, rows go by too fast to be asked about.
    await new Promise((passed) => setTimeout(passed, 60));
    if (numbers.length === 0 || !isWanted()) return null;
    const found = await client.api.sharesOf(numbers);
    return new Map(
      numbers.flatMap((number, n) => {
        const share = found[n];
        return share === null || share === undefined ? [] : [[number, share] as const];
      }),
    );
  };
  useAsked(look, [client, rows], (found) => found && setShares(found));
  return shares;
}
