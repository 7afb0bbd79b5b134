/** The order in which what is shuffled is shown. It changes no route, and is the same for a seed whatever is answered. */
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import type { Option } from '../document/types';
import { generatorFor } from './chance';

/** A random order of so many things, as indices. */
export function shuffledIndices(count: number, seed: number, place: string): number[] {
  const order = Array.from({ length: count }, (_, n) => n);
  const random = generatorFor(seed, `shuffle/${place}`);
  // Durstenfeld, "Algorithm 235: Random permutation", 1964.
  for (let n = count - 1; n > 0; n -= 1) {
    const at = uniformInt(random, 0, n);
    [order[n], order[at]] = [order[at] as number, order[n] as number];
  }
  return order;
}

/** The options in random order, those that exclude the others or say why there is no answer last, as they stand. */
export function shuffledOptions(options: readonly Option[], seed: number, place: string): number[] {
  const isLast = (index: number) =>
    options[index]?.exclusive === true || options[index]?.missing !== undefined;
  const order = shuffledIndices(options.length, seed, place);
  return [...order.filter((index) => !isLast(index)), ...options.map((_, n) => n).filter(isLast)];
}
