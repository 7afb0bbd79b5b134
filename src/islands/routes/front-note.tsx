/** What stands in front of the list because of its order, and what that guarantees. */
import { percentText } from '../../core/wording/percent';
import { useState } from 'react';
import type { ListOrder } from '../../worker/list-query';
import type { LikelySummary } from '../../worker/types';
import { useAsked } from '../ui/use-asked';
import { useAnalysisClient } from '../state/analysis';
import { useStudy } from '../state/store';
import { grouped, plural } from '../ui/format';
import classes from './routes.module.css';
import { takesAll, TAKEN, type CoverInHand, type CoverShown } from './use-cover';

interface Props {
  readonly order: ListOrder;
  readonly front: CoverInHand;
}

export function FrontNote({ order, front }: Props) {
  if (order === 'likeliest') return <LikelyNote />;
  if (order !== 'forks' && order !== 'pairs') return null;
  const { cover, halt, again } = front;
  const stands = cover?.stands ?? 'looking';
  return (
    <div className={classes.note}>
      {/* Busy, so that not every improvement is read out: what comes of it is. */}
      <p role="status" aria-busy={stands === 'looking'}>
        {cover === null ? lookingWords(order) : coverWords(order, cover)}
      </p>
      {stands === 'looking' && (
        <button type="button" title="Leave it at what was found so far" onClick={halt}>
          Stop looking
        </button>
      )}
      {(stands === 'stopped' || stands === 'failed') && (
        <button type="button" onClick={again}>
          Look again
        </button>
      )}
    </div>
  );
}

const ONES = { forks: 'outcome', pairs: 'pair' } as const;

const lookingWords = (order: 'forks' | 'pairs') => `Looking for few routes that take ${TAKEN[order]} …`;

function coverWords(order: 'forks' | 'pairs', cover: CoverShown): string {
  const { routes, taken, of, complete, stands } = cover;
  if (stands === 'failed')
    return `The search for few routes that take ${TAKEN[order]} ended by a fault of its own; the list is in order of the script.`;
  if (!complete)
    return order === 'forks'
      ? 'The conditions are too entangled to find few routes that take every fork; the list is in order of the script.'
      : 'There are too many forks to find routes that take every two of them together; the list is in order of the script.';
  if (takesAll(cover)) return `${wholeWords(order, cover)}${endWords(cover)}`;
  if (routes.length === 0)
    return stands === 'looking'
      ? lookingWords(order)
      : `The search for few routes that take ${TAKEN[order]} was stopped before one was found; the list is in order of the script.`;
  if (stands === 'found')
    return `${theseTake(routes.length)} ${grouped(taken)} of ${plural(of, ONES[order])}. No route was found for the rest: there are too many forks to tell every way through them apart, so walk to those by hand. The others follow.`;
  const found = `${routes.length} found so far ${routes.length === 1 ? 'takes' : 'take'}`;
  const taking = `◆ ${found} ${grouped(taken)} of ${plural(of, ONES[order])}`;
  return stands === 'looking'
    ? `${lookingWords(order)} ${taking}, and ${routes.length === 1 ? 'stands' : 'stand'} in front.`
    : `The search for few routes that take ${TAKEN[order]} was stopped. ${taking}; the others follow.`;
}

const theseTake = (routes: number) =>
  routes === 1 ? '◆ This route takes' : `◆ These ${routes} routes between them take`;

function wholeWords(order: 'forks' | 'pairs', { routes, taken }: CoverShown): string {
  const these = theseTake(routes.length);
  return order === 'forks'
    ? `${these} every fork: every skip and onward taken and not taken, both sides of every ask-if, every item, last pass, ending and message that anybody can meet, ${plural(taken, 'outcome')} in all.`
    : `${these} every two outcomes of forks that somebody meets together, ${plural(taken, 'pair')} in all.`;
}

/** How few could do, and whether fewer are looked for. */
function endWords({ routes, atLeast, stands }: CoverShown): string {
  const bound =
    routes.length === atLeast
      ? ' Fewer cannot: some of these outcomes keep each other out.'
      : atLeast > 1
        ? ` Fewer than ${atLeast} cannot.`
        : '';
  if (stands === 'looking') return `${bound} Looking for fewer …`;
  return `${bound}${stands === 'stopped' ? ' The search for fewer was stopped.' : ''} The others follow.`;
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
