/** Changing a share by hand: the others make room, and what is written into the document says the same. */
import { hasRows, isDated, isNumeric, picksMany } from '../document/answer-types';
import type { Answer, AssumedShares, MultipleAnswer } from '../document/types';
import { gridRowAnswer } from '../routing/answers';
import { lineWeights } from '../routing/assumed';
import { areMet, chancesForShares, picksOf } from '../routing/pick-shares';
import type { AssumedAnswer, LineRange } from './one-more-point';

/** An answer with its share, from 0 to 1. */
export interface AnswerShare {
  readonly answer: AssumedAnswer;
  readonly share: number;
}

/** Shares that add up to 1 on paper are this near to it in the machine. */
const ROUNDING = 1e-12;

const isBlank = ({ answer }: AnswerShare) => answer === 'blank';

/** Whether shares of a question's answers add up to 1 (a blank apart); picks have each a chance of its own. */
export function addsUp(answer: Answer): boolean {
  return !picksMany(hasRows(answer) ? gridRowAnswer(answer) : answer);
}

/**
 * One share is set; the others of its question keep their proportions, and all add up to 1 where they have to. Those at
 * `held` stay as they are, as far as there is room: whoever copies a table types one after the other.
 */
export function withShare(
  all: readonly AnswerShare[],
  at: number,
  share: number,
  doesAddUp: boolean,
  held: ReadonlySet<number> = new Set(),
): AnswerShare[] {
  const set = all[at];
  if (set === undefined || isBlank(set) || !doesAddUp)
    return all.map((each, n) => (n === at ? { ...each, share } : each));
  const others = all.flatMap((each, n) => (n !== at && !isBlank(each) ? [n] : []));
  const sumOf = (places: readonly number[]) => places.reduce((sum, n) => sum + (all[n]?.share ?? 0), 0);
  const free = others.filter((n) => !held.has(n));
  const rest = 1 - share - sumOf(others.filter((n) => held.has(n)));
  const room = Math.abs(rest) < ROUNDING ? 0 : rest;
  // Without room the rest is of nobody, and those held give way.
  const [yielding, left] =
    free.length > 0 && room >= 0
      ? [free, room]
      : [room < 0 ? others.filter((n) => held.has(n)) : others, 1 - share];
  const before = sumOf(yielding);
  return all.map((each, n) => {
    if (n === at) return { ...each, share };
    if (yielding.includes(n))
      return { ...each, share: before === 0 ? left / yielding.length : (left * each.share) / before };
    return room < 0 && free.includes(n) ? { ...each, share: 0 } : each;
  });
}

/** The tick between two neighbours is moved by a share: what one gains the other loses, as far as there is any. */
export function withTick(all: readonly AnswerShare[], after: number, by: number): AnswerShare[] {
  const [left, right] = [all[after], all[after + 1]];
  if (left === undefined || right === undefined) return [...all];
  const moved = Math.min(Math.max(by, -left.share), right.share);
  return all.map((each, n) =>
    n === after
      ? { ...each, share: left.share + moved }
      : n === after + 1
        ? { ...each, share: right.share - moved }
        : each,
  );
}

/**
 * As it stands in a document; ranges that the author told apart within a stretch keep their proportions. Of picks the chances are
 * found of which the shares come that are new, or at `held`, as nearly as they can be together; the others stay in proportion.
 */
export function asAssumed(
  answer: Answer,
  before: AssumedShares,
  all: readonly AnswerShare[],
  held: ReadonlySet<number> = new Set(),
): AssumedShares {
  const row = hasRows(answer) ? gridRowAnswer(answer) : answer;
  return picksMany(row) ? ofPicks(row, before, all, held) : ofOthers(answer, before, all);
}

/** Why shares of picks that were moved cannot be, as a sentence with what to do; null where they can, and for other answers. */
export function cannotBePicked(
  answer: Answer,
  before: AssumedShares,
  all: readonly AnswerShare[],
): string | null {
  const row = hasRows(answer) ? gridRowAnswer(answer) : answer;
  if (!picksMany(row)) return null;
  const wanted = movedPicks(row, before, all);
  return areMet(row, ofPicks(row, before, all, new Set()), wanted, A_POINT)
    ? null
    : 'Whoever answers picks something: give another answer more first.';
}

/** What is at the edge of what can be is met no more closely. */
const A_POINT = 0.01;

function movedPicks(
  answer: MultipleAnswer,
  before: AssumedShares,
  all: readonly AnswerShare[],
): ReadonlyMap<number, number> {
  const now = picksOf(answer, before);
  const shares = all.filter((each) => !isBlank(each)).map(({ share }) => share);
  return new Map([...shares.entries()].filter(([n, share]) => Math.abs(share - (now[n]?.share ?? 0)) > SAME));
}

function ofPicks(
  answer: MultipleAnswer,
  before: AssumedShares,
  all: readonly AnswerShare[],
  held: ReadonlySet<number>,
): AssumedShares {
  const moved = movedPicks(answer, before, all);
  const stay = [...held].flatMap((n) => {
    const share = all[n]?.share;
    return share === undefined || moved.has(n) ? [] : [[n, share] as const];
  });
  const chances = picksOf(answer, before).map(({ chance }) => chance);
  const fit = (of: ReadonlyMap<number, number>) => {
    const fitted = chancesForShares(answer, chances, of);
    const written = {
      shares: Object.fromEntries(
        answer.options.map(({ code }, n) => [code, Number(fitted[n]?.toPrecision(6))]),
      ),
    };
    return { written, isMet: areMet(answer, written, of, SAME) };
  };
  const together = fit(new Map([...moved, ...stay]));
  // What cannot be together with what was said before is right by itself: the others give way.
  const { written } = together.isMet ? together : fit(moved);
  const blank = all.find(isBlank)?.share ?? before.blank;
  return { ...written, ...(blank === undefined ? {} : { blank: rounded(blank) }) };
}

/** Nearer than a hundredth of a point, shares are the same to whoever reads them. */
const SAME = 5e-5;

function ofOthers(answer: Answer, before: AssumedShares, all: readonly AnswerShare[]): AssumedShares {
  const shares: Record<string, number> = {};
  const stretches: (LineRange & { share: number })[] = [];
  let { blank } = before;
  for (const { answer: of, share } of all)
    if (of === 'blank') blank = rounded(share);
    else if ('code' in of) shares[String(of.code)] = rounded(share);
    else stretches.push({ ...of, share });
  return {
    ...(Object.keys(shares).length > 0 ? { shares } : {}),
    ...(stretches.length > 0 ? { ranges: finer(answer, before, stretches) } : {}),
    ...(blank === undefined ? {} : { blank }),
  };
}

function finer(
  answer: Answer,
  before: AssumedShares,
  stretches: readonly (LineRange & { readonly share: number })[],
): (LineRange & { share: number })[] {
  const whole = stretches.map((stretch) => ({ ...stretch, share: rounded(stretch.share) }));
  if (!isNumeric(answer) && !isDated(answer)) return whole;
  if (before.ranges === undefined && before.shares === undefined) return whole;
  const { line, spans } = lineWeights(answer, before);
  return stretches.flatMap((stretch) => {
    const [from, to] = [line.stepOf(stretch.from), line.stepOf(stretch.to)];
    const within = spans.filter((span) => span.from <= to && span.to >= from);
    const total = within.reduce((sum, { share }) => sum + share, 0);
    if (total === 0 || within.some((span) => span.from < from || span.to > to))
      return [{ ...stretch, share: rounded(stretch.share) }];
    return within.map((span) => ({
      from: line.at(span.from),
      to: line.at(span.to),
      share: rounded((stretch.share * span.share) / total),
    }));
  });
}

/** To a ten-thousandth of a point: what is left of thirds need not be written out. */
function rounded(share: number): number {
  return Math.round(share * 1e6) / 1e6;
}
