/** What is other in one version than in another: routes in figures, each a door; then two sheets, chapter by chapter. */
import { useRef, useState } from 'react';
import type { Differing } from '../../core/release/differing-routes';
import { percentText } from '../../core/wording/percent';
import type { Version } from '../../wire/versions';
import type { Compared } from '../../worker/release/types';
import { countText } from '../ui/format';
import { BothSides } from './BothSides';
import classes from './compare.module.css';
import type { Shown } from './shown';
import { Sheets } from './Sheets';
import { useCompared } from './use-compared';

interface Props {
  /** Null for the draft. */
  readonly of: Shown;
  readonly against: number;
  readonly versions: readonly Version[];
  readonly hold: (against: number) => void;
}

export const shownName = (shown: Shown) => (shown === null ? 'Draft' : `Version ${shown}`);

export function CompareView({ of, against, versions, hold }: Props) {
  const comparing = useCompared(of, against);
  const others = versions.filter(({ number }) => number !== of);
  return (
    <section aria-label="Comparison">
      <h2 className={classes.title}>
        {shownName(of)} against{' '}
        <select
          aria-label="Held against"
          value={against}
          onChange={(event) => hold(Number(event.target.value))}
        >
          {others.map(({ number }) => (
            <option key={number} value={number}>
              version {number}
            </option>
          ))}
        </select>
      </h2>
      {comparing.state === 'waiting' && <p role="status">Comparing …</p>}
      {comparing.state === 'failed' && <p role="alert">{comparing.problem}</p>}
      {comparing.state === 'found' && (
        <Found
          key={`${of} ${against}`}
          found={comparing.found}
          of={of}
          against={against}
          busy={!comparing.isNew}
        />
      )}
    </section>
  );
}

interface FoundProps {
  readonly found: Compared;
  readonly of: Shown;
  readonly against: number;
  readonly busy: boolean;
}

function Found({ found, of, against, busy }: FoundProps) {
  const [walking, setWalking] = useState<Differing | null>(null);
  const figures = useRef<HTMLDivElement>(null);
  const [breaksOnly, setBreaksOnly] = useState(false);
  const { routes, breaks, sheets } = found;
  const isSame =
    sheets.length === 0 && routes.lost === '0' && routes.gained === '0' && routes.changed === '0';
  const total = walking === null ? null : routes[walking];
  return (
    <div aria-busy={busy}>
      <div ref={figures}>
        <Figures {...{ found, walking, setWalking, breaksOnly, setBreaksOnly }} />
      </div>
      {isSame && (
        <p className={classes.same}>Nothing is other: the same routes, words, codes and conditions.</p>
      )}
      {walking !== null && total !== null && total !== '0' && (
        <BothSides
          // Another edit, another list of routes.
          key={`${walking} ${total}`}
          which={walking}
          total={total}
          of={of}
          against={against}
          close={() => {
            setWalking(null);
            figures.current?.querySelector<HTMLElement>('[aria-pressed="true"]')?.focus();
          }}
        />
      )}
      {!routes.exact && <p>Not all routes could be counted: the figures are of those that could.</p>}
      <Sheets sheets={sheets} breaksOnly={breaksOnly && breaks.length > 0} of={of} against={against} />
    </div>
  );
}

interface FiguresProps {
  readonly found: Compared;
  readonly walking: Differing | null;
  readonly setWalking: (which: Differing | null) => void;
  readonly breaksOnly: boolean;
  readonly setBreaksOnly: (only: boolean) => void;
}

const FIGURES: readonly (readonly [Differing, one: string, many: string])[] = [
  ['gained', 'route gained', 'routes gained'],
  ['lost', 'route lost', 'routes lost'],
  ['changed', 'worded or coded otherwise', 'worded or coded otherwise'],
];

function Figures({ found, walking, setWalking, breaksOnly, setBreaksOnly }: FiguresProps) {
  const { routes, breaks } = found;
  return (
    <div className={classes.figures} role="group" aria-label="What is other">
      {FIGURES.map(([which, one, many]) => (
        <Figure
          key={which}
          count={routes[which]}
          words={routes[which] === '1' ? one : many}
          isBad={which === 'lost'}
          open={walking === which}
          does={() => setWalking(walking === which ? null : which)}
        />
      ))}
      <p>
        <b>{routes.share === null ? '?' : percentText(routes.share)}</b>
        <small>
          {routes.share === null
            ? 'who meets a difference is not known exactly'
            : 'of the sample meets a difference'}
        </small>
      </p>
      <Figure
        count={String(breaks.length)}
        words={breaks.length === 1 ? 'break in the series' : 'breaks in the series'}
        isBad
        open={breaksOnly}
        does={() => setBreaksOnly(!breaksOnly)}
      />
    </div>
  );
}

interface FigureProps {
  /** A decimal string; null where it is too entangled to tell. */
  readonly count: string | null;
  readonly words: string;
  readonly isBad: boolean;
  readonly open: boolean;
  readonly does: () => void;
}

function Figure({ count, words, isBad, open, does }: FigureProps) {
  const figure = (
    <>
      <b data-bad={(isBad && count !== '0') || undefined}>{count === null ? '?' : countText(count, 7)}</b>
      <small>{words}</small>
    </>
  );
  if (count === null || count === '0')
    return <p title={count === null ? 'Too entangled to tell' : undefined}>{figure}</p>;
  return (
    <button type="button" aria-pressed={open} onClick={does}>
      {figure}
    </button>
  );
}
