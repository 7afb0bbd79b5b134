/** The analysis against trying everything, on random small questionnaires and on counts known beforehand. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { analyse } from '../../src/core/analysis';
import type { Questionnaire } from '../../src/core/document/types';
import { ask, planFor, questionnaire, section, trail, walked } from '../support/questionnaire';
import { allRoutes, TooMany, type PlainRoute } from './brute-force';
import { randomChain, randomDocument } from './documents';
import { seedsToTry } from './seeds';

/** With the seeds that once failed. */
const SEEDS = seedsToTry([51, 1459]);

const CHAINS = seedsToTry([], 200);

function agrees(seed: number, document: Questionnaire): 'compared' | 'too many' {
  const plan = planFor(document);
  let expected: PlainRoute[];
  try {
    expected = allRoutes(plan);
  } catch (error) {
    if (error instanceof TooMany) return 'too many';
    throw error;
  }
  const analysis = analyse(plan);
  const about = `seed ${seed}`;
  assert.deepEqual(analysis.limits, [], about);
  assert.equal(analysis.routes, BigInt(expected.length), about);
  expected.forEach(({ items, ending }, index) => {
    const route = analysis.route(BigInt(index + 1));
    assert.deepEqual([route?.items, route?.ending], [items, ending], `${about}, route ${index + 1}`);
    assert.equal(analysis.numberOf(items, ending), BigInt(index + 1), about);
    const walk = walked(plan, {
      answers: route?.answers ?? {},
      draws: route?.draws,
      given: route?.given,
      full: route?.full,
    });
    assert.equal(
      trail(plan, walk),
      `${items.join(' ')} > ${ending}`,
      `${about}, witness of route ${index + 1}`,
    );
  });
  const names = [...analysis.items.keys()];
  for (const filter of [
    { through: names[seed % names.length] },
    { avoid: names[(seed * 7) % names.length] },
    { through: names[0], avoid: names.at(-1), ending: plan.endings[seed % plan.endings.length]?.ending.id },
  ]) {
    const left = expected.flatMap(({ items, ending }, index) => {
      const shown = new Set(items.map((key) => key.split('#')[0]));
      const fits =
        (filter.through === undefined || shown.has(filter.through)) &&
        (filter.avoid === undefined || !shown.has(filter.avoid)) &&
        (filter.ending === undefined || filter.ending === ending);
      return fits ? [BigInt(index + 1)] : [];
    });
    const filtered = analysis.filtered(filter);
    const numbers = left.map((_, k) => filtered.numberOf(BigInt(k + 1)));
    assert.deepEqual(
      [filtered.total, ...numbers],
      [BigInt(left.length), ...left],
      `${about}, ${JSON.stringify(filter)}`,
    );
    assert.equal(filtered.numberOf(BigInt(left.length + 1)), null);
  }
  for (const [name, routes] of analysis.items) {
    const presenting = expected.filter(({ items }) => items.some((key) => key.split('#')[0] === name)).length;
    assert.equal(routes, BigInt(presenting), `${about}, routes on which ${name} is presented`);
  }
  for (const { id, routes } of analysis.endings) {
    assert.equal(
      routes,
      BigInt(expected.filter(({ ending }) => ending === id).length),
      `${about}, routes to ${id}`,
    );
  }
  for (const { items } of expected.slice(0, 20)) {
    const prefix = items.slice(0, Math.floor(items.length / 2));
    const alike = expected.filter((other) => prefix.every((key, index) => other.items[index] === key));
    const left = alike.map((other) => other.items.length - prefix.length);
    assert.deepEqual(
      analysis.ahead(prefix),
      { routes: BigInt(alike.length), least: Math.min(...left), most: Math.max(...left) },
      `${about}, ahead of ${prefix.join(' ')}`,
    );
  }
  if (expected.length > 0) {
    const lengths = expected.map(({ items }) => items.length);
    for (const [found, length] of [
      [analysis.shortest, Math.min(...lengths)],
      [analysis.longest, Math.max(...lengths)],
    ] as const) {
      assert.deepEqual([found?.items, found?.number], [length, BigInt(lengths.indexOf(length) + 1)], about);
    }
  }
  return 'compared';
}

describe('analysis and brute force agree', () => {
  it(`on ${SEEDS.words}`, () => {
    let compared = 0;
    for (const seed of SEEDS.all) {
      if (agrees(seed, randomDocument(seed)) === 'compared') compared += 1;
    }
    assert.ok(compared > SEEDS.count * 0.7, `only ${compared} were small enough to try everything`);
  });

  it(`on ${CHAINS.words} of many sections`, () => {
    let compared = 0;
    for (const seed of CHAINS.all) {
      if (agrees(seed, randomChain(seed)) === 'compared') compared += 1;
    }
    assert.ok(compared > CHAINS.count * 0.7, `only ${compared} were small enough to try everything`);
  });
});

describe('counts beyond brute force', () => {
  const filters = (count: number): Questionnaire =>
    questionnaire(
      Array.from({ length: count }, (_, n) =>
        section(`s${n}`, [ask(`f${n}`, 2, { required: true }), ask(`g${n}`, 2, { askIf: `f${n} = 1` })]),
      ),
    );

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
