/**
 * What "one more point" of an answer means: more of those who are asked give it, and all other answers to the question keep
 * their proportions. So it is with several picks: more have the one, and what is picked with it and without it stays in proportion.
 */
import type { Leaning } from '../analysis';
import { hasRows } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Answer, Assume, AssumedShares } from '../document/types';
import { gridRowAnswer } from '../routing/answers';
import { assumedAmong, assumingAmong, codeWeights, lineWeights, type LineAnswer } from '../routing/assumed';
import { picksOf, shareAt, shareSlope, type AssumedPick } from '../routing/pick-shares';

/** Values on a line from one to another, both included. */
export interface LineRange {
  readonly from: number | string;
  readonly to: number | string;
}

/** An answer that a share can be assumed of. */
export type AssumedAnswer = { readonly code: number } | LineRange | 'blank';

export interface AssumedShare {
  /** Of whom it is assumed: of those of one of the document's conditions, by its index, or, with null, of the rest. */
  readonly where: number | null;
  readonly answer: AssumedAnswer;
  /**
   * From 0 to 1: of those who answer, all options shown, how many give it; of a blank, of all who are asked. Without the blank they
   * add up to 1, but for picks.
   */
  readonly share: number;
  /** From what is assumed, all written out, to where everybody gives this answer (or, where they do already, nobody). */
  readonly leaning: Leaning;
  /** How fast the share changes at the beginning of that way, by the whole way: but for picks, the same all along it. */
  readonly length: number;
  /** Of a pick: its chance, of which the share comes, and what it comes to otherwise; null of other answers. */
  readonly pick: AssumedPick | null;
}

/** What the share is once some part of the way is gone. */
export function shareOnTheWay({ share, length, pick }: AssumedShare, part: number): number {
  if (pick === null) return share + length * part;
  const end = share >= 1 ? 0 : 1;
  return shareAt(pick.chance + (end - pick.chance) * part, pick.odds);
}

/** Some part of the way to where everybody gives an answer, from 0 to 1. */
export function onTheWay(
  { where, leaning: { assume, toward = assume } }: Pick<AssumedShare, 'where' | 'leaning'>,
  part: number,
): Assume {
  const [from, to] = [assumedAmong(assume, where), assumedAmong(toward, where)];
  const mixed = (a = 0, b = 0) => a + part * (b - a);
  const shares = Object.fromEntries(
    Object.keys(from.shares ?? {}).map((code) => [code, mixed(from.shares?.[code], to.shares?.[code])]),
  );
  const ranges = from.ranges?.map((range, n) => ({
    ...range,
    share: mixed(range.share, to.ranges?.[n]?.share),
  }));
  const blank = mixed(from.blank, to.blank);
  return assumingAmong(assume, where, { shares, ...(ranges ? { ranges } : {}), blank });
}

/** A question, or a given value (which is `required`), with what is assumed of it. */
export interface Assumable {
  readonly answer: Answer;
  readonly assume?: Assume | undefined;
  readonly required?: boolean;
}

/**
 * Every share that is assumed of a question, or of a given value (which is `required`), a number's or date's by `ranges`. What
 * is not listed is written out as it is assumed in silence.
 */
export function assumedShares(of: Assumable, ranges: readonly LineRange[]): AssumedShare[] {
  const { assume = {} } = of;
  const wheres = [null, ...(assume.where ?? []).keys()];
  return wheres.flatMap((where) =>
    sharesAmong({ ...of, assume: assumedAmong(assume, where) }, ranges).map(({ leaning, ...share }) => ({
      ...share,
      where,
      leaning: {
        assume: assumingAmong(assume, where, leaning.assume),
        ...(leaning.toward === undefined ? {} : { toward: assumingAmong(assume, where, leaning.toward) }),
      },
    })),
  );
}

/** The same where all are alike. */
function sharesAmong(
  of: { readonly answer: Answer; readonly assume: AssumedShares; readonly required?: boolean },
  ranges: readonly LineRange[],
): Omit<AssumedShare, 'where'>[] {
  const { assume, required = false } = of;
  const answer = hasRows(of.answer) ? gridRowAnswer(of.answer) : of.answer;
  const blank = required ? 0 : (assume.blank ?? 0);
  const all = sharesOf(answer, assume, ranges);
  const found = all.map((own, n) => oneShare(all, n, own.share, blank));
  if (required) return found;
  const written = { ...asAssumed(all), blank };
  return [
    ...found,
    {
      answer: 'blank',
      share: blank,
      leaning: { assume: written, toward: { ...written, blank: blank < 1 ? 1 : 0 } },
      length: blank < 1 ? 1 - blank : -1,
      pick: null,
    },
  ];
}

interface Share {
  readonly answer: Exclude<AssumedAnswer, 'blank'>;
  readonly share: number;
  readonly pick?: AssumedPick;
}

function oneShare(
  all: readonly Share[],
  n: number,
  share: number,
  blank: number,
): Omit<AssumedShare, 'where'> {
  const { pick = null, answer: own } = all[n] as Share;
  const isWhole = share >= 1;
  const ahead = all.map((other, m) => {
    if (m === n) return { answer: own, share: isWhole ? 0 : 1 };
    if (pick !== null) return other;
    return { ...other, share: isWhole ? 1 / Math.max(1, all.length - 1) : 0 };
  });
  return {
    answer: own,
    share,
    pick,
    leaning: { assume: { ...asAssumed(all), blank }, toward: { ...asAssumed(ahead), blank } },
    length: lengthOf(pick, share),
  };
}

function lengthOf(pick: AssumedPick | null, share: number): number {
  const way = share >= 1 ? -1 : 1 - share;
  if (pick === null) return way;
  const end = share >= 1 ? 0 : 1;
  // An option that everybody picks, or nobody can: nothing hangs on its chance, and 0 would be divided by.
  return (end - pick.chance) * shareSlope(pick.chance, pick.odds) || way;
}

function sharesOf(answer: Answer, assume: AssumedShares, ranges: readonly LineRange[]): Share[] {
  switch (answer.type) {
    case 'single': {
      const weights = codeWeights(answer.options, assume);
      const total = weights.reduce((sum, weight) => sum + weight, 0);
      const even = total > 0 ? weights.map((weight) => weight / total) : codeWeights(answer.options, {});
      return answer.options.map(({ code }, n) => ({ answer: { code }, share: even[n] ?? 0 }));
    }
    case 'multiple': {
      return picksOf(answer, assume).map((pick, n) => ({
        answer: { code: answer.options[n]?.code ?? 0 },
        share: pick.share,
        pick,
      }));
    }
    case 'scale':
    case 'number':
    case 'date':
    case 'time':
    case 'datetime':
      return onLine(answer, assume, ranges);
    case 'text':
    case 'rank':
    case 'grid':
      return [];
    default:
      return answer satisfies never;
  }
}

function onLine(answer: LineAnswer, assume: AssumedShares, ranges: readonly LineRange[]): Share[] {
  const { line, spans, specials } = lineWeights(answer, assume);
  const options = optionsOf(answer);
  const said = [...specials, ...spans.map(({ share }) => share)].reduce((sum, share) => sum + share, 0);
  if (said === 0) return onLine(answer, {}, ranges);
  return [
    ...ranges.map((range) => {
      const [from, to] = [line.stepOf(range.from), line.stepOf(range.to)];
      const share = spans.reduce((sum, span) => {
        const shared = Math.min(to, span.to) - Math.max(from, span.from) + 1;
        return shared <= 0 ? sum : sum + (span.share * shared) / (span.to - span.from + 1);
      }, 0);
      return { answer: range, share: share / said };
    }),
    ...options.map(({ code }, n) => ({ answer: { code }, share: (specials[n] ?? 0) / said })),
  ];
}

/** Shares as they stand in a document, which has the chances of picks. */
function asAssumed(all: readonly Share[]): AssumedShares {
  const shares: Record<string, number> = {};
  const ranges: (LineRange & { share: number })[] = [];
  for (const { answer, share, pick } of all)
    if ('code' in answer) shares[String(answer.code)] = pick?.chance ?? share;
    else ranges.push({ ...answer, share });
  return { shares, ...(ranges.length > 0 ? { ranges } : {}) };
}
