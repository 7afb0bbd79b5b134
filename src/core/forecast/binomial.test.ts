import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { chanceOfAtLeast, peopleFor, percentile } from './binomial';

/** Added up term by term, from the products of Pascal's triangle. */
function plainChances(people: number, share: number): number[] {
  let chances = [1];
  for (let n = 0; n < people; n += 1)
    chances = Array.from(
      { length: n + 2 },
      (_, k) => (chances[k] ?? 0) * (1 - share) + (chances[k - 1] ?? 0) * share,
    );
  return chances;
}

const people = fc.integer({ min: 1, max: 300 });
const share = fc.double({ min: 0, max: 1, noNaN: true });

describe('the binomial distribution', () => {
  it('is as adding up every outcome gives it', () => {
    fc.assert(
      fc.property(people, share, fc.double({ min: 0, max: 1, noNaN: true }), (n, p, part) => {
        const count = Math.round(part * n);
        const plain = plainChances(n, p)
          .slice(count)
          .reduce((sum, chance) => sum + chance, 0);
        assert.ok(Math.abs(chanceOfAtLeast(count, n, p) - plain) < 1e-11, `${count} of ${n} at ${p}`);
      }),
    );
  });

  it('has its percentiles where the chances added up come to them', () => {
    fc.assert(
      fc.property(people, share, fc.constantFrom(0.025, 0.5, 0.975), (n, p, level) => {
        const found = percentile(level, n, p);
        let sum = 0;
        const plain = plainChances(n, p).findIndex((chance) => (sum += chance) >= level + 1e-12);
        const [least, most] = [chanceUpTo(found - 1, n, p), chanceUpTo(found, n, p)];
        assert.ok(found === plain || (least < level + 1e-9 && most > level - 1e-9), `${found}, not ${plain}`);
      }),
    );
  });

  it('tells the least number of people that is certain enough, and none less', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 400 }),
        fc.double({ min: 0.001, max: 1, noNaN: true }),
        fc.constantFrom(0.5, 0.9, 0.95),
        (count, p, certainty) => {
          const found = peopleFor(count, p, certainty) ?? NaN;
          assert.ok(chanceOfAtLeast(count, found, p) >= certainty);
          assert.ok(found === count || chanceOfAtLeast(count, found - 1, p) < certainty);
        },
      ),
    );
  });

  it('knows a group that nobody belongs to, and one that everybody does', () => {
    assert.equal(peopleFor(1, 0, 0.5), null);
    assert.equal(peopleFor(100, 1, 0.95), 100);
    assert.deepEqual([percentile(0.025, 1000, 0), percentile(0.975, 1000, 0)], [0, 0]);
    assert.deepEqual([percentile(0.025, 1000, 1), percentile(0.975, 1000, 1)], [1000, 1000]);
  });

  it('stays right for a million people', () => {
    // Between the normal approximation's percentiles, which are good to a person or two here.
    const [people, share] = [1_000_000, 0.3];
    const spread = 1.959964 * Math.sqrt(people * share * (1 - share));
    assert.ok(Math.abs(percentile(0.975, people, share) - (300_000 + spread)) < 2);
    assert.ok(Math.abs(percentile(0.025, people, share) - (300_000 - spread)) < 2);
  });
});

function chanceUpTo(count: number, people: number, share: number): number {
  return 1 - chanceOfAtLeast(count + 1, people, share);
}
