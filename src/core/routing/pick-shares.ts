/**
 * Shares of picks: of those who answer a `multiple` with all its options shown, how many pick each. A document keeps chances,
 * each minded before limits and exclusive options are: as somebody picks at least one, of two options with a chance of one in
 * ten each is picked by half. Whoever reads or writes shares means those that come of it.
 */
import type { AssumedShares, MultipleAnswer } from '../document/types';
import { pickLimits } from './answers';
import { pickChances, pickTables } from './assumed';

/** Weights of all that is allowed with an option picked, and without it, the option's own chance left out of both. */
export interface PickOdds {
  readonly picked: number;
  readonly not: number;
}

/** By position among the options. */
export function sharesOfPicks(answer: MultipleAnswer, assume: AssumedShares): number[] {
  return picksOf(answer, assume).map(({ share }) => share);
}

/** A chance with what comes of it. */
export interface AssumedPick {
  readonly chance: number;
  readonly share: number;
  readonly odds: PickOdds;
}

/** By position among the options. Where nothing that is allowed has a chance, picks are as even as where nothing is assumed. */
export function picksOf(answer: MultipleAnswer, assume: AssumedShares): AssumedPick[] {
  const of = (chances: readonly number[]) =>
    chances.map((chance, at) => {
      const odds = oddsOfPick(answer, chances, at);
      return { chance, odds, share: shareAt(chance, odds) };
    });
  const picks = of(pickChances(answer.options, assume));
  return picks.some(({ share }) => Number.isNaN(share)) ? of(pickChances(answer.options, {})) : picks;
}

/** How many pick an option that has such a chance; NaN where nothing can be picked. */
export function shareAt(chance: number, { picked, not }: PickOdds): number {
  return (chance * picked) / (chance * picked + (1 - chance) * not);
}

/** How fast that changes with the chance; 0 where the option is always picked, or cannot be. */
export function shareSlope(chance: number, { picked, not }: PickOdds): number {
  return (picked * not) / (chance * picked + (1 - chance) * not) ** 2;
}

/** Of the option at a position; `chances` by position among the options. */
export function oddsOfPick(answer: MultipleAnswer, chances: readonly number[], at: number): PickOdds {
  const { options } = answer;
  const own: number[] = [];
  const alone: number[] = [];
  options.forEach(({ exclusive, missing }, n) => {
    if (n !== at) (exclusive === true || missing !== undefined ? alone : own).push(chances[n] ?? 0);
  });
  const { least, most } = pickLimits(answer, { options: options.map(() => true), rows: [] });
  const counts = pickTables(own)[0] ?? [1];
  const ordinary = (first: number) =>
    counts.reduce((sum, weight, n) => {
      const count = n + first;
      return count > 0 && count >= least && count <= most ? sum + weight : sum;
    }, 0);
  const none = counts[0] ?? 1;
  const noneAlone = productOf(alone.map((chance) => 1 - chance));
  const oneAlone = alone.reduce(
    (sum, chance, n) => sum + chance * productOf(alone.filter((_, m) => m !== n).map((other) => 1 - other)),
    0,
  );
  const option = options[at];
  const others = none * oneAlone;
  return option?.exclusive === true || option?.missing !== undefined
    ? { picked: none * noneAlone, not: ordinary(0) * noneAlone + others }
    : { picked: ordinary(1) * noneAlone, not: ordinary(0) * noneAlone + others };
}

/** Rounds of fitting at most, and how near a share has to come. */
const MOST_ROUNDS = 400;
const NEAR = 1e-7;

/**
 * Chances of which such shares come, by position; the other options keep the chances that they have in `chances`. One share after
 * the other is set, what is picked beside it staying in proportion, until all are met (iterative proportional fitting, Deming and
 * Stephan 1940). Shares that cannot be together are met as nearly as that goes.
 */
export function chancesForShares(
  answer: MultipleAnswer,
  chances: readonly number[],
  shares: ReadonlyMap<number, number>,
): number[] {
  const fitted = [...chances];
  for (let round = 0; round < MOST_ROUNDS; round += 1) {
    let off = 0;
    for (const [at, share] of shares) {
      const odds = oddsOfPick(answer, fitted, at);
      const chance = fitted[at] ?? 0;
      // What cannot be picked, or is always, has no other share.
      if (odds.picked === 0 || odds.not === 0) continue;
      off = Math.max(off, Math.abs(shareAt(chance, odds) - share));
      fitted[at] = (share * odds.not) / (share * odds.not + (1 - share) * odds.picked);
    }
    if (off < NEAR) break;
  }
  return fitted;
}

/** Whether such shares come of the chances, but for as much: of what nobody can have picked together they do not. */
export function areMet(
  answer: MultipleAnswer,
  assume: AssumedShares,
  shares: ReadonlyMap<number, number>,
  within: number,
): boolean {
  const met = sharesOfPicks(answer, assume);
  return [...shares].every(([at, share]) => Math.abs((met[at] ?? 0) - share) < within);
}

function productOf(factors: readonly number[]): number {
  return factors.reduce((product, factor) => product * factor, 1);
}
