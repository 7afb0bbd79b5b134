/** Lengths in bars: nobody is lost between two, and the bars are as narrow as there is room for. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { minuteBars, shareAbove } from './histogram';

const lengths = fc
  .array(fc.tuple(fc.nat(5000), fc.integer({ min: 1, max: 9 })), { minLength: 1, maxLength: 30 })
  .map((all) =>
    all.map(([seconds, share]) => ({ seconds, share: share / 20 })).sort((a, b) => a.seconds - b.seconds),
  );
const sumOf = (all: readonly { readonly share: number }[]) => all.reduce((sum, { share }) => sum + share, 0);
const near = (a: number, b: number) => Math.abs(a - b) < 1e-9;

describe('bars of minutes', () => {
  it('follow one another from the shortest to the longest, and have each interview in its own', () => {
    fc.assert(
      fc.property(lengths, fc.integer({ min: 2, max: 40 }), (all, most) => {
        const bars = minuteBars(all, most);
        assert.ok(bars.length <= most);
        assert.ok(near(sumOf(bars), 1));
        const total = sumOf(all);
        bars.forEach(({ from, to, share }, n) => {
          if (n > 0) assert.ok(near(from, bars[n - 1]?.to ?? NaN));
          // To a whole second, so that rounding on the edge of a bar puts nobody elsewhere.
          const within = all.filter(({ seconds }) => {
            const at = Math.floor(seconds / 60 / (to - from) + 1e-9);
            return at === Math.round(from / (to - from));
          });
          assert.ok(Math.abs(share - sumOf(within) / total) < 1e-6, `${from} to ${to}`);
        });
        for (const edge of [bars[0], bars.at(-1)]) assert.ok((edge?.share ?? 0) > 0);
      }),
    );
  });

  it('are of a simple part of a minute, the narrowest of which there are few enough', () => {
    const between = (from: number, to: number) =>
      minuteBars([
        { seconds: 60 * from, share: 0.25 },
        { seconds: 60 * to, share: 0.25 },
      ]);
    const shape = (from: number, to: number) => {
      const [first] = between(from, to);
      return [between(from, to).length, Number(((first?.to ?? 0) - (first?.from ?? 0)).toFixed(4))];
    };
    assert.deepEqual(shape(3, 3), [1, 0.0833]);
    assert.deepEqual(shape(4, 7.6), [22, 0.1667]);
    assert.deepEqual(shape(10, 33.5), [24, 1]);
    assert.deepEqual(shape(10, 34), [13, 2]);
    assert.deepEqual(shape(0, 5000), [42, 120]);
    assert.deepEqual(
      between(10, 33.5).map(({ share }) => share),
      [0.5, ...Array.from({ length: 22 }, () => 0), 0.5],
    );
  });

  it('are none of nobody', () => {
    assert.deepEqual(minuteBars([]), []);
    assert.deepEqual(minuteBars([{ seconds: 60, share: 0 }]), []);
  });
});

it('the share above so many minutes is of those who finish, and of those who take longer only', () => {
  const all = [
    { seconds: 300, share: 0.1 },
    { seconds: 600, share: 0.2 },
    { seconds: 601, share: 0.2 },
  ];
  assert.ok(near(shareAbove(all, 10), 0.4));
  assert.ok(near(shareAbove(all, 4), 1));
  assert.equal(shareAbove(all, 11), 0);
  assert.equal(shareAbove([], 1), 0);
});
