/**
 * Shares as a ruled line: cut by ticks where they add up, which are dragged or moved by arrow keys; of several picks a line for
 * each, with its own tick.
 */
import { useRef, useState, type CSSProperties, type KeyboardEvent, type PointerEvent } from 'react';
import type { Answer } from '../../core/document/types';
import { assumedWords } from '../../core/forecast/answer-words';
import { addsUp, withShare, withTick, type AnswerShare } from '../../core/forecast/re-share';
import classes from './ruler.module.css';

interface Props {
  readonly name: string;
  readonly answer: Answer;
  readonly shares: readonly AnswerShare[];
  /** Nobody has looked at these shares yet. */
  readonly isPencilled: boolean;
  readonly readOnly: boolean;
  /** While it is dragged. */
  readonly lean: (shares: readonly AnswerShare[]) => void;
  readonly keep: (shares: readonly AnswerShare[]) => string | null;
  readonly letGo: () => void;
}

/** Shares with words beside them take this many characters of the line, of which it holds about so many. */
const CHARACTERS = 46;
const POINT = 0.01;
/** Ticks that are nearer than this share of the line stand beneath each other, so that each can be taken hold of. */
const APART = 0.12;
const LANE = 24;

export function AnswerRuler(props: Props) {
  const { answer, name } = props;
  const own = props.shares.filter(({ answer: of }) => of !== 'blank');
  const rest = props.shares.filter(({ answer: of }) => of === 'blank');
  if (addsUp(answer)) return <Ruler {...props} shares={own} change={(next) => [...next, ...rest]} />;
  return (
    <>
      {own.map((of, at) => {
        const words = assumedWords(answer, of.answer);
        const pair = [of, { answer: 'blank' as const, share: 1 - of.share }];
        return (
          <Ruler
            key={words}
            {...props}
            name={`“${words}” of ${name}`}
            shares={pair}
            isOne
            change={([first]) => withShare(props.shares, at, first?.share ?? of.share, false)}
          />
        );
      })}
    </>
  );
}

interface RulerProps extends Props {
  /** Of the first of two shares only: the second is what is left. */
  readonly isOne?: boolean;
  /** All shares of the question, once those of this line are others. */
  readonly change: (shares: readonly AnswerShare[]) => readonly AnswerShare[];
}

function Ruler({
  name,
  answer,
  shares,
  isPencilled,
  readOnly,
  isOne,
  lean,
  keep,
  letGo,
  change,
}: RulerProps) {
  const line = useRef<HTMLDivElement>(null);
  const [dragged, setDragged] = useState<{
    readonly tick: number;
    readonly from: number;
    readonly shares: readonly AnswerShare[];
    readonly now: readonly AnswerShare[];
  } | null>(null);
  const shown = dragged?.now ?? shares;
  const starts = startsOf(shown);
  // While one is dragged, all stay in the lanes they were in.
  const lanes = lanesOf(startsOf(dragged?.shares ?? shares).slice(1));
  const words = (n: number) => {
    const of = shown[n];
    return of === undefined || (isOne && n === 1) ? '' : assumedWords(answer, of.answer);
  };
  const percent = (n: number) => Math.round(100 * (shown[n]?.share ?? 0));

  const take = (event: PointerEvent, tick: number) => {
    if (readOnly) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    setDragged({ tick, from: event.clientX, shares, now: shares });
  };
  const move = (event: PointerEvent) => {
    const width = line.current?.clientWidth ?? 0;
    if (dragged === null || width === 0) return;
    const by = Math.round((100 * (event.clientX - dragged.from)) / width) * POINT;
    const now = withTick(dragged.shares, dragged.tick, by);
    setDragged({ ...dragged, now });
    lean(change(now));
  };
  const drop = () => {
    if (dragged === null) return;
    if (dragged.now === dragged.shares) letGo();
    else keep(change(dragged.now));
    setDragged(null);
  };
  const press = (event: KeyboardEvent, tick: number) => {
    const step = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1, PageDown: -10, PageUp: 10 }[
      event.key
    ];
    if (event.key === 'Escape' && dragged !== null) {
      letGo();
      setDragged(null);
    }
    if (step === undefined || readOnly) return;
    event.preventDefault();
    keep(change(withTick(shares, tick, step * (event.shiftKey ? 5 : 1) * POINT)));
  };
  return (
    <div className={classes.ruler} data-pencilled={isPencilled || undefined}>
      <div className={classes.words} aria-hidden="true">
        {shown.map((of, n) => {
          const room = of.share * CHARACTERS;
          const label = words(n);
          if ((isOne && n === 1) || room < 2.2) return null;
          return (
            <span
              key={JSON.stringify(of.answer)}
              style={{ left: `${100 * (starts[n] ?? 0)}%`, maxWidth: `${isOne ? 100 : 100 * of.share}%` }}
            >
              <b>{percent(n)}</b>
              {(isOne || room > 6) && ` ${label}`}
            </span>
          );
        })}
      </div>
      <div className={classes.line} ref={line} style={{ height: LANE * (1 + Math.max(0, ...lanes)) }}>
        {shown.slice(0, -1).map((of, tick) => (
          <div
            key={JSON.stringify(of.answer)}
            className={classes.tick}
            style={
              {
                left: `${100 * Math.min(1, Math.max(0, starts[tick + 1] ?? 0))}%`,
                '--lane': `${LANE * (lanes[tick] ?? 0)}px`,
              } as CSSProperties
            }
            data-held={dragged?.tick === tick || undefined}
            role="slider"
            tabIndex={0}
            aria-label={
              isOne ? `Share of ${name}` : `Between “${words(tick)}” and “${words(tick + 1)}” of ${name}`
            }
            aria-valuemin={0}
            aria-valuemax={100}
            aria-valuenow={percent(tick)}
            aria-valuetext={
              isOne
                ? `${percent(tick)}%`
                : `${words(tick)} ${percent(tick)}%, ${words(tick + 1)} ${percent(tick + 1)}%`
            }
            aria-disabled={readOnly || undefined}
            onPointerDown={(event) => take(event, tick)}
            onPointerMove={move}
            onPointerUp={drop}
            onPointerCancel={() => {
              letGo();
              setDragged(null);
            }}
            onKeyDown={(event) => press(event, tick)}
          />
        ))}
      </div>
    </div>
  );
}

/** Where each share begins on the line. */
function startsOf(shares: readonly AnswerShare[]): number[] {
  return shares.map((_, n) => shares.slice(0, n).reduce((sum, { share }) => sum + share, 0));
}

/** For each place on the line, the first lane in which nothing stands too near. */
function lanesOf(places: readonly number[]): number[] {
  const last: number[] = [];
  return places.map((place) => {
    const free = last.findIndex((before) => place - before >= APART);
    const lane = free < 0 ? last.length : free;
    last[lane] = place;
    return lane;
  });
}
