/**
 * Which random questionnaires the comparisons try: a few hundred by default, any number and from any seed by
 * `npm run fuzz -- --count N --seed S`, and always those that once failed.
 */
export interface Seeds {
  readonly all: readonly number[];
  /** How many besides those that once failed. */
  readonly count: number;
  readonly words: string;
}

export function seedsToTry(regressions: readonly number[], byDefault = 400): Seeds {
  const count = Number(process.env.FUZZ_COUNT ?? byDefault);
  const first = Number(process.env.FUZZ_SEED ?? 1);
  const all = [...regressions, ...Array.from({ length: count }, (_, n) => first + n)];
  return { all, count, words: `${count} random questionnaires from seed ${first}` };
}
