/**
 * What "one more point" of an answer means: more of those who are asked give it, and all other answers to the question keep
 * their proportions. Of a question with several picks, one option is picked more often and the others as before.
 */
import type { Leaning } from '../analysis';
import { hasRows, picksMany } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Answer, Assume, AssumedShares } from '../document/types';
import { gridRowAnswer } from '../routing/answers';
import {
  assumedAmong,
  assumingAmong,
  codeWeights,
  lineWeights,
  pickChances,
  type LineAnswer,
} from '../routing/assumed';

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
  /** From 0 to 1: of those who are asked; of a blank apart from the rest, which add up to 1 without it. */
  readonly share: number;
  /** From what is assumed, all written out, to where everybody gives this answer (or, where they do already, nobody). */
  readonly leaning: Leaning;
  /** By how much the share is other at the end of that way. */
  readonly length: number;
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
  const found = all.map((own, n) => oneShare(answer, all, n, own.share, blank));
  if (required) return found;
  const written = { ...asAssumed(all), blank };
  return [
    ...found,
    {
      answer: 'blank',
      share: blank,
      leaning: { assume: written, toward: { ...written, blank: blank < 1 ? 1 : 0 } },
      length: blank < 1 ? 1 - blank : -1,
    },
  ];
}

interface Share {
  readonly answer: Exclude<AssumedAnswer, 'blank'>;
  readonly share: number;
}

function oneShare(
  answer: Answer,
  all: readonly Share[],
  n: number,
  share: number,
  blank: number,
): Omit<AssumedShare, 'where'> {
  const isWhole = share >= 1;
  const ahead = all.map((other, m) => {
    if (m === n) return { ...other, share: isWhole ? 0 : 1 };
    if (picksMany(answer)) return other;
    return { ...other, share: isWhole ? 1 / Math.max(1, all.length - 1) : 0 };
  });
  return {
    answer: (all[n] as Share).answer,
    share,
    leaning: { assume: { ...asAssumed(all), blank }, toward: { ...asAssumed(ahead), blank } },
    length: isWhole ? -1 : 1 - share,
  };
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
      const chances = pickChances(answer.options, assume);
      return answer.options.map(({ code }, n) => ({ answer: { code }, share: chances[n] ?? 0 }));
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

/** Shares as they stand in a document. */
function asAssumed(all: readonly Share[]): AssumedShares {
  const shares: Record<string, number> = {};
  const ranges: (LineRange & { share: number })[] = [];
  for (const { answer, share } of all)
    if ('code' in answer) shares[String(answer.code)] = share;
    else ranges.push({ ...answer, share });
  return { shares, ...(ranges.length > 0 ? { ranges } : {}) };
}
