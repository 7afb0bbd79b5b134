/** What stands in the way of freezing: each kind of trouble is told once, in its line, until it is answered for. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section, walked } from '../../../tests/support/questionnaire';
import { analyse } from '../analysis';
import type { Questionnaire } from '../document/types';
import { contentMarks, routeMarks } from '../routing/route-content';
import { allSnagsOf, keptOf, snagKey } from '../snags';
import { gateLineWords, gateOf, isMet, judgeGate, type RoutesWanted, type WorkJudged } from './gate';

const NO_WORK: WorkJudged = { passed: [], asides: [], respondents: [], others: [] };

/** Who has two goes on to the end at once: two routes, both needed to take every fork. */
const forked = questionnaire([
  section('a', [
    ask('fuel', 3, { label: 'Fuel', required: true, skips: [{ if: 'fuel = 2', to: { ending: 'out' } }] }),
    ask('cars', 2, { label: 'Cars', required: true }),
  ]),
]);

function judge(document: Questionnaire, work: Partial<WorkJudged> = {}, wanted: RoutesWanted = 'cover') {
  const plan = planFor(document);
  return judgeGate(plan, analyse(plan), { ...NO_WORK, ...work }, wanted);
}
const counts = (...asked: Parameters<typeof judge>) =>
  Object.fromEntries(judge(...asked).map(({ check, count }) => [check, Number(count)]));
const clear = { errors: 0, warnings: 0, routes: 0, labels: 0, codes: 0, respondents: 0 };

function marksOf(document: Questionnaire, items: string[], ending: string): string[] {
  return routeMarks(contentMarks(planFor(document)), items, ending);
}
const both = [marksOf(forked, ['fuel', 'cars'], 'done'), marksOf(forked, ['fuel'], 'out')];

describe('the gate', () => {
  it('wants the routes that take every fork passed, as they are now', () => {
    assert.deepEqual(counts(forked), { ...clear, routes: 2 });
    assert.deepEqual(counts(forked, { passed: both.slice(0, 1) }), { ...clear, routes: 1 });
    assert.deepEqual(counts(forked, { passed: both }), clear);
    assert.ok(isMet(judge(forked, { passed: both })));
    // A word changed since: the verdict is on what is not there any more.
    const reworded = JSON.parse(JSON.stringify(forked).replace('cars?', 'How many cars?')) as Questionnaire;
    assert.deepEqual(counts(reworded, { passed: both }), { ...clear, routes: 1 });
  });

  it('names the covering routes that are left, and counts every route where every one is wanted', () => {
    const three = questionnaire([
      section('a', [
        ask('one', 2, { label: 'One', required: true }),
        ask('two', 2, { label: 'Two', askIf: 'one = 1', required: true }),
        ask('more', 2, { label: 'More', required: true }),
        ask('three', 2, { label: 'Three', askIf: 'more = 1', required: true }),
      ]),
    ]);
    const [routes] = judge(three).filter(({ check }) => check === 'routes');
    assert.equal(routes?.count, BigInt(routes?.routes.length ?? 0));
    assert.equal(routes.count, 2n);
    const passed = [marksOf(three, ['one', 'two', 'more', 'three'], 'done')];
    const all = judge(three, { passed }, 'all').find(({ check }) => check === 'routes');
    assert.equal(all?.count, 3n);
    assert.equal(gateLineWords(all), '3 routes not passed');
  });

  it('tells errors though they are set aside, and warnings until they are', () => {
    const broken = questionnaire([
      section('a', [
        ask('fuel', 3, { label: 'Fuel', required: true, skips: [{ if: 'fule = 2', to: { ending: 'out' } }] }),
        ask('cars', 2, { label: 'Cars', required: true, askIf: 'fuel in (1..5)' }),
      ]),
    ]);
    const plan = planFor(broken);
    const snags = allSnagsOf(plan, analyse(plan));
    const [errors, warnings] = ['error', 'warning'].map((level) => snags.filter((s) => s.severity === level));
    assert.ok((errors ?? []).length > 0 && (warnings ?? []).length > 0);
    const found = counts(broken);
    assert.equal(found.errors, errors?.length);
    assert.equal(found.warnings, warnings?.length);
    const aside = counts(broken, { asides: snags.map(snagKey) });
    assert.equal(aside.errors, errors?.length);
    assert.equal(aside.warnings, 0);
  });

  it('has lines of their own for labels, colliding codes and test respondents', () => {
    const bare = questionnaire([section('a', [ask('fuel', 2, { required: true })])]);
    assert.equal(counts(bare).labels, 1);
    assert.equal(counts(forked).labels, 0);
    const colliding = questionnaire([
      section('a', [
        ask(
          'fuel',
          { type: 'single', options: [{ code: -1, label: 'Gas' }] },
          { label: 'Fuel', required: true },
        ),
      ]),
    ]);
    const found = counts(colliding);
    assert.equal(found.codes, 1);
    assert.equal(found.errors, 0);
    const plan = planFor(forked);
    const kept = keptOf(plan, { answers: { fuel: 1, cars: 1 } });
    assert.ok(kept !== null && walked(plan, kept.walked).ending !== null);
    const respondents = [{ name: 'Tenant', ...kept }];
    assert.equal(counts(forked, { respondents }).respondents, 0);
    const changed = JSON.parse(JSON.stringify(forked).replace('fuel = 2', 'fuel = 1')) as Questionnaire;
    assert.equal(counts(changed, { respondents }).respondents, 1);
  });

  it('is not met where routes could not be counted', () => {
    const known = { snags: [], asides: new Set<string>(), cover: [1n], total: 1n, passed: new Set([1n]) };
    const lineOf = (covered: boolean, exact: boolean, wanted: RoutesWanted) =>
      gateOf({ ...known, covered, exact, wanted }).find(({ check }) => check === 'routes');
    // The cover is whole though not all routes are counted, and the other way round.
    assert.equal(lineOf(true, false, 'cover')?.count, 0n);
    assert.equal(lineOf(false, true, 'all')?.count, 0n);
    for (const line of [lineOf(false, true, 'cover'), lineOf(true, false, 'all')]) {
      assert.equal(line?.count, 1n);
      assert.equal(gateLineWords(line), 'at least 1 route not passed');
    }
  });

  it('wants a study that an ending hands on to', () => {
    const handing = {
      ...forked,
      endings: [
        { id: 'done', kind: 'complete' as const, messages: [{ text: 'Thanks.' }] },
        {
          id: 'out',
          kind: 'hand_off' as const,
          messages: [{ text: 'Next.' }],
          next: { questionnaire: 'winter-diary', carry: [] },
        },
      ],
    };
    const told = counts(handing);
    const there = counts(handing, { others: [{ id: 'winter-diary', title: 'Winter Diary', given: [] }] });
    assert.equal((told.errors ?? 0) + (told.warnings ?? 0), 1);
    assert.equal((there.errors ?? 0) + (there.warnings ?? 0), 0);
  });
});
