/** Values put together in bins: each value in one of them, in steps that read well. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { binsOf, MOST_LISTED } from './bins';

const range = (from: number, to: number, step = 1) =>
  Array.from({ length: Math.floor((to - from) / step) + 1 }, (_, n) => from + n * step);
const labels = (values: readonly (number | string)[], kind: 'numbers' | 'moments' = 'numbers') =>
  binsOf(values, kind).map(({ label }) => label);

describe('bins', () => {
  it('list few values one by one, in order', () => {
    assert.deepEqual(labels([10, 2, 2, 1]), ['1', '2', '10']);
    assert.deepEqual(labels(range(1, MOST_LISTED)).length, MOST_LISTED);
  });

  it('step by 1, 2 or 5 times a power of ten, from a multiple of it', () => {
    const cases = [
      [range(18, 90), ['10 to 19', '20 to 29', '80 to 89', '90 to 99'], 9],
      [range(1, 30), ['0 to 4', '5 to 9', '25 to 29', '30 to 34'], 7],
      [range(0, 20), ['0 to 1', '2 to 3', '18 to 19', '20 to 21'], 11],
      [range(-30, 40), ['-30 to -21', '-20 to -11', '30 to 39', '40 to 49'], 8],
      [
        range(0, 1.6, 0.1).map((v) => Math.round(v * 10) / 10),
        ['0.0 to under 0.2', '0.2 to under 0.4', '1.4 to under 1.6', '1.6 to under 1.8'],
        9,
      ],
    ] as const;
    for (const [values, [first, second, last, end], count] of cases) {
      const found = labels(values);
      assert.deepEqual([...found.slice(0, 2), ...found.slice(-2)], [first, second, last, end]);
      assert.equal(found.length, count);
    }
  });

  it('put dates in months, or years where months are too many, and times in hours', () => {
    const day = (n: number) => new Date(Date.UTC(2024, 0, 1 + n)).toISOString().slice(0, 10);
    assert.deepEqual(labels(range(0, 80).map(day), 'moments'), ['2024-01', '2024-02', '2024-03']);
    assert.deepEqual(labels(range(0, 1200, 20).map(day), 'moments'), ['2024', '2025', '2026', '2027']);
    assert.deepEqual(
      labels(
        range(10, 59).map((minute) => `09:${minute}`),
        'moments',
      ),
      ['09:00 to 09:59'],
    );
  });

  it('have every value in exactly one of them', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -5000, max: 5000 }), { minLength: 16, maxLength: 80 }),
        (values) => {
          const bins = binsOf(values, 'numbers');
          for (const value of values)
            assert.equal(bins.filter(({ has }) => has(value)).length, 1, String(value));
          assert.ok(bins.length <= MOST_LISTED, `${bins.length} bins`);
        },
      ),
    );
  });
});
