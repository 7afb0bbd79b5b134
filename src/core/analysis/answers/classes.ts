/** Values of a number that every test treats alike: from which to which, around one of them. */
import { holds } from '../../condition/evaluate';
import { isNumeric } from '../../document/answer-types';
import type { Answer, Value } from '../../document/types';
import { readingOf } from '../../routing/readings';
import { candidatesFor } from './candidates';
import type { Driver } from './drivers';

/** The least and the most that are treated like `value`; null where each value counts, or it is one of its specials. */
export function alikeTo(
  driver: Driver,
  answer: Answer,
  value: Value,
): { least: number; most: number } | null {
  if (!isNumeric(answer) || typeof value !== 'number') return null;
  const { keepAll, group, repeats, boundaries } = driver;
  if (keepAll || group.length > 1 || repeats > 0 || boundaries.length > 0) return null;
  const own = readingOf(answer, value);
  if (own.missing) return null;
  const truths = (tried: number) => {
    const reading = readingOf(answer, tried);
    const environment = { read: () => reading, pass: null, each: null, passesOver: () => [] };
    return driver.atoms.map((atom) => holds(atom, environment)).join();
  };
  const wanted = truths(value);
  const tried = candidatesFor(driver, answer)
    .values.filter((each): each is number => typeof each === 'number' && !readingOf(answer, each).missing)
    .sort((a, b) => a - b);
  let [least, most] = [value, value];
  for (const each of [...tried].reverse()) {
    if (each > value) continue;
    if (truths(each) !== wanted) break;
    least = each;
  }
  for (const each of tried) {
    if (each < value) continue;
    if (truths(each) !== wanted) break;
    most = each;
  }
  return { least, most };
}
