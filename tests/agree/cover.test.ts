/** The covering set against everything that can happen to anybody, on random small questionnaires. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { analyse } from '../../src/core/analysis';
import { ask, planFor, questionnaire, section, trail, walked } from '../support/questionnaire';
import { allRoutes, TooMany } from './brute-force';
import { randomDocument } from './documents';
import { forksMet, withLastPasses } from './forks-met';
import { seedsToTry } from './seeds';

/** With the seeds that once failed. */
const SEEDS = seedsToTry([]);

function covers(seed: number): 'compared' | 'too many' {
  const plan = planFor(randomDocument(seed));
  const possible = new Set<string>();
  try {
    allRoutes(plan, 8000, (walk) => {
      for (const outcome of forksMet(plan, walk)) possible.add(outcome);
    });
  } catch (error) {
    if (error instanceof TooMany) return 'too many';
    throw error;
  }
  const about = `seed ${seed}`;
  const analysis = analyse(plan);
  const { routes, atLeast } = analysis.cover;
  const met = new Set<string>();
  for (const route of routes) {
    const walk = walked(plan, route);
    assert.equal(trail(plan, walk), `${route.items.join(' ')} > ${route.ending}`, about);
    assert.equal(analysis.numberOf(route.items, route.ending), route.number, about);
    for (const outcome of forksMet(plan, walk)) met.add(outcome);
  }
  assert.deepEqual([...withLastPasses(met)].sort(), [...withLastPasses(possible)].sort(), about);
  assert.ok(routes.length >= atLeast, `${about}: ${routes.length} routes, but ${atLeast} are needed`);
  return 'compared';
}

describe('the covering set', () => {
  it(`takes every fork of ${SEEDS.words}`, () => {
    let compared = 0;
    for (const seed of SEEDS.all) if (covers(seed) === 'compared') compared += 1;
    assert.ok(compared > SEEDS.count * 0.6, `only ${compared} were small enough to try everything`);
  });

  it('is as small as can be where that is known', () => {
    // Five ways out of one question can only be taken one at a time; the two sides of f ride along.
    const plan = planFor(
      questionnaire([
        section('a', [
          ask('f', 2, { required: true }),
          ask('q', 5, {
            required: true,
            skips: [1, 2, 3, 4].map((code) => ({ if: `q = ${code}`, to: { item: `t${code}` } })),
          }),
          ...[1, 2, 3, 4].map((code) => ask(`t${code}`, 2, { askIf: `f = ${1 + (code % 2)}` })),
        ]),
      ]),
    );
    const { routes, atLeast } = analyse(plan).cover;
    assert.deepEqual([routes.length, atLeast], [5, 5]);
  });
});
