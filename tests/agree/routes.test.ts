/** The analysis against trying everything, on random small questionnaires and on counts known beforehand. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { analyse } from '../../src/core/analysis';
import type { Questionnaire } from '../../src/core/document/types';
import { ask, planFor, questionnaire, section, trail, walked } from '../support/questionnaire';
import { randomChain, randomDocument } from './documents';
import { caseOf, JUDGES } from './judges';
import { randomManyOptions } from './many-options';
import { randomOrders } from './orders';
import { seedsToTry, type Seeds } from './seeds';

/** With the seeds that once failed. */
const SEEDS = seedsToTry([51, 1459, 147, 346, 459], 200);
const CHAINS = seedsToTry([63, 460, 471, 589, 774], 90);

const ORDERS = seedsToTry([], 40);
const MANY = seedsToTry([], 40);

const JUDGED = [
  'walk',
  'coding',
  'many at once',
  'count',
  'number and route',
  'witness',
  'filters',
  'who is asked',
] as const;

/** How many were small enough to try everything, in `most` walks (left out: in as many as the twin takes at all). */
function judged(seeds: Seeds, make: (seed: number) => Questionnaire, most?: number): number {
  return seeds.all.filter((seed, n) => {
    const isKnown = n < seeds.all.length - seeds.count;
    const found = caseOf(planFor(make(seed)), `seed ${seed}`, isKnown ? undefined : most);
    if (found !== null) for (const of of JUDGED) JUDGES[of](found);
    return found !== null;
  }).length;
}

describe('analysis and brute force agree', () => {
  it(`on ${SEEDS.words}`, () => {
    const count = judged(SEEDS, randomDocument);
    assert.ok(count > SEEDS.count * 0.7, `only ${count} were small enough to try everything`);
  });

  it(`on ${CHAINS.words} of many sections`, () => {
    // A tenth of them would take most of the time; where many are asked for, there is time.
    const most = process.env.FUZZ_COUNT === undefined ? 8_000 : undefined;
    const count = judged(CHAINS, randomChain, most);
    assert.ok(count > CHAINS.count * 0.7, `only ${count} were small enough to try everything`);
  });

  it(`on ${ORDERS.words} about numbers compared and added up`, () => {
    const count = judged(ORDERS, randomOrders);
    assert.ok(count > ORDERS.count * 0.7, `only ${count} were small enough to try everything`);
  });

  it(`on ${MANY.words} about one of many options`, () => {
    const count = judged(MANY, randomManyOptions);
    assert.ok(count > MANY.count * 0.7, `only ${count} were small enough to try everything`);
  });
});

describe('counts beyond brute force', () => {
  const filters = (count: number): Questionnaire =>
    questionnaire(
      Array.from({ length: count }, (_, n) =>
        section(`s${n}`, [ask(`f${n}`, 2, { required: true }), ask(`g${n}`, 2, { askIf: `f${n} = 1` })]),
      ),
    );

  it('hold where many options are hidden by earlier picks', () => {
    const options = Array.from({ length: 20 }, (_, n) => ({ code: n + 1, label: `Option ${n + 1}` }));
    const shown = options.map((option) => ({ ...option, askIf: `seen has ${option.code}` }));
    const plan = planFor(
      questionnaire([
        section('a', [
          ask('seen', { type: 'multiple', options }, { required: true }),
          ask('best', { type: 'single', options: shown }, { required: true }),
        ]),
        section(
          'b',
          options.map(({ code }) => ask(`why${code}`, 2, { askIf: `best = ${code}` })),
        ),
      ]),
    );
    const analysis = analyse(plan);
    assert.deepEqual(
      [analysis.routes, analysis.exact, analysis.asked.get('why17')],
      [20n, true, 'best = 17'],
    );
    const { answers = {}, items } = analysis.route(17n) ?? {};
    assert.deepEqual(items, ['seen', 'best', 'why17']);
    assert.equal(trail(plan, walked(plan, { answers })), 'seen best why17 > done');
  });

  it('multiply over independent sections, and every number comes back', () => {
    const plan = planFor(filters(40));
    const analysis = analyse(plan);
    assert.equal(analysis.routes, 2n ** 40n);
    for (const number of [1n, 2n ** 39n, 123_456_789_012n, 2n ** 40n]) {
      const route = analysis.route(number);
      assert.ok(route);
      assert.equal(
        trail(plan, walked(plan, { answers: route.answers })),
        `${route.items.join(' ')} > ${route.ending}`,
      );
      assert.equal(analysis.numberOf(route.items, route.ending), number);
    }
    assert.equal(analysis.route(2n ** 40n + 1n), null);
  });

  it('say so where they had to stop, with a lower bound', () => {
    const analysis = analyse(planFor(filters(40)), { beliefs: 20, nodes: 100_000 });
    assert.equal(analysis.exact, false);
    assert.equal(analysis.limits.length, 1);
    assert.ok(analysis.routes > 1n && analysis.routes < 2n ** 40n);
  });
});
