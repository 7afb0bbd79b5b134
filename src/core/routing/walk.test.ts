/** Walking and coding, against cases worked out by hand from the rules. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import {
  ask,
  planFor,
  questionnaire,
  say,
  section,
  trail,
  walked,
} from '../../../tests/support/questionnaire';
import { codedRow } from '../coding/row';
import type { Answer, Answers, Option } from '../document/types';
import { walk, type WalkInput } from './walk';

const options = (...codes: number[]): Option[] => codes.map((code) => ({ code, label: `Option ${code}` }));
const dontKnow: Option = { code: 98, label: "Don't know", missing: 'dont_know' };
const number = (min: number, max: number, rest: object = {}): Answer => ({
  type: 'number',
  min,
  max,
  ...rest,
});

function goes(document: Parameters<typeof planFor>[0], input: WalkInput | Answers): string {
  const plan = planFor(document);
  return trail(plan, walked(plan, 'answers' in input ? (input as WalkInput) : { answers: input as Answers }));
}

function row(document: Parameters<typeof planFor>[0], input: WalkInput): Record<string, number | string> {
  const plan = planFor(document);
  return codedRow(plan, walked(plan, input), input.answers);
}

describe('skips, ask-ifs and onward', () => {
  const forked = questionnaire([
    section('a', [
      ask('a1', 3, {
        skips: [
          { if: 'a1 = 2', to: { item: 'a3' } },
          { if: 'a1 in (2, 3)', to: { section: 'c' } },
        ],
      }),
      ask('a2', 2, { askIf: 'a1 = 1' }),
      ask('a3'),
    ]),
    section('b', [say('b1'), ask('b2')], { askIf: 'a3 = 1', onward: { section: 'd' } }),
    section('c', [ask('c1', 2, { skips: [{ to: { ending: 'out' } }] })]),
    section('d', [ask('d1')], {
      onward: [{ if: 'd1 = 2', to: { ending: 'out' } }, { to: { ending: 'done' } }],
    }),
  ]);

  it('takes the first skip that holds, and carries on where none does', () => {
    assert.equal(goes(forked, { a1: 2, a3: 1, d1: 1 }), 'a1 a3 b1 b2 d1 > done');
    assert.equal(goes(forked, { a1: 3 }), 'a1 c1 > out');
    assert.equal(goes(forked, { a1: 1, a3: 1, d1: 2 }), 'a1 a2 a3 b1 b2 d1 > out');
  });

  it('goes on to the next section, not onward, where the gate is shut', () => {
    assert.equal(goes(forked, { a1: 2, a3: 2 }), 'a1 a3 c1 > out');
  });

  it('ignores answers that are off the route', () => {
    assert.equal(goes(forked, { a1: 3, a2: 1, a3: 1, d1: 1 }), 'a1 c1 > out');
  });

  it('tests the gate of a section that a skip points into, but not within it', () => {
    const into = questionnaire([
      section('a', [ask('a1', 3, { skips: [{ if: 'a1 <> 3', to: { item: 'b2' } }] })]),
      section('b', [ask('b1'), ask('b2', 2, { skips: [{ to: { item: 'b4' } }] }), ask('b3'), ask('b4')], {
        askIf: 'a1 = 1',
      }),
      section('c', [ask('c1')]),
    ]);
    assert.equal(goes(into, { a1: 1 }), 'a1 b2 b4 c1 > done');
    assert.equal(goes(into, { a1: 2 }), 'a1 c1 > done');
  });

  it('makes conditions with a problem never hold, and bad targets absent', () => {
    const broken = questionnaire([
      section('a', [
        ask('a1', 2, { skips: [{ to: { item: 'gone' } }, { if: 'later = 1', to: { ending: 'out' } }] }),
        ask('a2', 2, { askIf: 'a1 ==' }),
        ask('later', 2, { skips: [{ to: { item: 'a1' } }] }),
      ]),
    ]);
    assert.equal(goes(broken, { a1: 1 }), 'a1 later > done');
    assert.deepEqual(
      planFor(broken)
        .problems.map(({ rule }) => rule)
        .sort(),
      ['backward-skip', 'bad-condition', 'refers-forward', 'unknown-target'],
    );
  });
});

describe('repeated sections', () => {
  const rooms = questionnaire([
    section('a', [ask('n', number(0, 9))]),
    section(
      'r',
      [
        ask('use', 3, {
          skips: [
            { if: 'use = 2', to: { nextPass: true } },
            { if: 'use = 3', to: { section: 'z' } },
          ],
        }),
        ask('cold', 2, { askIf: 'pass > 1' }),
      ],
      { repeat: { times: 'n', max: 3 }, onward: [{ if: 'count(use = 1) >= 2', to: { ending: 'out' } }] },
    ),
    section('y', [ask('y1')]),
    section('z', [ask('z1')]),
  ]);

  it('runs a pass for each, never more than max', () => {
    assert.equal(goes(rooms, { n: 0 }), 'n y1 z1 > done');
    assert.equal(goes(rooms, {}), 'n y1 z1 > done');
    assert.equal(goes(rooms, { n: 2 }), 'n use#1 use#2 cold#2 y1 z1 > done');
    assert.equal(goes(rooms, { n: 9 }), 'n use#1 use#2 cold#2 use#3 cold#3 y1 z1 > done');
  });

  it('goes to the next pass, leaves the rest out, and counts passes from outside', () => {
    assert.equal(goes(rooms, { n: 3, 'use#1': 2, 'use#2': 3 }), 'n use#1 use#2 z1 > done');
    assert.equal(goes(rooms, { n: 2, 'use#1': 1, 'use#2': 1 }), 'n use#1 use#2 cold#2 > out');
    assert.equal(goes(rooms, { n: 2, 'use#1': 1, 'use#2': 2 }), 'n use#1 use#2 y1 z1 > done');
  });

  it('runs once for each option picked, in option order, with its code at hand', () => {
    const fuels = questionnaire([
      section('a', [
        ask('fuel', {
          type: 'multiple',
          options: [...options(1, 2, 3), { code: 9, label: 'None', exclusive: true }],
        }),
      ]),
      section('f', [ask('cost'), ask('smoke', 2, { askIf: 'each = 3' })], {
        repeat: { each: 'fuel', max: 2 },
      }),
    ]);
    assert.equal(goes(fuels, { fuel: [3, 1] }), 'fuel cost#1 cost#2 smoke#2 > done');
    assert.equal(goes(fuels, { fuel: [1, 2, 3] }), 'fuel cost#1 cost#2 > done');
    assert.equal(goes(fuels, { fuel: [9] }), 'fuel > done');
  });
});

describe('draws, quotas, given values, hidden options', () => {
  it('shows statements always and drawn questions in document order', () => {
    const drawn = questionnaire([section('v', [ask('v1'), say('s'), ask('v2'), ask('v3')], { draw: 2 })]);
    assert.equal(goes(drawn, { answers: {}, draws: { v: ['v3', 'v1'] } }), 'v1 s v3 > done');
    const seeded = (seed: number) => goes(drawn, { answers: {}, seed });
    assert.equal(seeded(7), seeded(7));
    assert.equal(new Set(Array.from({ length: 40 }, (_, seed) => seeded(seed))).size, 3);
    const plan = planFor(drawn);
    assert.match(
      JSON.stringify(walk(plan, { answers: {}, draws: { v: ['v1'] } })),
      /draws 2 different questions/,
    );
  });

  it('tries full quotas before skips, a blank counting as left', () => {
    const quota = questionnaire(
      [section('a', [ask('q', 2, { skips: [{ to: { item: 'z' } }] }), ask('m'), ask('z')])],
      {
        quotas: [
          {
            id: 'ones',
            label: 'Ones',
            if: 'q = 1 or q unanswered',
            target: 10,
            at: 'q',
            to: { ending: 'out' },
          },
        ],
      },
    );
    assert.equal(goes(quota, { answers: { q: 1 }, full: ['ones'] }), 'q > out');
    assert.equal(goes(quota, { answers: {}, full: ['ones'] }), 'q > out');
    assert.equal(goes(quota, { answers: { q: 2 }, full: ['ones'] }), 'q z > done');
    assert.equal(goes(quota, { answers: { q: 1 } }), 'q z > done');
  });

  it('refuses a walk without a given value, and drives a repeat by one', () => {
    const given = questionnaire([section('a', [ask('q')], { repeat: { times: 'n', max: 3 } })], {
      given: [{ name: 'n', label: 'Number', answer: number(0, 5) }],
    });
    assert.equal(goes(given, { answers: {}, given: { n: 2 } }), 'q#1 q#2 > done');
    assert.ok(!walk(planFor(given), { answers: {} }).ok);
    assert.deepEqual(row(given, { answers: { 'q#1': 2 }, given: { n: 1 } }), {
      n: 1,
      q_1: 2,
      q_2: -1,
      q_3: -1,
      ending: 'done',
    });
  });

  it('passes over a question left without options, and refuses a hidden one', () => {
    const hidden = questionnaire([
      section('a', [
        ask('q', 2),
        ask('w', { type: 'single', options: [{ ...options(1)[0]!, askIf: 'q = 1' }, dontKnow] }),
        ask(
          'm',
          {
            type: 'multiple',
            options: [{ ...options(1)[0]!, askIf: 'q = 1' }, ...options(2, 3)],
            minPicks: 3,
          },
          { required: true },
        ),
      ]),
    ]);
    assert.equal(goes(hidden, { q: 2, m: [2, 3] }), 'q m > done');
    assert.equal(goes(hidden, { q: 1, m: [1, 2, 3] }), 'q w m > done');
    const refused = walked(planFor(hidden), { answers: { q: 2, m: [1, 2] } });
    assert.equal(refused.steps.at(-1)?.faults[0]?.kind, 'not-allowed');
  });

  it('stops at a hard check that holds, keeping the answer in the row', () => {
    const checked = questionnaire([
      section('a', [
        ask('n', number(0, 9), { checks: [{ if: 'n > 5', kind: 'hard', message: 'Too many.' }] }),
        ask('z'),
      ]),
    ]);
    assert.equal(goes(checked, { n: 6 }), 'n > stopped');
    assert.deepEqual(row(checked, { answers: { n: 6 } }), { n: 6, z: -4, ending: -4 });
  });
});

describe('the coded row', () => {
  it('tells the four reasons apart in every kind of column', () => {
    const document = questionnaire(
      [
        section('a', [
          ask('q', 2, { required: true }),
          ask(
            'm',
            { type: 'multiple', options: [...options(1, 2), { ...options(3)[0]!, specify: true }, dontKnow] },
            { comment: 'Why?' },
          ),
          ask('r', { type: 'rank', options: options(1, 2, 3), top: 2 }),
          ask('g', {
            type: 'grid',
            rows: [
              { name: 'g1', label: '1' },
              { name: 'g2', label: '2', askIf: 'q = 1' },
            ],
            options: options(1, 2),
          }),
        ]),
        section('d', [ask('d1'), ask('d2')], { draw: 1, askIf: 'q = 1' }),
        section('t', [ask('t1', { type: 'text' }, { missingCodes: { no_answer: -33 } })]),
      ],
      {
        derived: [
          { name: 'kind', label: 'Kind', cases: [{ if: 'q = 1', code: 1, label: 'one' }] },
          { name: 'sum', label: 'Sum', value: 'q + count(m)' },
        ],
      },
    );
    const neverReached = {
      m_3_text: '',
      m_comment: '',
      ...{ r_rank1: -4, r_rank2: -4, g1: -4, g2: -4, d1: -4, d2: -4, t1: -4 },
    };
    assert.deepEqual(
      row(document, {
        answers: { q: 1, m: [3, 1], m_3_text: 'peat', m_comment: 'cheap', r: [2], g2: 2 },
        draws: { d: ['d2'] },
      }),
      {
        q: 1,
        m_1: 1,
        m_2: 0,
        m_3: 1,
        m_98: 0,
        m_3_text: 'peat',
        m_comment: 'cheap',
        r_rank1: 2,
        r_rank2: -3,
        g1: -3,
        g2: 2,
        d1: -2,
        d2: -3,
        t1: -33,
        kind: 1,
        sum: 3,
        ending: 'done',
      },
    );
    assert.deepEqual(row(document, { answers: { q: 2, m: [98], t1: 'x' } }), {
      q: 2,
      m_1: 98,
      m_2: 98,
      m_3: 98,
      m_98: 1,
      m_3_text: '',
      m_comment: '',
      r_rank1: -3,
      r_rank2: -3,
      g1: -3,
      g2: -1,
      d1: -1,
      d2: -1,
      t1: 'x',
      kind: -3,
      sum: -3,
      ending: 'done',
    });
    assert.deepEqual(row(document, { answers: { q: 1, m: [2] }, stoppedAt: 'm' }), {
      q: 1,
      m_1: 0,
      m_2: 1,
      m_3: 0,
      m_98: 0,
      ...neverReached,
      kind: 1,
      sum: 2,
      ending: -4,
    });
    assert.deepEqual(row(document, { answers: {} }), {
      q: -3,
      m_1: -4,
      m_2: -4,
      m_3: -4,
      m_98: -4,
      ...neverReached,
      kind: -3,
      sum: -4,
      ending: -4,
    });
  });

  it('knows which passes will not run even where the respondent stopped before them', () => {
    const document = questionnaire([
      section('a', [ask('n', number(0, 3)), ask('b')]),
      section('r', [ask('x', { type: 'multiple', options: options(1, 2) }), ask('y')], {
        repeat: { times: 'n', max: 3 },
      }),
    ]);
    const stopped = (answers: Answers, stoppedAt: string) => {
      const { x_1_1, y_1, x_2_2, y_2, y_3 } = row(document, { answers, stoppedAt });
      return [x_1_1, y_1, x_2_2, y_2, y_3];
    };
    assert.deepEqual(stopped({ n: 2 }, 'b'), [-4, -4, -4, -4, -1]);
    assert.deepEqual(stopped({}, 'n'), [-4, -4, -4, -4, -4]);
    assert.deepEqual(stopped({ n: 2, 'x#1': [1] }, 'x#1'), [1, -4, -4, -4, -1]);
    assert.deepEqual(stopped({ n: 2, 'x#1': [1], 'y#1': 1 }, 'x#2'), [1, 1, -3, -4, -1]);
  });

  it('leaves what was left in a section whose time ran out as not reached, and goes on after it', () => {
    const document = questionnaire([
      section('a', [ask('x', 2, { required: true }), ask('y', 2, { required: true }), ask('z')], {
        timeLimit: 60,
      }),
      section('b', [ask('d1'), ask('d2'), ask('d3')], { draw: 2, timeLimit: 60 }),
      section('c', [ask('last')]),
    ]);
    const input = {
      answers: { x: 1, last: 2 },
      timedOut: ['y', 'd1'],
      draws: { b: ['d1', 'd2'] },
      lenient: true,
    };
    const found = walk(planFor(document), input);
    assert.ok(found.ok);
    assert.deepEqual(
      found.walk.steps.map(({ key }) => key),
      ['x', 'y', 'd1', 'last'],
    );
    assert.deepEqual(row(document, input), {
      x: 1,
      y: -3,
      z: -4,
      d1: -3,
      d2: -4,
      d3: -2,
      last: 2,
      ending: 'done',
    });
  });
});

describe('an open specify field', () => {
  const others = (rest: object) =>
    questionnaire([
      section('a', [
        ask(
          'how',
          {
            type: 'single',
            options: [...options(1), { code: 7, label: 'Another way', specify: true, ...rest }],
          },
          { required: true },
        ),
      ]),
    ]);
  const faults = (document: Parameters<typeof planFor>[0], answers: Answers) =>
    walked(planFor(document), { answers }).steps[0]?.faults.map(({ kind }) => kind);

  it('of a required answer is to be filled in, unless the author lets it be', () => {
    assert.deepEqual(faults(others({}), { how: 7 }), ['unspecified']);
    assert.deepEqual(faults(others({}), { how: 7, how_7_text: '  ' }), ['unspecified']);
    assert.deepEqual(faults(others({}), { how: 7, how_7_text: 'by cart' }), []);
    assert.deepEqual(faults(others({}), { how: 1 }), []);
    assert.deepEqual(faults(others({ specifyOptional: true }), { how: 7 }), []);
  });

  it('left empty keeps a page, but no file of answers already given', () => {
    assert.equal(goes(others({}), { how: 7 }), 'how > done');
  });
});
