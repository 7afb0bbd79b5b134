import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { applyChange } from '../../editing/change';
import type { Answers, Item, Questionnaire } from '../../document/types';
import { readDocument } from '../../document/read';
import { planOf } from '../../routing/planner';
import { madeUpRespondents } from '../../simulate/respondents';
import { ask, planFor, questionnaire, section } from '../../../../tests/support/questionnaire';
import { caseBegun, type KeptCase } from '../../responding/kept-case';
import { sampleOfCases } from './from-cases';
import { shareTakers, takeShares, type SeenShares } from './seen-shares';

const HEAT = ask('heat', 3, { skips: [{ if: 'heat = 3', to: { ending: 'out' } }] });
const STUDY = questionnaire([
  section('a', [HEAT]),
  section('b', [
    ask('fuels', { type: 'multiple', options: [1, 2, 3].map((code) => ({ code, label: `${code}` })) }),
    ask('rooms', {
      type: 'number',
      min: 1,
      max: 99,
      specials: [{ code: -7, label: 'Not sure', missing: 'dont_know' }],
    }),
    ask('levels', {
      type: 'grid',
      rows: ['x', 'y'].map((name) => ({ name, label: name })),
      options: [1, 2].map((code) => ({ code, label: `${code}` })),
    }),
    ask('words', { type: 'text' }),
  ]),
]);
const plan = planFor(STUDY);

function answered(answers: Answers, at = 9, by: 'ending' | 'stop' | null = 'ending'): KeptCase {
  const begun = caseBegun(plan, { key: crypto.randomUUID(), id: '1', seed: 1, given: {} }, 0);
  return { ...begun, answers, at, closed: by === null ? null : { at: 1, by } };
}

const seenShares = (of: typeof plan, cases: readonly KeptCase[]) => sampleOfCases(of, cases).shares;
const taking = (seen: ReadonlyMap<string, SeenShares>, least: number, of: string) =>
  takeShares(seen, shareTakers(STUDY, seen, least), of);

const rarely = (item: Item): Item =>
  item.kind === 'question' && item.name === 'fuels'
    ? { ...item, assume: { shares: { 1: 0.1, 2: 0.1, 3: 0.1 } } }
    : item;

describe('shares that were seen', () => {
  it('are of those who were asked: blanks counted, off-route and unanswered pages not', () => {
    const seen = seenShares(plan, [
      answered({ heat: 1, fuels: [1, 3], rooms: 4, x: 1, y: 2 }),
      answered({ heat: 1, fuels: [1], rooms: -7, x: 1, words: 'so' }),
      answered({ heat: 2, rooms: 4, x: 2, y: 2 }),
      // Off the route.
      answered({ heat: 3, rooms: 90 }),
      // On the second page, which is not sent yet.
      answered({ heat: 2, rooms: 50 }, 1, null),
    ]);
    assert.deepEqual(seen.get('heat'), { base: 5, assume: { shares: { 1: 2 / 5, 2: 2 / 5, 3: 1 / 5 } } });
    assert.deepEqual(seen.get('fuels'), {
      base: 3,
      assume: { shares: { 1: 1, 2: 0, 3: 0.5 }, blank: 1 / 3 },
    });
    assert.deepEqual(seen.get('rooms'), { base: 3, assume: { shares: { 4: 2 / 3, '-7': 1 / 3 } } });
    assert.deepEqual(seen.get('levels'), {
      base: 3,
      assume: { shares: { 1: 2 / 5, 2: 3 / 5 }, blank: 1 / 6 },
    });
    assert.deepEqual(seen.get('words'), { base: 3, assume: { blank: 2 / 3 } });
  });

  it('of many values are ranges of about as many each, which hold all of them', () => {
    const rooms = Array.from({ length: 95 }, (_, n) => (n % 3 === 0 ? 7 : n + 1));
    const found = seenShares(
      plan,
      rooms.map((of) => answered({ heat: 1, rooms: of })),
    );
    const { ranges = [], shares } = found.get('rooms')?.assume ?? {};
    assert.deepEqual(shares, { '-7': 0 });
    assert.ok(Math.abs(ranges.reduce((sum, { share }) => sum + share, 0) - 1) < 1e-9);
    for (const { from, to, share } of ranges)
      assert.equal(
        Math.round(share * 95),
        rooms.filter((of) => of >= Number(from) && of <= Number(to)).length,
      );
    assert.ok(ranges.length > 4 && ranges.length <= 10);
  });

  it('make up people like those who were seen', () => {
    const shares = { 1: 0.62, 2: 0.3, 3: 0.08 };
    const assumed = planFor({
      ...STUDY,
      sections: STUDY.sections.map((of, n) =>
        n === 0
          ? { ...of, items: [{ ...HEAT, assume: { shares } }] }
          : { ...of, items: of.items.map(rarely) },
      ),
    });
    const people = [...madeUpRespondents(assumed, 2000, 5)].map(({ answers }) => answered(answers));
    const { document } = applyChange(STUDY, taking(seenShares(plan, people), 30, 'a trial'));
    assert.ok(readDocument(JSON.parse(JSON.stringify(document))).ok);
    const again = [...madeUpRespondents(planOf(document), 2000, 6)];
    const share = again.filter(({ answers }) => answers.heat === 1).length / 2000;
    assert.ok(Math.abs(share - 0.62) < 0.04, `${share}`);
    // With one chance in ten each, each is picked by more than a third: whoever answers picks something.
    const picking = (of: readonly { readonly answers: Answers }[]) => {
      const picks = of.flatMap(({ answers: { fuels } }) =>
        typeof fuels === 'object' && fuels ? [fuels] : [],
      );
      return picks.filter((codes) => codes.includes(1)).length / picks.length;
    };
    assert.ok(
      picking(people) > 0.33 && Math.abs(picking(again) - picking(people)) < 0.04,
      `${picking(again)}`,
    );
  });

  it('are taken for what is still asked in the same way, of enough people', () => {
    const seen = seenShares(plan, [answered({ heat: 1, fuels: [1], rooms: 4 }), answered({ heat: 3 })]);
    assert.deepEqual(shareTakers(STUDY, seen, 2), ['heat']);
    assert.deepEqual(shareTakers(STUDY, seen, 1), ['heat', 'fuels', 'rooms', 'levels', 'words']);
    const without: Questionnaire = questionnaire([section('a', [ask('heat', 2), ask('rooms', 2)])]);
    assert.deepEqual(shareTakers(without, seen, 1), []);
    const { document, step } = applyChange(STUDY, taking(seen, 2, 'Pilot'));
    assert.equal(step.label, 'Assume the shares of Pilot');
    const [
      {
        items: [heat],
      },
      { items: rest },
    ] = document.sections as [Questionnaire['sections'][0], Questionnaire['sections'][0]];
    assert.deepEqual(heat, {
      ...HEAT,
      assume: { shares: { 1: 0.5, 2: 0, 3: 0.5 }, source: 'Pilot', base: 2 },
    });
    assert.deepEqual(rest, STUDY.sections[1]?.items);
  });
});
