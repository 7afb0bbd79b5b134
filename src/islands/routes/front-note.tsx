/** What stands in front of the list because of its order, and what that guarantees. */
import { percentText } from '../../core/wording/percent';
import { useEffect, useState } from 'react';
import type { CoverSummary, ListOrder } from '../../worker/list-query';
import type { LikelySummary } from '../../worker/types';
import { useAsked } from '../ui/use-asked';
import { useAnalysisClient } from '../state/analysis';
import { useStudy } from '../state/store';
import { grouped, plural } from '../ui/format';
import classes from './routes.module.css';

/** Questionnaires up to this many items have their covering set looked for without being asked. */
const LOOKED_FOR_AT_ONCE = 400;

/** The routes that take every fork, or every two; null while they are looked for. */
export function useCover(which: 'forks' | 'pairs', wanted: boolean): CoverSummary | null {
  const client = useAnalysisClient();
  const analysed = useStudy((state) => state.analysis?.document);
  const [cover, setCover] = useState<CoverSummary | null>(null);
  useAsked(
    () => (analysed === undefined || !wanted ? null : client.api.cover(which)),
    [client, analysed, which, wanted],
    setCover,
  );
  return wanted ? cover : null;
}

/** Whether the covering set is small work. */
export function useSoonCovered(): boolean {
  const [soon, setSoon] = useState(false);
  const items = useStudy((state) => state.plan.sections.reduce((sum, { items }) => sum + items.length, 0));
  useEffect(() => {
    const timer = setTimeout(() => setSoon(true), 500);
    return () => clearTimeout(timer);
  }, []);
  return soon && items <= LOOKED_FOR_AT_ONCE;
}

interface Props {
  readonly order: ListOrder;
  readonly cover: CoverSummary | null;
}

export function FrontNote({ order, cover }: Props) {
  if (order === 'likeliest') return <LikelyNote />;
  if (order !== 'forks' && order !== 'pairs') return null;
  return (
    <p className={classes.note} role="status">
      {cover === null ? 'Looking for few routes that take every fork …' : coverWords(order, cover)}
    </p>
  );
}

function coverWords(order: 'forks' | 'pairs', { routes, atLeast, taken, complete }: CoverSummary): string {
  if (!complete)
    return order === 'forks'
      ? 'The conditions are too entangled to find few routes that take every fork; the list is in order of the script.'
      : 'There are too many forks to find routes that take every two of them together; the list is in order of the script.';
  const these =
    routes.length === 1 ? '◆ This route takes' : `◆ These ${routes.length} routes between them take`;
  const bound =
    routes.length === atLeast
      ? 'Fewer cannot: some of these outcomes keep each other out.'
      : `Fewer than ${atLeast} cannot.`;
  return order === 'forks'
    ? `${these} every fork: every skip and onward taken and not taken, both sides of every ask-if, every item, last pass, ending and message that anybody can meet, ${plural(taken, 'outcome')} in all. ${bound} The others follow.`
    : `${these} every two outcomes of forks that somebody meets together, ${plural(taken, 'pair')} in all. ${bound} The others follow.`;
}

function LikelyNote() {
  const client = useAnalysisClient();
  const analysed = useStudy((state) => state.analysis?.document);
  const [likely, setLikely] = useState<LikelySummary | null | undefined>(undefined);
  useAsked(() => (analysed === undefined ? null : client.api.likely()), [client, analysed], setLikely);
  return (
    <p className={classes.note} role="status">
      {likely === undefined
        ? 'Looking for the likeliest routes …'
        : likely === null
          ? 'Shares of the sample are not known exactly here, so neither are the likeliest routes.'
          : `The ${plural(likely.routes, 'likeliest route')}, likeliest first: ${percentText(likely.together)} of the sample take ${likely.routes === 1 ? 'it' : 'one of them'}. ${likely.othersAtMost === 0 ? 'There are no others.' : `Each other route is taken by at most ${percentText(likely.othersAtMost)}${likely.routes < 1000 ? `; to tell more than these ${grouped(likely.routes)} apart would take too long` : ''}.`}`}
    </p>
  );
}
