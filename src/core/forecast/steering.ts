/**
 * Which answers everything hangs on: the questions whose assumed answers decide about bases, the weightiest first, and what one
 * more point of each answer gives.
 */
import type { Prospect } from '../analysis';
import type { Item, Questionnaire } from '../document/types';
import { slopeOfSeconds } from '../routing/burden';
import { paceOf } from '../routing/pace';
import {
  assumedShares,
  type Assumable,
  type AssumedAnswer,
  type AssumedShare,
  type LineRange,
} from './one-more-point';

/** A question, or a given value, that decides about some base. */
export interface Deciding {
  readonly name: string;
  /** As assumed: of a number or date, stretches of it between which nothing tells a difference. */
  readonly shares: readonly AssumedShare[];
  /** How many items have a base that hangs on it. */
  readonly decides: number;
}

export interface Steering extends Deciding {
  /** How much all bases together change, at most, for a point of one of its answers. */
  readonly weight: number;
}

/** What one more point of an answer gives: the share of the sample, or minutes, that come with it. */
export interface Effect {
  readonly name: string;
  /** Among whom, as in `AssumedShare`. */
  readonly where: number | null;
  readonly answer: AssumedAnswer;
  readonly perPoint: number;
}

/** More stretches of a number or date than this are too fine to be assumed one by one. */
const MOST_STRETCHES = 12;

/** A point is one in a hundred. */
const POINT = 0.01;

interface AssumableEntry extends Assumable {
  readonly item: Item | null;
}

/** By name, in the order of the document. */
function assumable(document: Questionnaire): ReadonlyMap<string, AssumableEntry> {
  const all = new Map<string, AssumableEntry>();
  // What chance allots is settled by the questionnaire; it hangs on nobody's answers.
  for (const { name, answer, assume, random } of document.given ?? [])
    if (random !== true) all.set(name, { item: null, answer, assume, required: true });
  for (const { items } of document.sections)
    for (const item of items) {
      if (item.kind !== 'question') continue;
      const { name, answer, assume, required } = item;
      all.set(name, { item, answer, assume, required: required === true });
    }
  return all;
}

/** How many items have a base that can hang on the answers to a question, by its name; whatever is assumed. */
export function decidedBy(prospect: Prospect): ReadonlyMap<string, number> {
  const decided = new Map<string, number>();
  for (const base of basesOf(prospect))
    for (const name of prospect.hangsOn(base)) decided.set(name, (decided.get(name) ?? 0) + 1);
  return decided;
}

/** By index among the groups: of every item, in any pass. */
function basesOf({ groups }: Prospect): number[] {
  return groups.flatMap((group, n) => ('item' in group && group.pass === null ? [n] : []));
}

/** The questions that decide, in the order of the document, with what is assumed of them there. */
export function decidingIn(
  document: Questionnaire,
  prospect: Prospect,
  decided: ReadonlyMap<string, number>,
): Deciding[] {
  return [...assumable(document)].flatMap(([name, of]) => {
    const decides = decided.get(name);
    if (decides === undefined) return [];
    return [{ name, decides, shares: assumedShares(of, fewer(prospect.stretchesOf(name) ?? [])) }];
  });
}

/** The weightiest first, by what `prospect` is told to assume, which is what stands in `deciding`. */
export function steeringIn(deciding: readonly Deciding[], prospect: Prospect): Steering[] {
  const ways = deciding.flatMap(({ name, shares }) => shares.map(({ leaning }) => ({ name, leaning })));
  const totals = ways.map(() => 0);
  const along = prospect.slopesAlong(ways);
  for (const base of basesOf(prospect))
    along(base).forEach((slope, n) => (totals[n] = (totals[n] ?? 0) + Math.abs(slope)));
  let next = 0;
  return deciding
    .map((of) => {
      const most = of.shares.map(({ length }) => Math.abs((totals[next++] ?? 0) / length) * POINT);
      return { ...of, weight: Math.max(0, ...most) };
    })
    .sort((a, b) => b.weight - a.weight);
}

/** Neighbouring stretches put together until no more than `MOST_STRETCHES` are left. */
function fewer(stretches: readonly (readonly [from: number | string, to: number | string])[]): LineRange[] {
  const each = Math.ceil(stretches.length / MOST_STRETCHES);
  return stretches.flatMap(([from], n) =>
    n % Math.max(1, each) === 0
      ? [{ from, to: stretches[Math.min(n + each, stretches.length) - 1]?.[1] ?? from }]
      : [],
  );
}

/** What one more point of every answer gives of a group (by its index), the most first. */
export function effectsOn(group: number, deciding: readonly Deciding[], prospect: Prospect): Effect[] {
  const ways = deciding.flatMap(({ name, shares }) => shares.map((share) => ({ name, ...share })));
  const slopes = prospect.slopesAlong(ways)(group);
  return sorted(
    ways.map(({ name, where, answer, length }, n) => ({
      name,
      where,
      answer,
      perPoint: (POINT * (slopes[n] ?? 0)) / length,
    })),
  );
}

/** The same of the mean minutes of interviews that come to some endings; null where they cannot be gone through. */
export function effectsOnMinutes(
  document: Questionnaire,
  deciding: readonly Deciding[],
  prospect: Prospect,
  seconds: (name: string) => number,
  endings: ReadonlySet<string>,
): Effect[] | null {
  const all = assumable(document);
  const pace = paceOf(document);
  const slopeOf = prospect.slopesOfMeanLength(seconds, endings);
  if (slopeOf === null) return null;
  const effects: Effect[] = [];
  for (const { name, shares } of deciding) {
    const item = all.get(name)?.item;
    for (const { where, answer, leaning, length } of shares) {
      const more = item ? slopeOfSeconds(item, leaning.assume, leaning.toward ?? leaning.assume, pace) : 0;
      effects.push({ name, where, answer, perPoint: (POINT * slopeOf(name, leaning, more)) / length / 60 });
    }
  }
  return sorted(effects);
}

/** Those that do something, the most first. */
function sorted(effects: readonly Effect[]): Effect[] {
  return effects
    .filter(({ perPoint }) => Math.abs(perPoint) > NOTHING)
    .sort((a, b) => Math.abs(b.perPoint) - Math.abs(a.perPoint));
}

/** What is left of nought by rounding. */
const NOTHING = 1e-12;
