/** The covering set against everything that can happen to anybody, on random small questionnaires. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import {
  alongPath,
  analyse,
  coverRoutes,
  coverWithin,
  DEFAULT_CAPS,
  Diagrams,
  EncodedPlan,
  type CoverSoFar,
} from '../../src/core/analysis';
import type { Plan } from '../../src/core/routing/plan';
import { ask, planFor, questionnaire, section } from '../support/questionnaire';
import { randomDocument } from './documents';
import { forksMet } from './forks-met';
import { caseOf, judgeCover, judgeCovering, judgePairs } from './judges';
import { seedsToTry } from './seeds';

/** With the seeds that once failed. */
const SEEDS = seedsToTry([], 160);

function covers(seed: number): boolean {
  const found = caseOf(planFor(randomDocument(seed)), `seed ${seed}`, 8000);
  if (found === null) return false;
  judgeCover(found);
  judgePairs(found);
  judgeImproving(found);
  // Where the forks are too many to be told apart, and paths are only guided, nothing may be missed either.
  const { plan, people, analysis, about } = found;
  const { routes, least } = guidedCover(plan);
  const possible = new Set(people.flatMap(({ walk }) => [...forksMet(plan, walk)]));
  judgeCovering(plan, routes, possible, about);
  const known = Math.min(routes.length, analysis.cover.routes.length);
  assert.ok(least <= known, `${about}: ${known} do, where ${least} were claimed to be needed`);
  return true;
}

/** What is told before the best is known: it meets what it says, and once that is all, everything that anybody can meet. */
function judgeImproving({ plan, people, analysis, about }: NonNullable<ReturnType<typeof caseOf>>) {
  const possible = new Set(people.flatMap(({ walk }) => [...forksMet(plan, walk)]));
  const told: CoverSoFar[] = [];
  const found = coverRoutes(
    plan,
    DEFAULT_CAPS,
    (items, ending) => analysis.numberOf(items, ending),
    (soFar) => told.push(soFar()),
  );
  let before = { many: 0, of: 0, atLeast: 0 };
  for (const { routes, outcomes, of, atLeast } of told) {
    assert.equal(of, found.of, about);
    assert.ok(outcomes <= of && atLeast >= before.atLeast && atLeast <= found.routes.length, about);
    if (before.many === of)
      assert.ok(outcomes === of && routes.length <= before.of, `${about}: it got worse`);
    else assert.ok(outcomes > before.many, `${about}: nothing was new`);
    if (outcomes === of) judgeCovering(plan, routes, possible, about);
    before = { many: outcomes, of: routes.length, atLeast };
  }
  assert.equal(found.outcomes, found.of, `${about}: no route was found for something`);
  assert.deepEqual(told.at(-1)?.routes.length ?? 0, found.routes.length, about);
}

function guidedCover(plan: Plan) {
  const newTerrain = () => new EncodedPlan(plan, new Diagrams(), { messages: true });
  const { paths, encoded, events, atLeast } = coverWithin(newTerrain, 0);
  const routes = paths.map((path) => {
    const along = alongPath(encoded, events, path);
    assert.ok(along);
    const { witness, ...seen } = along;
    return { ...seen, ...witness };
  });
  return { routes, least: atLeast };
}

describe('the covering set', () => {
  it(`takes every fork of ${SEEDS.words}`, () => {
    let compared = 0;
    for (const seed of SEEDS.all) if (covers(seed)) compared += 1;
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
