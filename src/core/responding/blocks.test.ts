/** Arms by permuted blocks: as large as they should be at every moment, and not foretold by the last ones. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { Given } from '../document/types';
import { allotted, blockOf } from './blocks';

const arms = (codes: number, shares?: Record<string, number>, many = false): Given => ({
  name: 'arm',
  label: 'Arm',
  random: true,
  answer: {
    type: many ? 'multiple' : 'single',
    options: Array.from({ length: codes }, (_, n) => ({ code: n + 1, label: `Arm ${n + 1}` })),
  },
  ...(shares === undefined ? {} : { assume: { shares } }),
});
const first = (given: Given, count: number, seed: number) =>
  Array.from({ length: count }, (_, n) => allotted(given, n, seed));

describe('arms by permuted blocks', () => {
  it('are equal after every block, and never further apart than one has places in a block', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 6 }), fc.nat(), fc.nat(60), (codes, seed, count) => {
        const sizes = new Map<unknown, number>();
        for (const arm of first(arms(codes), count, seed)) sizes.set(arm, (sizes.get(arm) ?? 0) + 1);
        const all = Array.from({ length: codes }, (_, n) => sizes.get(n + 1) ?? 0);
        const apart = Math.max(...all) - Math.min(...all);
        return count % (2 * codes) === 0 ? apart === 0 : apart <= 2;
      }),
    );
  });

  it('have the shares that are given, by largest remainders', () => {
    const sizeOf = (shares: Record<string, number>, code: number) =>
      blockOf(arms(3, shares)).filter((each) => each === code).length;
    const shares = { '1': 50, '2': 33, '3': 17 };
    assert.deepEqual(
      [1, 2, 3].map((code) => sizeOf(shares, code)),
      [10, 7, 3],
    );
    assert.deepEqual(
      [1, 2, 3].map((code) => sizeOf({ '2': 1 }, code)),
      [0, 20, 0],
    );
  });

  it('come in an order that is the same for a seed, other for another, and other from block to block', () => {
    const given = arms(3);
    assert.deepEqual(first(given, 60, 4), first(given, 60, 4));
    assert.notDeepEqual(first(given, 60, 4), first(given, 60, 5));
    const blocks = Array.from({ length: 10 }, (_, n) =>
      first(given, 60, 4)
        .slice(n * 6, n * 6 + 6)
        .join(),
    );
    assert.ok(new Set(blocks).size > 5);
  });

  it('are lists where several may be picked, and numbers are drawn by themselves', () => {
    assert.deepEqual(allotted(arms(1, undefined, true), 0, 1), [1]);
    const number: Given = { name: 'n', label: 'N', random: true, answer: { type: 'number', min: 5, max: 9 } };
    const drawn = first(number, 200, 1) as number[];
    assert.deepEqual([...new Set(drawn)].sort(), [5, 6, 7, 8, 9]);
  });
});
