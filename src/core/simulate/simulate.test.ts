/** Made-up respondents: they answer as assumed, keep to the rules, and come out the same for the same seed. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { codedCells } from '../coding/row';
import type { Answer, Question } from '../document/types';
import { walk } from '../routing/walk';
import { madeUpRespondents, type MadeUp } from './respondents';

const MANY = 4000;

function people(question: Question, count = MANY): MadeUp[] {
  return [...madeUpRespondents(planFor(questionnaire([section('a', [question])])), count, 7)];
}

/** Four standard errors of a share on both sides: missed once in 16,000 times, and always the same for a seed. */
function assertShare(found: number, count: number, expected: number, what: string): void {
  const error = 4 * Math.sqrt((expected * (1 - expected)) / count) + 1e-9;
  assert.ok(Math.abs(found / count - expected) <= error, `${what}: ${found / count}, expected ${expected}`);
}

function assertShares(question: Question, expected: Readonly<Record<string, number>>): void {
  const made = people(question);
  for (const [value, share] of Object.entries(expected)) {
    const found = made.filter(({ answers }) => JSON.stringify(answers[question.name]) === value).length;
    assertShare(found, MANY, share, `${question.name} = ${value}`);
  }
}

it('somebody whom no answer lets on has the row of one who stopped there', () => {
  const checks = [{ if: 'n >= 0', kind: 'hard' as const, message: 'No.' }];
  const plan = planFor(
    questionnaire([
      section('a', [ask('n', { type: 'number', min: 0, max: 1 }, { required: true, checks }), ask('after')]),
    ]),
  );
  for (const person of madeUpRespondents(plan, 5, 1)) {
    const row = [...person.row()];
    assert.equal(person.ending, null);
    assert.deepEqual(person.presented, ['n']);
    assert.deepEqual(row.slice(1), [-4, -4]);
  }
});

const options = (...codes: number[]) => codes.map((code) => ({ code, label: `Option ${code}` }));

describe('assumed answers', () => {
  it('are those of the first condition that holds of somebody, in their own pass, and else those of the rest', () => {
    const two: Answer = { type: 'single', options: options(1, 2) };
    const always = (code: number) => ({ shares: { [code]: 1 } });
    const plan = planFor(
      questionnaire([
        section('a', [
          ask('owns', two),
          ask('times', { type: 'number', min: 1, max: 2 }, { required: true }),
        ]),
        section(
          'b',
          [
            ask('car', two, { required: true }),
            ask('heats', two, {
              assume: {
                ...always(2),
                where: [
                  { if: 'car = 1 and pass = 1', blank: 1 },
                  { if: 'owns = 1', ...always(1) },
                ],
              },
            }),
          ],
          { repeat: { times: 'times', max: 2 } },
        ),
      ]),
    );
    const seen = new Set<string>();
    for (const { answers } of madeUpRespondents(plan, 200, 1))
      for (const pass of [1, 2]) {
        if (pass > Number(answers.times)) continue;
        const [car, heats] = [answers[`car#${pass}`], answers[`heats#${pass}`]];
        const expected = car === 1 && pass === 1 ? null : answers.owns === 1 ? 1 : 2;
        assert.equal(heats ?? null, expected, JSON.stringify(answers));
        seen.add(`${pass} ${car} ${answers.owns}`);
      }
    assert.equal(seen.size, 8);
  });

  it('shares what is not listed evenly among the ordinary options, and leaves blank as often as said', () => {
    const answer: Answer = {
      type: 'single',
      options: [...options(1, 2, 3), { code: 9, label: "Don't know", missing: 'dont_know' }],
    };
    assertShares(ask('q', answer, { assume: { shares: { '1': 0.5 }, blank: 0.2 } }), {
      '1': 0.4,
      '2': 0.2,
      '3': 0.2,
      '9': 0,
      null: 0.2,
    });
  });

  it('of a question of which nothing assumed is on show are even among what is', () => {
    const shown = (answer: Answer, assume: object) => {
      const plan = planFor(
        questionnaire([
          section('a', [
            ask('owns', { type: 'single', options: options(1) }, { required: true }),
            ask('q', answer, { required: true, assume }),
          ]),
        ]),
      );
      const made = [...madeUpRespondents(plan, MANY, 3)].map(({ answers }) => JSON.stringify(answers.q));
      return (value: unknown) => made.filter((each) => each === JSON.stringify(value)).length;
    };
    const hidden = [1, 2, 3].map((code) => ({
      ...{ code, label: `Option ${code}` },
      ...(code === 1 ? { askIf: 'owns = 2' } : {}),
    }));
    // The first is hidden from everybody: what is assumed of it falls to nobody.
    const single = shown({ type: 'single', options: hidden }, { shares: { 1: 1 } });
    assertShare(single(2), MANY, 0.5, 'single 2');
    assert.equal(single(1) + single(null), 0);
    const multiple = shown({ type: 'multiple', options: hidden }, { shares: { 1: 1, 2: 0, 3: 0 } });
    for (const picked of [[2], [3], [2, 3]]) assertShare(multiple(picked), MANY, 1 / 3, `picks ${picked}`);
    const rank = shown({ type: 'rank', options: hidden }, {});
    assertShare(rank([3, 2]), MANY, 0.5, 'rank 3 2');
  });

  it('gives each pick its chance, within the limits of picks and with exclusive ones alone', () => {
    const answer: Answer = {
      type: 'multiple',
      maxPicks: 2,
      options: [...options(1, 2, 3), { code: 8, label: 'None', exclusive: true }],
    };
    // Each of the three at one half and the exclusive one at a quarter: weights by hand, to the same factor.
    const [one, pair, none] = [3, 3, 1];
    const all = 3 * one + 3 * pair + none;
    assertShares(ask('q', answer, { assume: { shares: { '8': 0.25 } } }), {
      '[1]': one / all,
      '[1,3]': pair / all,
      '[1,2,3]': 0,
      '[8]': none / all,
    });
  });

  it('spreads numbers evenly over their ranges, and ranks in any order', () => {
    const age: Answer = { type: 'number', min: 18, max: 100 };
    const ranges = [
      { from: 18, to: 19, share: 0.8 },
      { from: 50, to: 50, share: 0.2 },
    ];
    assertShares(ask('age', age, { assume: { ranges } }), { 18: 0.4, 19: 0.4, 50: 0.2, 60: 0 });
    assertShares(ask('r', { type: 'rank', options: options(1, 2, 3), top: 2 }), { '[2,1]': 1 / 6 });
    const halves: Answer = { type: 'number', min: 0.3, max: 0.6, decimals: 1 };
    assertShares(ask('n', halves), { 0.3: 0.25, 0.4: 0.25, 0.5: 0.25, 0.6: 0.25 });
    const steps: Answer = { type: 'scale', min: 2, max: 8, step: 3 };
    assertShares(ask('s', steps), { 2: 1 / 3, 5: 1 / 3, 8: 1 / 3 });
    const special = { ...age, specials: [{ code: 998, label: 'Refused', missing: 'refused' as const }] };
    assertShares(ask('p', special, { assume: { shares: { 998: 0.5, 20: 0.25 } } }), {
      ...{ 998: 0.5, 20: 0.25, 18: 0.25 / 82, 100: 0.25 / 82, 101: 0 },
    });
  });
});

describe('made-up respondents', () => {
  const document = questionnaire(
    [
      section('a', [
        ask('seen', { type: 'multiple', options: options(1, 2, 3) }),
        ask(
          'age',
          { type: 'number', min: 0, max: 99 },
          { required: true, checks: [{ if: 'age < 18', kind: 'hard', message: 'Adults only.' }] },
        ),
      ]),
      section('b', [ask('b1', 2, { skips: [{ if: 'b1 = 2', to: { ending: 'out' } }] }), ask('b2')], {
        repeat: { each: 'seen', max: 3 },
      }),
      section('c', [ask('c1'), ask('c2'), ask('c3')], { draw: 2 }),
      section('d', [ask('d1')]),
    ],
    {
      quotas: [{ id: 'young', label: 'Young', if: 'age < 60', target: 3, at: 'age', to: { ending: 'full' } }],
      endings: [
        { id: 'done', kind: 'complete', messages: [] },
        { id: 'out', kind: 'screened_out', messages: [] },
        { id: 'full', kind: 'quota_full', messages: [] },
      ],
    },
  );
  const plan = planFor(document);

  it('walk as their answers say: the same route again, with nothing refused', () => {
    for (const { ending, presented, answers, given, draws, row } of madeUpRespondents(plan, 200, 3)) {
      const again = walk(plan, { answers, given, draws, full: ending === 2 ? ['young'] : [] });
      assert.ok(again.ok, JSON.stringify(again));
      const { walk: walked } = again;
      assert.deepEqual([walked.ending, walked.steps.map(({ key }) => key)], [ending, presented]);
      assert.deepEqual(
        row(),
        codedCells(plan, walked, answers).map(({ value }) => value),
      );
      assert.notEqual(ending, null);
      assert.ok(Number(answers.age) >= 18, 'a hard check lets nobody under 18 on');
    }
  });

  it('fill a quota and no more', () => {
    const made = [...madeUpRespondents(plan, 200, 3)];
    const young = made.filter(({ answers, ending }) => Number(answers.age) < 60 && ending === 0);
    assert.equal(young.length, 3);
    assert.ok(made.some(({ ending }) => ending === 2));
  });

  it('are the same people for the same seed, however many are made', () => {
    const answersOf = (count: number, seed: number) =>
      [...madeUpRespondents(plan, count, seed)].map(({ answers }) => answers);
    assert.deepEqual(answersOf(5, 1), answersOf(20, 1).slice(0, 5));
    assert.notDeepEqual(answersOf(5, 1), answersOf(5, 2));
  });
});
