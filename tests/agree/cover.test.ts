/** The covering set against everything that can happen to anybody, on random small questionnaires. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { analyse } from '../../src/core/analysis';
import { coverWithin } from '../../src/core/analysis/cover-routes';
import { Diagrams } from '../../src/core/analysis/diagram';
import { alongPath } from '../../src/core/analysis/fork-path';
import { Terrain } from '../../src/core/analysis/terrain';
import type { Plan } from '../../src/core/routing/plan';
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
  for (const { items, ending, number } of routes)
    assert.equal(analysis.numberOf(items, ending), number, about);
  // Where the forks are too many to be told apart, and paths are only guided, nothing may be missed either.
  const guided = guidedCover(plan);
  for (const { routes: some, least } of [{ routes, least: atLeast }, guided]) {
    const met = new Set<string>();
    for (const route of some) {
      const walk = walked(plan, route);
      assert.equal(trail(plan, walk), `${route.items.join(' ')} > ${route.ending}`, about);
      for (const outcome of forksMet(plan, walk)) met.add(outcome);
    }
    assert.deepEqual([...withLastPasses(met)].sort(), [...withLastPasses(possible)].sort(), about);
    assert.ok(some.length >= least, `${about}: ${some.length} routes, but ${least} are needed`);
  }
  assert.ok(
    guided.least <= routes.length,
    `${about}: ${routes.length} do, where ${guided.least} were claimed`,
  );
  return 'compared';
}

function guidedCover(plan: Plan) {
  const newTerrain = () => new Terrain(plan, new Diagrams(), { messages: true });
  const { paths, terrain, events, atLeast } = coverWithin(newTerrain, 0);
  const routes = paths.map((path) => {
    const { witness, ...seen } = alongPath(terrain, events, path);
    return { ...seen, ...witness };
  });
  return { routes, least: atLeast };
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
