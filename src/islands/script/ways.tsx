/** How many take each way on from an item or the end of a section, as the analysis counts them. */
import { useEffect, useState } from 'react';
import type { WayCount, WaysFrom } from '../../worker/types';
import { useAnalysisClient } from '../study/analysis';
import { useStudy } from '../study/store';
import { countText, grouped, percentText } from '../ui/format';
import classes from './slip.module.css';

/** Null until they have been counted; what was counted last stands until then. */
export function useWays(from: WaysFrom, wanted: boolean): readonly WayCount[] | null {
  const client = useAnalysisClient();
  const analysed = useStudy((state) => state.analysis?.document);
  const [counts, setCounts] = useState<readonly WayCount[] | null>(null);
  const key = JSON.stringify(from);
  useEffect(() => {
    if (analysed === undefined || !wanted) return;
    let current = true;
    void client.api
      .ways(JSON.parse(key) as WaysFrom)
      .then((found) => {
        if (current) setCounts(found);
      })
      // A newer edit has ended this count; its own follows.
      .catch(() => undefined);
    return () => {
      current = false;
    };
  }, [client, analysed, key, wanted]);
  return counts;
}

/** The line under a skip; its place is kept while it is counted. */
export function TakenBy({ count }: { readonly count: WayCount | undefined }) {
  const share = count?.share ?? null;
  const words = [
    ...(count?.routes == null
      ? []
      : [
          `${count.exact ? '' : 'at least '}${countText(count.routes)} ${count.routes === '1' ? 'route' : 'routes'}`,
        ]),
    ...(share === null ? [] : [`${percentText(share)} of the sample`]),
  ];
  return (
    <p
      className={classes.takenBy}
      title={count?.routes == null ? undefined : `${grouped(count.routes)} routes`}
    >
      {count === undefined ? '…' : words.join(' · ')}
    </p>
  );
}
