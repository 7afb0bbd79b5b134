/** A small share of the torture, and every seed that once failed. All of it: `npm run torture`. */
import { describe, it } from 'node:test';
import { SEEDED } from './parts';
import { keptSeeds } from './seeds';

/** Mutated questionnaires have a test of their own, in `tests/agree/mutated.test.ts`. */
const SHARE: Readonly<Record<string, number>> = {
  documents: 0,
  conditions: 400,
  files: 210,
  requests: 600,
  databases: 60,
};

describe('broken at random', () => {
  for (const part of SEEDED) {
    const kept = keptSeeds(part.name);
    const count = SHARE[part.name] ?? 0;
    it(`${part.words}: ${count}, and ${kept.length} that failed once`, async () => {
      for (const seed of [...kept, ...Array.from({ length: count }, (_, n) => n + 1)])
        try {
          await part.one(seed);
        } catch (error) {
          throw new Error(`seed ${seed}`, { cause: error });
        }
    });
  }
});
