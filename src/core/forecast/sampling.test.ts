/** Sizes and costs of samples, and quotas that fill up, against going through every order in which people can come. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { Forecaster } from './forecast';
import { quotaEffect, startsAfterFull } from './quotas';
import { sampleCost, sampleSizes } from './sampling';

/** Of `starts` people, each of whom counts or not: the mean number of those who come after the quota is full. */
function afterFull(target: number, counted: number, starts: number): number {
  let [mean, left] = [0, new Map([[0, 1]])];
  for (let n = 1; n <= starts; n += 1) {
    const next = new Map<number, number>();
    for (const [count, chance] of left) {
      next.set(count, (next.get(count) ?? 0) + chance * (1 - counted));
      if (count + 1 === target) mean += chance * counted * (starts - n);
      else next.set(count + 1, (next.get(count + 1) ?? 0) + chance * counted);
    }
    left = next;
  }
  return mean;
}

describe('a quota', () => {
  it('turns away as many as come after it is full, over every order they can come in', () => {
    const shares = fc.integer({ min: 1, max: 20 }).map((of) => of / 20);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 12 }), shares, fc.nat(60), (target, counted, starts) => {
        const [found, plain] = [startsAfterFull(target, counted, starts), afterFull(target, counted, starts)];
        assert.ok(
          Math.abs(found - plain) < 1e-8,
          `${target} of ${counted}, ${starts}: ${found}, not ${plain}`,
        );
      }),
    );
  });

  it('is told of who meets it and who counts: screened out later on, they do not', () => {
    const plan = planFor(
      questionnaire(
        [
          section('a', [
            ask('sex', 2),
            ask('q'),
            ask('owns', 2, { skips: [{ if: 'owns = 2', to: { ending: 'out' } }] }),
          ]),
          section('b', [ask('late', 2)]),
        ],
        { quotas: [{ id: 'men', label: 'Men', if: 'sex = 1', target: 100, at: 'q', to: { ending: 'out' } }] },
      ),
    );
    const [men] = new Forecaster(plan).quotas({ starts: 1000, breakOff: 0 }, null);
    assert.ok(men);
    assert.deepEqual([men.met, men.counted], [0.5, 0.25]);
    assert.ok(Math.abs(men.turnedAway / men.completesLost - 2) < 1e-9);
    // About 400 fill it; of the other 600 half are men.
    assert.ok(Math.abs(men.turnedAway - 300) < 1);
    const lost = (item: string) =>
      new Forecaster(plan).quotas({ starts: 1000, breakOff: 0 }, { item, pass: null })[0]?.groupLost ?? NaN;
    assert.equal(lost('q'), 0);
    assert.ok(Math.abs(lost('owns') - men.turnedAway) < 1e-9);
    assert.ok(Math.abs(lost('late') - men.completesLost) < 1e-9);
  });

  it('of a share of nought is never full, and of nought at once', () => {
    assert.deepEqual(quotaEffect({ id: 'a', target: 5 }, { met: 0.2, counted: 0 }, 100).fullAt, {
      50: null,
      95: null,
    });
    assert.equal(startsAfterFull(0, 0.5, 70), 70);
  });

  it('of which nothing can be told does nothing', () => {
    assert.deepEqual(quotaEffect({ id: 'a', target: 5 }, { met: null, counted: null }, 100), {
      ...{ id: 'a', target: 5, met: null, counted: null, fullAt: { 50: null, 95: null } },
      ...{ chanceFull: 0, after: 0, turnedAway: 0, completesLost: 0 },
    });
  });
});

describe('a sample', () => {
  it('is as large as the base that takes most, and a little larger for all of them at once', () => {
    const [half, , most] = sampleSizes([
      { share: 0.5, n: 100 },
      { share: 0.1, n: 40 },
      { share: 0.12, n: 40 },
    ]);
    assert.equal(half?.decides, 1);
    assert.equal(most?.decides, 1);
    assert.ok((most?.all ?? 0) > Math.max(...(most?.each ?? []).map((of) => of ?? 0)));
    assert.equal(
      sampleSizes([{ share: 0.4, n: 30 }])[1]?.all,
      sampleSizes([{ share: 0.4, n: 30 }])[1]?.each[0],
    );
  });

  it('is never enough where nobody can be asked, and nothing decides where nothing is wanted', () => {
    const [of] = sampleSizes([
      { share: 0.5, n: 10 },
      { share: 0, n: 1 },
    ]);
    assert.deepEqual([of?.decides, of?.all, of?.each[1]], [1, null, null]);
    assert.deepEqual(sampleSizes([])[0], { certainty: 0.5, each: [], decides: null, all: null });
  });

  it('costs what those who start, are screened out and complete are paid', () => {
    const plan = planFor(
      questionnaire([section('a', [ask('q', 2, { skips: [{ if: 'q = 2', to: { ending: 'out' } }] })])]),
    );
    const { endings } = new Forecaster(plan).forecast({ starts: 200, breakOff: 0 });
    const cost = sampleCost(plan.document.endings, endings, 200, { start: 1, screenOut: 2, complete: 10 });
    assert.deepEqual(cost, { starts: 200, screenOuts: 100, completes: 100, total: 1400, perComplete: 14 });
  });
});
