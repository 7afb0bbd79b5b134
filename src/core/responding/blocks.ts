/**
 * Who is allotted to which arm, balanced: by permuted blocks (Matts and Lachin, "Properties of permuted-block randomization in
 * clinical trials", 1988). Within a block every arm comes as often as its share asks for, in an order drawn by chance, so that
 * after any number of respondents the arms are about as large as they should be.
 */
import { optionsOf } from '../document/shape';
import { picksMany } from '../document/answer-types';
import type { Given, Value } from '../document/types';
import { drawGiven } from '../routing/draws';
import { shuffledIndices } from '../routing/shuffle';

/** Arms of equal shares come twice in a block, so that the last of one cannot be foretold. */
const TWICE = 2;
/** Places in a block where shares are given. */
const SHARED = 20;

/**
 * The value of a random given for the `n`-th respondent, from 0. One that is a number has no arms, and is drawn by itself.
 * `seed`: of the whole; the same gives the same arms.
 */
export function allotted(given: Given, n: number, seed: number): Value | null {
  const block = blockOf(given);
  if (block.length === 0) return drawGiven(given, seed + n);
  const which = Math.floor(n / block.length);
  const order = shuffledIndices(block.length, seed, `arms/${given.name}/${which}`);
  const code = block[order[n % block.length] ?? 0] ?? null;
  return code !== null && picksMany(given.answer) ? [code] : code;
}

/** The codes of a block, each as often as it comes; empty where there are no arms. */
export function blockOf({ answer, assume }: Given): readonly number[] {
  const options = optionsOf(answer).filter(({ missing }) => missing === undefined);
  const shares = assume?.shares;
  if (shares === undefined)
    return Array.from({ length: TWICE }, () => options.map(({ code }) => code)).flat();
  const wanted = options.map(({ code }) => ({ code, share: shares[String(code)] ?? 0 }));
  const total = wanted.reduce((sum, { share }) => sum + share, 0);
  if (total <= 0) return [];
  // By largest remainders.
  const exact = wanted.map(({ code, share }) => ({ code, places: (SHARED * share) / total }));
  const whole = exact.map(({ code, places }) => ({
    code,
    count: Math.floor(places + 1e-9),
    rest: places % 1,
  }));
  const left = SHARED - whole.reduce((sum, { count }) => sum + count, 0);
  const first = [...whole].sort((a, b) => b.rest - a.rest).slice(0, left);
  return whole.flatMap((arm) =>
    Array.from({ length: arm.count + (first.includes(arm) ? 1 : 0) }, () => arm.code),
  );
}
