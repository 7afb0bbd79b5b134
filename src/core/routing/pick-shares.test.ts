/** Shares of picks, against every set of picks that is allowed, weighed one by one. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { MultipleAnswer, Option } from '../document/types';
import { ask } from '../../../tests/support/questionnaire';
import { refusal } from './answers';
import { chancesForShares, oddsOfPick, picksOf, shareAt, shareSlope, sharesOfPicks } from './pick-shares';

const NEAR = 1e-6;

/** Up to five options, some of them alone, with limits. */
const answers: fc.Arbitrary<MultipleAnswer> = fc
  .record({
    kinds: fc.array(fc.constantFrom('ordinary', 'ordinary', 'exclusive', 'missing'), {
      minLength: 1,
      maxLength: 5,
    }),
    minPicks: fc.option(fc.integer({ min: 1, max: 2 }), { nil: undefined }),
    maxPicks: fc.option(fc.integer({ min: 2, max: 4 }), { nil: undefined }),
  })
  .map(({ kinds, minPicks, maxPicks }) => ({
    type: 'multiple',
    options: kinds.map((kind, n): Option => ({
      code: n + 1,
      label: `${n + 1}`,
      ...(kind === 'exclusive' ? { exclusive: true } : kind === 'missing' ? { missing: 'dont_know' } : {}),
    })),
    ...(minPicks === undefined ? {} : { minPicks }),
    ...(maxPicks === undefined ? {} : { maxPicks }),
  }));

/** Every set of picks that can be answered. */
function allowed(answer: MultipleAnswer): number[][] {
  const question = ask('several', answer);
  const shown = { options: answer.options.map(() => true), rows: [] };
  return Array.from({ length: 2 ** answer.options.length }, (_, bits) =>
    answer.options.flatMap(({ code }, n) => (bits & (2 ** n) ? [code] : [])),
  ).filter((codes) => codes.length > 0 && refusal(question, answer, codes, shown) === null);
}

/** By position: how many pick it, of all the weight of what is allowed. */
function plainShares(answer: MultipleAnswer, weightOf: (codes: readonly number[]) => number): number[] {
  const sets = allowed(answer);
  const total = sets.reduce((sum, codes) => sum + weightOf(codes), 0);
  return answer.options.map(
    ({ code }) =>
      sets.reduce((sum, codes) => (codes.includes(code) ? sum + weightOf(codes) : sum), 0) / total,
  );
}

const chances = fc.array(fc.double({ min: 0.02, max: 0.98, noNaN: true }), { minLength: 5, maxLength: 5 });
const assumeOf = ({ options }: MultipleAnswer, of: readonly number[]) => ({
  shares: Object.fromEntries(options.map(({ code }, n) => [code, of[n] ?? 0])),
});

describe('shares of picks', () => {
  it('are those of all that is allowed, each option with its own chance', () => {
    fc.assert(
      fc.property(answers, chances, (answer, of) => {
        const product = (codes: readonly number[]) =>
          answer.options.reduce(
            (all, { code }, n) => all * (codes.includes(code) ? (of[n] ?? 0) : 1 - (of[n] ?? 0)),
            1,
          );
        fc.pre(allowed(answer).length > 0);
        const plain = plainShares(answer, product);
        sharesOfPicks(answer, assumeOf(answer, of)).forEach((share, n) =>
          assert.ok(Math.abs(share - (plain[n] ?? NaN)) < NEAR, `${share} and ${plain[n]}`),
        );
      }),
    );
  });

  it('come of the chances that are found for them, whatever was picked together', () => {
    fc.assert(
      fc.property(
        answers,
        fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 32, maxLength: 32 }),
        (answer, counts) => {
          const sets = allowed(answer);
          fc.pre(sets.length > 0);
          // Everything that can be answered was, so that no share is at the edge of what can be.
          const seen = plainShares(answer, (codes) => counts[sets.findIndex((set) => same(set, codes))] ?? 1);
          const wanted = new Map(seen.entries());
          const found = chancesForShares(
            answer,
            answer.options.map(() => 0.5),
            wanted,
          );
          sharesOfPicks(answer, assumeOf(answer, found)).forEach((share, n) =>
            assert.ok(Math.abs(share - (seen[n] ?? NaN)) < 1e-5, `${share} and ${seen[n]}`),
          );
        },
      ),
    );
  });

  it('are met closely where everybody picked just one', () => {
    const answer: MultipleAnswer = {
      type: 'multiple',
      options: [1, 2, 3].map((code) => ({ code, label: `${code}` })),
    };
    const found = chancesForShares(answer, [0.5, 0.5, 0.5], new Map([0.2, 0.3, 0.5].entries()));
    sharesOfPicks(answer, assumeOf(answer, found)).forEach((share, n) =>
      assert.ok(Math.abs(share - ([0.2, 0.3, 0.5][n] ?? 0)) < 0.002, `${share}`),
    );
  });

  it('change with a chance as fast as is told', () => {
    fc.assert(
      fc.property(answers, chances, fc.nat(4), (answer, of, place) => {
        const at = place % answer.options.length;
        const odds = oddsOfPick(answer, of, at);
        const chance = of[at] ?? 0;
        const plain = (shareAt(chance + 1e-5, odds) - shareAt(chance - 1e-5, odds)) / 2e-5;
        if (odds.picked + odds.not > 0)
          assert.ok(Math.abs(shareSlope(chance, odds) - plain) < 1e-3 * Math.max(1, plain));
      }),
    );
  });

  it('are even where nothing that is allowed has a chance', () => {
    const answer: MultipleAnswer = {
      type: 'multiple',
      options: [1, 2].map((code) => ({ code, label: `${code}` })),
    };
    assert.deepEqual(
      picksOf(answer, { shares: { 1: 0, 2: 0 } }).map(({ share }) => share),
      [2 / 3, 2 / 3],
    );
  });
});

function same(a: readonly number[], b: readonly number[]): boolean {
  return a.length === b.length && a.every((code, n) => code === b[n]);
}
