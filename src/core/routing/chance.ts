/**
 * Generators of chance. Every draw has its own, from the seed of its walk and the place it is made at, so that no draw depends on
 * what happened before it; and what is drawn at two places is independent, also where they are called nearly the same.
 */
import { xoroshiro128plus, xoroshiro128plusFromState } from 'pure-rand/generator/xoroshiro128plus';
import type { RandomGenerator } from 'pure-rand/types/RandomGenerator';

/** Between the words of a state: 2^32 divided by the golden ratio (Steele, Lea and Flood, 2014). */
const APART = 0x9e3779b9;

/** A generator for every text. */
export function generatorOf(text: string): RandomGenerator {
  const start = fnv(text);
  // Texts that end alike have hashes alike; a generator wants every bit of its state to hang on every bit of them.
  return xoroshiro128plusFromState([1, 2, 3, 4].map((n) => mixed(start + Math.imul(n, APART))));
}

/**
 * A generator for every place in a walk. Seeds below 0 are those of responses that were begun before the states were mixed: they
 * go on being asked what they were asked, in the order in which they saw it.
 */
export function generatorFor(seed: number, place: string): RandomGenerator {
  return seed < 0 ? xoroshiro128plus(fnv(`${-1 - seed}/${place}`)) : generatorOf(`${seed}/${place}`);
}

/** A whole number from 0 up to 2^32, well spread, from any text. */
export function hash(text: string): number {
  return mixed(fnv(text)) >>> 0;
}

/** FNV-1a over UTF-16 units (Fowler, Noll and Vo): its low bits hang on low bits alone. */
function fnv(text: string): number {
  let value = 0x811c9dc5;
  for (let i = 0; i < text.length; i += 1) {
    value = Math.imul(value ^ text.charCodeAt(i), 0x01000193);
  }
  return value;
}

/** The last step of MurmurHash3 (Appleby): every bit of 32 hangs on every bit, and no two numbers come to the same. */
function mixed(number: number): number {
  let value = number | 0;
  value = Math.imul(value ^ (value >>> 16), 0x85ebca6b);
  value = Math.imul(value ^ (value >>> 13), 0xc2b2ae35);
  return value ^ (value >>> 16);
}
