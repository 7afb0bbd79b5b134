/** What can stay where it is when a list is put into another order. */

/** Places of a longest ascending run of numbers, others between them (patience sorting; nulls never belong to it). */
export function longestAscending(numbers: readonly (number | null)[]): Set<number> {
  /** By length less one, where the run of that length with the smallest end ends. */
  const ends: number[] = [];
  const previous: (number | undefined)[] = [];
  numbers.forEach((number, n) => {
    if (number === null) return;
    let [low, high] = [0, ends.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((numbers[ends[middle] as number] as number) < number) low = middle + 1;
      else high = middle;
    }
    previous[n] = ends[low - 1];
    ends[low] = n;
  });
  const run = new Set<number>();
  for (let at = ends.at(-1); at !== undefined; at = previous[at]) run.add(at);
  return run;
}
