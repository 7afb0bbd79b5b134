/**
 * Questionnaires broken at random, as files are by hand: parts gone, twice, moved, renamed, exchanged, values off by a
 * little or by far. The same one for a seed.
 */
import { intOf, type Int } from './changes';

type Json = null | boolean | number | string | Json[] | { [key: string]: Json };

/** Words that stand for something in a questionnaire, to be put where others stand. */
const WORDS = ['always', 'pass', 'each', 'missing', 'q1', 'Q1', 'count(q1)', '{q1}', 'done', ''];
const NUMBERS = [0, 1, -1, 2, 3, 7, 1.5, -3, 98, 1000];

/** A copy with some mutations; it need not be a document any more. */
export function mutated(document: object, seed: number): unknown {
  return mutatedBy(document, intOf(seed));
}

export function mutatedBy(document: object, int: Int): unknown {
  const copy = JSON.parse(JSON.stringify(document)) as Json;
  const times = int(1, 3);
  for (let n = 0; n < times; n += 1) mutate(copy, int);
  return copy;
}

interface Spot {
  readonly of: Json[] | { [key: string]: Json };
  readonly key: string | number;
}

function spotsIn(node: Json, into: Spot[] = []): Spot[] {
  if (node === null || typeof node !== 'object') return into;
  const keys = Array.isArray(node) ? node.map((_, index) => index) : Object.keys(node);
  for (const key of keys) {
    into.push({ of: node, key });
    spotsIn(at({ of: node, key }), into);
  }
  return into;
}

function at({ of, key }: Spot): Json {
  return (of as Record<string | number, Json>)[key] as Json;
}

function put({ of, key }: Spot, value: Json): void {
  (of as Record<string | number, Json>)[key] = value;
}

function mutate(root: Json, int: Int): void {
  const spots = spotsIn(root);
  if (spots.length === 0) return;
  const pick = <T>(from: readonly T[]) => from[int(0, from.length - 1)] as T;
  const spot = pick(spots);
  const value = at(spot);
  const copyOf = (json: Json) => JSON.parse(JSON.stringify(json)) as Json;
  switch (int(0, 6)) {
    case 0:
      if (Array.isArray(spot.of)) spot.of.splice(Number(spot.key), 1);
      else delete spot.of[spot.key];
      break;
    case 1:
      if (Array.isArray(spot.of)) spot.of.splice(int(0, spot.of.length), 0, copyOf(value));
      break;
    case 2:
      if (Array.isArray(spot.of))
        spot.of.splice(int(0, spot.of.length - 1), 0, ...spot.of.splice(Number(spot.key), 1));
      break;
    case 3: {
      // What stands under the same key elsewhere: a name, a condition, a target, an answer of another question.
      const like = spots.filter(({ key }) => key === spot.key && typeof key === 'string');
      if (like.length > 0) put(spot, copyOf(at(pick(like))));
      break;
    }
    case 4:
      if (typeof value === 'number') put(spot, pick([...NUMBERS, value + 1, value - 1]));
      else if (typeof value === 'string') put(spot, textLike(root, value, int, pick));
      else if (typeof value === 'boolean') put(spot, !value);
      break;
    case 5: {
      const texts = spots.filter((each) => typeof at(each) === 'string');
      if (texts.length === 0) break;
      const text = pick(texts);
      put(text, textLike(root, String(at(text)), int, pick));
      break;
    }
    default: {
      // A part of one place put beside those of another.
      const lists = spots.filter((each) => Array.isArray(at(each)) && (at(each) as Json[]).length > 0);
      if (lists.length === 0) break;
      const from = at(pick(lists)) as Json[];
      const to = at(pick(lists.filter(({ key }) => key === pick(lists).key).concat(lists))) as Json[];
      to.splice(int(0, to.length), 0, copyOf(pick(from)));
    }
  }
}

/** Another text: a part of it changed for a name of the questionnaire, or for one of the words. */
function textLike(root: Json, text: string, int: Int, pick: <T>(from: readonly T[]) => T): string {
  const names = spotsIn(root).flatMap((each) => (each.key === 'name' ? [String(at(each))] : []));
  const other = names.length > 0 && int(0, 2) > 0 ? pick(names) : pick(WORDS);
  switch (int(0, 3)) {
    case 0:
      return other;
    case 1:
      return `${text} {${other}}`;
    case 2:
      return text.replace(/[A-Za-z_]\w*/, other);
    default:
      return text.slice(0, int(0, text.length));
  }
}
