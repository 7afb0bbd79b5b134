/** How far the routes are signed off, and what that is worth where they are too many to walk them all. */
import { percentText } from '../../core/wording/percent';
import { useMemo, useState } from 'react';
import { useAsked } from '../ui/use-asked';
import { useAnalysisClient } from '../state/analysis';
import { useLedger } from '../state/ledger';
import { useStudy } from '../state/store';
import { countText, grouped, plural } from '../ui/format';
import type { VerdictFilter } from '../state/routes-shown';
import type { DrawnRoutes } from '../state/random-draw';
import classes from './sign-off.module.css';
import { takesAll, type CoverShown } from './use-cover';

/** Up to this many routes can be walked one by one. */
const WALKABLE = 200n;

interface Props {
  readonly cover: CoverShown | null;
  readonly draw: DrawnRoutes;
  readonly show: (verdict: VerdictFilter) => void;
}

export function SignOff({ cover, draw, show }: Props) {
  const total = useStudy((state) => state.analysis?.routes ?? '0');
  const readOnly = useStudy((state) => state.readOnly);
  const ledger = useLedger();
  const { passed, sentBack, changed } = ledger;
  const left = BigInt(total) - BigInt(passed) - BigInt(sentBack);
  const isPassed = (number: string) => ledger.byNumber.get(number)?.verdict === 'passed';
  const share = usePassedShare();
  const distinct = [...new Set(draw.numbers)];
  const bar = (count: number) => `${Number((BigInt(count) * 10_000n) / BigInt(total)) / 100}%`;
  const many = BigInt(total) > WALKABLE;
  return (
    <div className={classes.sign}>
      <span className={classes.bar} aria-hidden="true">
        <i style={{ width: bar(passed) }} />
        <i data-back style={{ width: bar(sentBack) }} />
      </span>
      <p>
        <button type="button" onClick={() => show('walked')}>
          {grouped(passed)} walked and passed
        </button>
        {sentBack > 0 && ` · ${grouped(sentBack)} sent back`}
        {changed.length > 0 && (
          <>
            {' · '}
            <button type="button" onClick={() => show('changed')}>
              {grouped(changed.length)} changed since
            </button>
          </>
        )}{' '}
        ·{' '}
        <button type="button" onClick={() => show('open')}>
          {countText(left)} to go
        </button>
      </p>
      {many && (
        <p>
          {takesAll(cover) && (
            <>
              {' '}
              Of the {cover.routes.length} that take every fork,{' '}
              <b>{cover.routes.filter(({ number }) => isPassed(number)).length}</b> passed.
            </>
          )}{' '}
          {draw.count > 0 ? (
            <>
              Of{' '}
              <button type="button" onClick={() => show('drawn')}>
                {plural(distinct.length, 'route')} drawn at random
              </button>
              , <b>{distinct.filter(isPassed).length}</b> passed.{' '}
            </>
          ) : (
            'None drawn at random. '
          )}
          {share !== null && passed > 0 && (
            <>Those passed are taken by {percentText(share)} of the sample. </>
          )}
          {readOnly === null && (
            <button
              type="button"
              title="Respondents made up by the assumed answers; their routes are to be walked too"
              disabled={draw.count >= 500}
              onClick={() => void draw.more(10)}
            >
              {draw.count === 0 ? 'Draw 10' : 'Draw 10 more'}
            </button>
          )}
          {draw.problem !== null && <span role="alert"> {draw.problem}</span>}
        </p>
      )}
    </div>
  );
}

/** The share of the sample that takes a route that was passed; null where it is not known. */
function usePassedShare(): number | null {
  const client = useAnalysisClient();
  const analysis = useStudy((state) => state.analysis);
  const { byNumber } = useLedger();
  const [share, setShare] = useState<number | null>(null);
  const numbers = useMemo(
    () => [...byNumber].flatMap(([number, { verdict }]) => (verdict === 'passed' ? [number] : [])),
    [byNumber],
  );
  const known = analysis?.sample !== undefined;
  useAsked(
    () => (known ? client.api.sharesOf(numbers) : null),
    [client, known, numbers],
    (found) =>
      setShare(found.includes(null) ? null : found.reduce<number>((sum, each) => sum + (each ?? 0), 0)),
  );
  return share;
}
