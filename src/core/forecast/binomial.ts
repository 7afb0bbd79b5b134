/**
 * The binomial distribution: how many of so many people belong to a group, if each does with the same chance and
 * independently of the others.
 *
 * The tail is a regularised incomplete beta function (DLMF 8.17.5), by its continued fraction (DLMF 8.17.22, evaluated as in
 * Lentz, 1976, with the modification of Thompson and Barnett, 1986); what follows from it is found by bisection.
 */

/** Terms of the continued fraction at most, and when it has settled. */
const MOST_TERMS = 100_000;
const SETTLED = 1e-15;

/** The chance of at least `count` among `people`. */
export function chanceOfAtLeast(count: number, people: number, share: number): number {
  if (count <= 0) return 1;
  if (count > people || share <= 0) return 0;
  if (share >= 1) return 1;
  return beta(share, count, people - count + 1);
}

/** The chance of just `count` among `people`. */
export function chanceOfExactly(count: number, people: number, share: number): number {
  if (count < 0 || count > people) return 0;
  if (share <= 0 || share >= 1) return count === (share <= 0 ? 0 : people) ? 1 : 0;
  const ways = logGamma(people + 1) - logGamma(count + 1) - logGamma(people - count + 1);
  return Math.exp(ways + count * Math.log(share) + (people - count) * Math.log1p(-share));
}

/** The least number that is not exceeded with a chance of `level`, from 0 to 1: a percentile. */
export function percentile(level: number, people: number, share: number): number {
  return least(0, people, (count) => 1 - chanceOfAtLeast(count + 1, people, share) >= level);
}

/** How many people it takes to have at least `count` of a group with a chance of `certainty`; null where no number does. */
export function peopleFor(count: number, share: number, certainty: number): number | null {
  if (count <= 0) return 0;
  if (!(share > 0)) return null;
  let enough = Math.max(count, Math.ceil(count / share));
  while (chanceOfAtLeast(count, enough, share) < certainty) {
    if (enough > MOST_PEOPLE) return null;
    enough *= 2;
  }
  return least(count, enough, (people) => chanceOfAtLeast(count, people, share) >= certainty);
}

/** More people than this cannot be invited by anybody. */
const MOST_PEOPLE = 1e12;

/** The least whole number of a range for which something holds that holds from there on. */
export function least(from: number, to: number, holds: (number: number) => boolean): number {
  let [low, high] = [from, to];
  while (low < high) {
    const middle = low + Math.floor((high - low) / 2);
    if (holds(middle)) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** The regularised incomplete beta function. */
function beta(x: number, a: number, b: number): number {
  const front = Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log1p(-x));
  // The fraction settles fast on this side only.
  return x < (a + 1) / (a + b + 2)
    ? (front * fraction(x, a, b)) / a
    : 1 - (front * fraction(1 - x, b, a)) / b;
}

function fraction(x: number, a: number, b: number): number {
  const tiny = 1e-300;
  const away = (value: number) => (Math.abs(value) < tiny ? tiny : value);
  let c = 1;
  let d = 1 / away(1 - ((a + b) * x) / (a + 1));
  let result = d;
  for (let m = 1; m <= MOST_TERMS; m += 1) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    d = 1 / away(1 + even * d);
    c = away(1 + even / c);
    result *= d * c;
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    d = 1 / away(1 + odd * d);
    c = away(1 + odd / c);
    const step = d * c;
    result *= step;
    if (Math.abs(step - 1) < SETTLED) return result;
  }
  return result;
}

/** Stirling's series (DLMF 5.11.1), after moving small numbers up to where it is exact to the last digits. */
function logGamma(value: number): number {
  let [x, shift] = [value, 0];
  while (x < 15) {
    shift -= Math.log(x);
    x += 1;
  }
  const square = 1 / (x * x);
  const series =
    (1 / 12 - square * (1 / 360 - square * (1 / 1260 - square * (1 / 1680 - square / 1188)))) / x;
  return shift + (x - 0.5) * Math.log(x) - x + Math.log(2 * Math.PI) / 2 + series;
}
