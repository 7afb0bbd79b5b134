/** Chances of what came against adding up every outcome, and the adjustment against its definition. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { againstWhatCame, chanceOf, holm } from './against';

/** Row by row of Pascal’s triangle: nothing of the code under test is in it. */
function outcomes(people: number, share: number): number[] {
  let row = [1];
  for (let n = 0; n < people; n += 1)
    row = Array.from(
      { length: row.length + 1 },
      (_, k) => (row[k] ?? 0) * (1 - share) + (row[k - 1] ?? 0) * share,
    );
  return row;
}

describe('what came', () => {
  it('is as unlikely as all outcomes that are no likelier, added up', () => {
    const shares = fc.integer({ min: 0, max: 40 }).map((of) => of / 40);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), shares, fc.nat(60), (people, share, some) => {
        const count = some % (people + 1);
        const all = outcomes(people, share);
        const own = all[count] ?? 0;
        const expected = all.reduce((sum, chance) => (chance <= own * (1 + 1e-7) ? sum + chance : sum), 0);
        assert.ok(
          Math.abs(chanceOf(count, people, share) - expected) < 1e-9,
          `${count} of ${people}, ${share}`,
        );
      }),
      { numRuns: 2000 },
    );
  });

  it('is told of large samples too, where outcomes are too many to be added up', () => {
    // Three standard errors: about one in 370, as with the normal distribution.
    const [people, share] = [1_000_000, 0.3];
    const away = Math.round(3 * Math.sqrt(people * share * (1 - share)));
    for (const count of [people * share + away, people * share - away])
      assert.ok(Math.abs(chanceOf(count, people, share) - 0.0027) < 0.0001);
  });

  it('is adjusted so that the least chance counts for all, the next for one less, and none falls below one before', () => {
    assert.deepEqual(
      holm([0.04, 0.01, 0.5, 0.011]).map((of) => Math.round(of * 1000) / 1000),
      [0.08, 0.04, 0.5, 0.04],
    );
    assert.deepEqual(holm([0.9, 0.8]), [1, 1]);
    assert.deepEqual(holm([]), []);
  });

  it('parts from the forecast where nobody could be asked and somebody was, and not where all are as they had to be', () => {
    const expected = (item: string, share: number) => ({
      ...{ group: { item, pass: null }, share, expected: 0, low: 0, high: 0, error: null },
    });
    const came = againstWhatCame([expected('none', 0), expected('all', 1), expected('some', 0.5)], {
      people: 20,
      bases: new Map([
        ['none', 1],
        ['all', 20],
        ['some', 9],
      ]),
    });
    assert.deepEqual(
      came.map(({ parts, seen, expected: of }) => [parts, seen, of]),
      [
        [true, 1, 0],
        [false, 20, 20],
        [false, 9, 10],
      ],
    );
  });
});
