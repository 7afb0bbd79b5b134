/** How many take each way on from an item or the end of a section, as the analysis counts them. */
import { useState } from 'react';
import { wayKey } from '../../core/document/addresses';
import { percentText } from '../../core/wording/percent';
import type { WaysFrom, WayShare } from '../../worker/types';
import { useAsked } from '../ui/use-asked';
import { useAnalysisClient } from '../state/analysis';
import { shownSearch } from '../state/routes-shown';
import { RoutesDoor } from './RoutesDoor';
import { useStudy } from '../state/store';
import { countText, grouped } from '../ui/format';
import classes from './rows.module.css';

export interface WayCount extends WayShare {
  /** Undefined until they have been counted; null for what goes of itself, which is not counted apart. */
  readonly taking: { readonly routes: string; readonly exact: boolean } | null | undefined;
}

/** Null until they have been looked for; what was counted last stands until then. */
export function useWays(from: WaysFrom, wanted: boolean): readonly WayCount[] | null {
  const client = useAnalysisClient();
  const analysed = useStudy((state) => state.analysis?.document);
  const [counts, setCounts] = useState<readonly WayCount[] | null>(null);
  const key = JSON.stringify(from);
  const count = async (isWanted: () => boolean) => {
    const show = (found: readonly WayCount[]) =>
      setCounts((before) =>
        found.map((way) => ({
          ...way,
          taking:
            way.taking === undefined ? before?.find(({ index }) => index === way.index)?.taking : way.taking,
        })),
      );
    const asked = JSON.parse(key) as WaysFrom;
    let found: readonly WayCount[] = (await client.api.ways(asked)).map((way) => ({
      ...way,
      taking: way.index === null ? null : undefined,
    }));
    // One at a time, so that a newer edit is not kept waiting by the rest.
    for (const { index } of found) {
      if (!isWanted()) return;
      show(found);
      if (index === null) continue;
      const taking = await client.api.routesTaking(asked, index);
      found = found.map((way) => (way.index === index ? { ...way, taking } : way));
    }
    if (isWanted()) show(found);
  };
  useAsked(
    // A newer edit has ended this count; its own follows.
    (isWanted) => (analysed === undefined || !wanted ? null : count(isWanted).catch(() => undefined)),
    [client, analysed, key, wanted],
    () => undefined,
  );
  return counts;
}

/** The line under a skip; its place is kept while it is counted. */
export function TakenBy({ count, from }: { readonly count: WayCount | undefined; readonly from: WaysFrom }) {
  const share = count?.share ?? null;
  const taking = count?.taking ?? null;
  if (taking === null && share === null) return <p className={classes.takenBy}>…</p>;
  const index = count?.index ?? 0;
  const way = 'item' in from ? { item: from.item, skip: index } : { section: from.section, onward: index };
  return (
    <p className={classes.takenBy}>
      {taking !== null && (
        <RoutesDoor
          search={shownSearch({ taking: [wayKey(way)] })}
          title={`${grouped(taking.routes)} routes`}
        >
          {`${taking.exact ? '' : 'at least '}${countText(taking.routes)} ${taking.routes === '1' ? 'route' : 'routes'}`}
        </RoutesDoor>
      )}
      {taking !== null && share !== null && ' · '}
      {share !== null && `${percentText(share)} of the sample`}
    </p>
  );
}
