/** Each rule on the smallest questionnaire that breaks it, and on one beside it that does not. */
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
import { analyse } from '../analysis';
import { readDocument } from '../document/read';
import type { Item, Question, Questionnaire } from '../document/types';
import { applyAll } from '../editing/change';
import { planOf } from '../routing/planner';
import { allSnagsOf, eachByItself, withoutFaults, type Snag } from './index';

function snagsIn(document: Questionnaire): Snag[] {
  const plan = planFor(document);
  return allSnagsOf(plan, analyse(plan));
}

/** The snags of a rule, as their places. */
function places(rule: Snag['rule'], document: Questionnaire): object[] {
  return snagsIn(document).flatMap((snag) => (snag.rule === rule ? [snag.at] : []));
}

const must = { required: true } as const;
const number = (min: number, max: number) => ({ type: 'number', min, max }) as const;
const out = { ending: 'out' } as const;

/** One section of a kind with these items, then a last one with `q9`. */
function study(
  items: readonly Item[],
  rest: Partial<Questionnaire> = {},
  kind: 'topic' | 'consent' | 'screening' = 'topic',
) {
  return questionnaire([section('a', items, { kind }), section('z', [ask('q9', 2, must)])], rest);
}

function skipping(name: string, rest: Partial<Question>, ...skips: readonly string[]) {
  return ask(name, 3, {
    ...must,
    skips: skips.map((test, n) => ({ if: test, to: n % 2 === 0 ? { section: 'z' } : out })),
    ...rest,
  });
}

const branches = (rest: object) =>
  questionnaire([
    section('s', [
      ask('years', number(0, 90), {
        ...must,
        skips: [
          { if: 'years < 6', to: { section: 'p' } },
          { if: 'years >= 6', to: { section: 'q' } },
        ],
      }),
    ]),
    section('p', [ask('one', 2, { text: 'Is it lit?' })], rest),
    section('q', [ask('other', 2, { text: 'Is  it LIT?' })]),
    section('r', [ask('last')]),
  ]);

describe('a snag', () => {
  it('of a target that cannot be used is mended by one that can', () => {
    const back = questionnaire([
      section('a', [
        ask('one'),
        ask('two', 2, { skips: [{ to: { item: 'one' } }] }),
        ask('three'),
        ask('four'),
      ]),
      section('b', [ask('five'), ask('six')], { repeat: { times: 'one', max: 2 } }),
      section('c', [ask('last')], { onward: { section: 'a' } }),
    ]);
    const inside = questionnaire([
      section('a', [ask('one', 2, { skips: [{ to: { item: 'six' } }] })]),
      section('b', [ask('five'), ask('six')], { repeat: { times: 'one', max: 2 } }),
      section('c', [ask('last')]),
    ]);
    const mends = (document: Questionnaire) =>
      snagsIn(document)
        .filter(({ rule }) => rule === 'backward-skip' || rule === 'enters-repeat')
        .map(({ mends: offered = [] }) =>
          offered.map(({ label, patches }) => {
            const left = snagsIn(applyAll(document, patches)).filter(({ rule }) => rule === 'backward-skip');
            return `${label}: ${left.length} left`;
          }),
        );
    assert.deepEqual(mends(back), [
      ['Aim skip 1 at four: 1 left', 'Aim skip 1 at B b: 1 left', 'Delete skip 1: 1 left'],
      ['Delete this onward: 1 left'],
    ]);
    assert.deepEqual(mends(inside), [['Aim skip 1 at B b: 0 left', 'Delete skip 1: 0 left']]);
  });

  it('of an unknown name suggests only what fits there', () => {
    const said = (askIf: string) =>
      snagsIn(
        questionnaire([
          section('a', [
            ask('years', number(0, 90)),
            ask('yeast', { type: 'multiple', options: [{ code: 1, label: 'x' }] }),
            ask('b', 2, { askIf }),
            ask('yearn', number(0, 9)),
          ]),
        ]),
      ).flatMap(({ rule, message }) => (rule === 'unknown-name' ? [message.split(': ')[1] ?? ''] : []));
    assert.deepEqual(said('yearz > 3'), ['did you mean “years”?']);
    assert.deepEqual(said('yeart > 3'), ['did you mean “years”?']);
    assert.deepEqual(said('yeart has 1'), ['did you mean “yeast”?']);
    // What comes later, or has no such code, is no help.
    assert.deepEqual(said('yearm = 4'), ['did you mean “years”?']);
    assert.deepEqual(said('count(yearz) > 1'), ['did you mean “yeast”?']);
    assert.deepEqual(said('yeast has 1 and bb = 1'), ['']);
  });

  it('never-asked: an item no route presents', () => {
    assert.deepEqual(
      places('never-asked', study([ask('q', 2, must), ask('x', 2, { askIf: 'q = 1 and q = 2' })])),
      [{ item: 'x' }],
    );
    assert.deepEqual(places('never-asked', study([ask('q', 2, must), ask('x', 2, { askIf: 'q = 1' })])), []);
    const [jumped] = snagsIn(study([ask('q', 2, { skips: [{ to: { section: 'z' } }] }), say('x')])).filter(
      ({ rule }) => rule === 'never-asked',
    );
    assert.match(jumped?.message ?? '', /everybody is led past it, by what follows “q”/);
  });

  it('never-asked: says what keeps everybody from it', () => {
    const q = ask('q', 2, must);
    const to = (target: object, rest: object = {}) =>
      ask('q', 2, { ...must, ...rest, skips: [{ to: target as { section: string } }] });
    const middle = (rest: object) =>
      questionnaire([section('a', [q]), section('m', [ask('x')], rest), section('z', [ask('q9', 2, must)])]);
    const hidden = { code: 1, label: 'One', askIf: 'q = 1 and q = 2' };
    const cases: readonly (readonly [Questionnaire, RegExp])[] = [
      [
        study([q, ask('x', 2, { askIf: 'q > 2' })]),
        /its ask-if “q > 2” holds for none of those who get to it/,
      ],
      [study([q, ask('x', { type: 'single', options: [hidden] })]), /none of its answers is ever shown/],
      [middle({ askIf: 'q = 1 and q = 2' }), /its section is shut by the ask-if “q = 1 and q = 2”/],
      [
        questionnaire([
          section('a', [ask('n', number(0, 0), must)]),
          section('m', [ask('x')], { repeat: { times: 'n', max: 2 } }),
        ]),
        /its section never has a pass to run/,
      ],
      [study([to({ section: 'z' }), ask('x')]), /everybody is led past it, by what follows “q”/],
      [
        questionnaire([
          section('a', [q], { title: 'First', onward: [{ to: { section: 'z' } }] }),
          section('m', [ask('x')]),
          section('z', [ask('q9', 2, must)]),
        ]),
        /everybody is led past it, by the end of section “First”/,
      ],
    ];
    for (const [document, words] of cases) {
      const said = snagsIn(document).filter(({ rule }) => rule === 'never-asked');
      assert.match(said.map(({ message }) => message).join('; '), words);
    }
  });

  it('ending-unreached: an ending no route reaches, to be deleted unless it is needed', () => {
    const of = (document: Questionnaire) =>
      snagsIn(document).filter(({ rule }) => rule === 'ending-unreached');
    assert.deepEqual(places('ending-unreached', study([ask('q')])), [{ ending: 'out' }]);
    assert.deepEqual(places('ending-unreached', study([skipping('q', {}, 'q = 1', 'q = 2')])), []);
    assert.deepEqual(places('ending-unreached', questionnaire([section('a', [])])), []);
    const [unused] = of(study([ask('q')]));
    assert.equal(unused?.mends?.length, 1);
    // The only ending for those who complete is needed, however nobody comes to it yet.
    const [complete] = of(study([ask('q', 2, { ...must, skips: [{ to: out }] })]));
    assert.deepEqual([complete?.at, complete?.mends], [{ ending: 'done' }, undefined]);
    // So is the one for those who decline, while nobody who refuses is led there.
    const endings = [
      { id: 'done', kind: 'complete' as const, messages: [{ text: 'Thank you.' }] },
      { id: 'no', kind: 'declined' as const, messages: [{ text: 'Goodbye.' }] },
    ];
    const [declined] = of(study([ask('q', 2, { ...must, agrees: [1] })], { endings }, 'consent'));
    assert.match(declined?.message ?? '', /lead those who refuse consent to it/);
    assert.equal(declined?.mends, undefined);
  });

  it('never-true, always-true: of those who get there', () => {
    const twice = (askIf: string) =>
      study([ask('q', 2, { ...must, skips: [{ if: 'q = 2', to: out }] }), ask('x', 2, { askIf })]);
    assert.deepEqual(places('never-true', twice('q = 2')), [{ item: 'x' }]);
    assert.deepEqual(places('always-true', twice('q = 1')), [{ item: 'x' }]);
    const options = [
      { code: 1, label: 'One' },
      { code: 2, label: 'Two', askIf: 'q9 = 1' },
    ];
    const shown = questionnaire([section('a', [ask('q9', 2, must), ask('x', { type: 'single', options })])]);
    assert.deepEqual([...places('never-true', shown), ...places('always-true', shown)], []);
    // An option's condition is taken away by its mend, and no other with it.
    const withAskIf = (first: string, second: string): Questionnaire => ({
      ...shown,
      sections: [
        section('a', [
          ask('q9', 2, must),
          ask('x', {
            type: 'single',
            options: [
              { code: 1, label: 'One', askIf: first },
              { code: 2, label: 'Two', askIf: second },
            ],
          }),
        ]),
      ],
    });
    const always = withAskIf('q9 = 1', 'q9 < 3');
    const [snag] = snagsIn(always).filter(({ rule }) => rule === 'always-true');
    assert.deepEqual(snag?.at, { item: 'x', option: 2 });
    const mended = snag.mends?.map(({ patches }) => applyAll(always, patches));
    assert.deepEqual(
      mended?.map(({ sections }) => (sections[0]?.items[1] as Question).answer),
      [
        {
          type: 'single',
          options: [
            { code: 1, label: 'One', askIf: 'q9 = 1' },
            { code: 2, label: 'Two' },
          ],
        },
      ],
    );
    // So is a row's.
    const rows = [
      { name: 'warm', label: 'Warm', askIf: 'q9 = 1' },
      { name: 'dry', label: 'Dry', askIf: 'q9 < 3' },
    ];
    const grid: Question['answer'] = { type: 'grid', rows, options: [{ code: 1, label: 'One' }] };
    const inRows = questionnaire([section('a', [ask('q9', 2, must), ask('x', grid)])]);
    const [ofRow] = snagsIn(inRows).filter(({ rule }) => rule === 'always-true');
    assert.deepEqual(ofRow?.at, { item: 'x', row: 'dry' });
    const left = ofRow.mends?.map(({ patches }) => applyAll(inRows, patches));
    assert.deepEqual(
      left?.map(({ sections }) => (sections[0]?.items[1] as Question).answer),
      [{ ...grid, rows: [rows[0], { name: 'dry', label: 'Dry' }] }],
    );
  });

  it('skip-shadowed, rules-overlap: the first skip that holds wins', () => {
    const shadowed = study([skipping('q', {}, 'q >= 1', 'q >= 2')]);
    assert.deepEqual(places('skip-shadowed', shadowed), [{ item: 'q', skip: 1 }]);
    assert.deepEqual(places('rules-overlap', shadowed), []);
    const overlapping = study([skipping('q', {}, 'q <= 2', 'q >= 2')]);
    assert.deepEqual(places('rules-overlap', overlapping), [{ item: 'q', skip: 1 }]);
    assert.deepEqual(places('skip-shadowed', overlapping), []);
    assert.deepEqual(places('rules-overlap', study([skipping('q', {}, 'q = 1', 'q = 2')])), []);
  });

  it('falls-through, asked-twice: one branch runs on into the other', () => {
    assert.deepEqual(places('falls-through', branches({})), [{ section: 'p' }]);
    assert.deepEqual(places('falls-through', branches({ onward: { section: 'r' } })), []);
    assert.deepEqual(places('asked-twice', branches({ onward: { section: 'r' } })), [{ item: 'other' }]);
  });

  it('values-unclaimed: a number between two that are dealt with', () => {
    const years = (...skips: string[]) =>
      study([
        ask('years', number(0, 90), {
          ...must,
          skips: skips.map((test, n) => ({ if: test, to: n ? out : { section: 'z' } })),
        }),
        ask('x'),
      ]);
    assert.deepEqual(places('values-unclaimed', years('years < 6', 'years > 6')), [{ item: 'years' }]);
    assert.deepEqual(places('values-unclaimed', years('years < 6', 'years >= 6')), []);
    assert.deepEqual(places('values-unclaimed', years('years < 6')), []);
    const askIfs = (test: string) =>
      study([ask('n', number(0, 90), must), ask('x', 2, { askIf: 'n < 30' }), ask('y', 2, { askIf: test })]);
    assert.deepEqual(places('values-unclaimed', askIfs('n > 30')), [{ item: 'n' }]);
    assert.deepEqual(places('values-unclaimed', askIfs('n >= 30')), []);
  });

  it('values-unclaimed: among any number of conditions that exclude each other, cases of a derived one too', () => {
    const score = ask('score', { type: 'scale', min: 0, max: 10 }, must);
    const asks = (...tests: string[]) =>
      study([score, ...tests.map((askIf, n) => ask(`x${n}`, 2, { askIf }))]);
    const gaps = (document: Questionnaire) =>
      snagsIn(document).flatMap(({ rule, at, message }) =>
        rule === 'values-unclaimed' ? [[at, /leaves out ([^:]*):/.exec(message)?.[1]]] : [],
      );
    assert.deepEqual(gaps(asks('score <= 4', 'score in (6..8)', 'score >= 9')), [[{ item: 'score' }, '5']]);
    assert.deepEqual(gaps(asks('score < 3', 'score in (4..6)', 'score = 8', 'score > 8')), [
      [{ item: 'score' }, '3 and 7'],
    ]);
    assert.deepEqual(gaps(asks('score <= 4', 'score in (5..8)', 'score >= 9')), []);
    const derived = (cases: string[], rest: object = {}) =>
      study([score], {
        derived: [
          {
            name: 'd',
            label: 'Group',
            cases: cases.map((test, n) => ({ if: test, code: n + 1, label: `Group ${n + 1}` })),
            ...rest,
          },
        ],
      });
    assert.deepEqual(gaps(derived(['score < 5', 'score > 5'])), [[{ derived: 'd' }, '5']]);
    assert.deepEqual(gaps(derived(['score < 5', 'score > 5'], { else: { code: 9, label: 'Else' } })), []);
    const known = study([ask('x', 2, { askIf: 'g < 3' }), ask('y', 2, { askIf: 'g > 3' })], {
      given: [{ name: 'g', label: 'Group', answer: number(0, 9) }],
    });
    assert.deepEqual(gaps(known), [[{ given: 'g' }, '3']]);
  });

  it('falls-through: not where the branches meet, and never with a mend that takes common questions away', () => {
    const kinds = (...skips: object[]) => ask('kind', 3, { ...must, skips } as Partial<Question>);
    const to = (section: string, test?: string) => ({ ...(test ? { if: test } : {}), to: { section } });
    const made = (skips: object[], ...sections: (readonly [id: string, rest?: object, items?: Item[]])[]) =>
      questionnaire([
        section('s', [kinds(...skips)]),
        ...sections.map(([id, rest, items], n) => section(id, items ?? [ask(`q${n}`)], rest)),
      ]);
    const falls = (document: Questionnaire) => places('falls-through', document);
    const both = [to('p', 'kind = 1'), to('q', 'kind = 2')];
    // Two and three branches that rejoin.
    assert.deepEqual(falls(made(both, ['p', { onward: { section: 'r' } }], ['q'], ['r'], ['z'])), []);
    const three = [...both, to('r', 'kind = 3')];
    const gated = made(three, ['p'], ['q', { askIf: 'kind = 2' }], ['r'], ['z']);
    assert.deepEqual(falls(gated), []);
    assert.deepEqual(falls(made(three, ['p', { onward: { section: 'r' } }], ['q'], ['r'], ['z'])), []);
    // A skip ahead over one section, and over two for others.
    assert.deepEqual(falls(made([to('q', 'kind = 2')], ['p'], ['q'], ['r'])), []);
    assert.deepEqual(falls(made([to('q', 'kind = 2'), to('r', 'kind = 3')], ['p'], ['q'], ['r'], ['z'])), []);
    // Branches whose last one is the trunk.
    assert.deepEqual(falls(made(both, ['p'], ['q'])), []);
    // Nested branches that meet in the outer one's trunk.
    const inner = ask('more', 2, { ...must, skips: [to('p1', 'more = 1'), to('p2', 'more = 2')] });
    const nested = (rest: object) =>
      made(
        both,
        ['p', {}, [inner]],
        ['p1', { onward: { section: 'z' } }],
        ['p2', rest],
        ['q'],
        ['z'],
        ['end'],
      );
    assert.deepEqual(falls(nested({ onward: { section: 'z' } })), []);
    // True ones: into the sibling, from the inner branch, and one after the other.
    assert.deepEqual(falls(made(both, ['p'], ['q'], ['r'])), [{ section: 'p' }]);
    assert.deepEqual(falls(nested({})), [{ section: 'p' }]);
    assert.deepEqual(falls(made(three, ['p'], ['q'], ['r'], ['z'])), [{ section: 'p' }, { section: 'q' }]);
    // The mends lead past all siblings, from where people run on, and nobody else loses a question.
    for (const document of [nested({}), made(three, ['p'], ['q'], ['r'], ['z'])]) {
      let mended = document;
      for (;;) {
        const [mend] = snagsIn(mended).flatMap(({ rule, mends }) =>
          rule === 'falls-through' ? (mends ?? []) : [],
        );
        if (mend === undefined) break;
        mended = applyAll(mended, mend.patches);
      }
      assert.deepEqual(falls(mended), []);
      const last = analyse(planFor(mended));
      assert.equal(
        last.items.get('q4') ?? last.items.get('q3'),
        last.routes,
        'everybody gets the common questions',
      );
    }
  });

  it('outside-range, text-compared: what a condition compares with', () => {
    const compared = (askIf: string) =>
      study([ask('n', number(0, 9)), ask('t', { type: 'text' }), ask('x', 2, { askIf })]);
    assert.deepEqual(places('outside-range', compared('n > 9')), []);
    assert.deepEqual(places('outside-range', compared('n > 10')), [{ item: 'x' }]);
    const dated = (min: string | undefined, max: string | undefined, askIf: string) => {
      const limits = { ...(min === undefined ? {} : { min }), ...(max === undefined ? {} : { max }) };
      const found = snagsIn(study([ask('d', { type: 'date', ...limits }), ask('x', 2, { askIf })]));
      return found.flatMap(({ rule, message }) =>
        rule === 'outside-range' ? [/its answers run (.*):/.exec(message)?.[1]] : [],
      );
    };
    for (const [min, max, askIf, told] of [
      ['2024-01-01', '2024-12-31', 'd > 2025-01-01', ['from 2024-01-01 to 2024-12-31']],
      ['2024-01-01', '2024-12-31', 'd < 2023-12-31', ['from 2024-01-01 to 2024-12-31']],
      ['2024-01-01', undefined, 'd < 2023-12-31', ['from 2024-01-01']],
      [undefined, '2024-12-31', 'd > 2025-01-01', ['to 2024-12-31']],
      ['2024-01-01', '2024-12-31', 'd = 2024-12-31', []],
      ['2024-01-01', '2024-12-31', 'd = 2024-01-01', []],
      [undefined, undefined, 'd > 2025-01-01', []],
    ] as const)
      assert.deepEqual(dated(min, max, askIf), told, askIf);
    assert.deepEqual(places('text-compared', compared("t = 'yes'")), [{ item: 'x' }]);
    assert.deepEqual(places('text-compared', compared('t answered')), []);
  });

  it('blank-decides: a blank goes the way of an answer', () => {
    const steering = (rest: Partial<Question>) =>
      study([ask('q', 2, { skips: [{ if: 'q = 2', to: out }], ...rest })]);
    assert.deepEqual(places('blank-decides', steering({})), [{ item: 'q' }]);
    assert.deepEqual(places('blank-decides', steering(must)), []);
    assert.deepEqual(
      places('blank-decides', steering({ skips: [{ if: 'q = 2 or q unanswered', to: out }] })),
      [],
    );
  });

  it('negation-includes-unasked, may-be-unasked: what some were never asked', () => {
    const later = (item: Question, rest: Partial<Questionnaire> = {}) =>
      study(
        [
          ask('q', 2, must),
          ask('n', number(0, 9), { ...must, askIf: 'q = 1' }),
          ask('m', number(0, 9), must),
          item,
        ],
        rest,
      );
    assert.deepEqual(places('negation-includes-unasked', later(ask('x', 2, { askIf: 'not (n = 3)' }))), [
      { item: 'x' },
    ]);
    assert.deepEqual(places('negation-includes-unasked', later(ask('x', 2, { askIf: 'n <> 3' }))), []);
    // The mend asks for having been asked, of the whole of what stands there.
    for (const [askIf, mended] of [
      ['not (n = 3)', 'not (n = 3) and n asked'],
      ['not (n = 3) or m > 8', '(not (n = 3) or m > 8) and n asked'],
    ] as const) {
      const found = snagsIn(later(ask('x', 2, { askIf }))).find(
        ({ rule }) => rule === 'negation-includes-unasked',
      );
      assert.ok(
        found?.mends?.some(({ label }) => label.includes(`“${mended}”`)),
        JSON.stringify(found?.mends?.map(({ label }) => label)),
      );
    }
    assert.deepEqual(places('may-be-unasked', later(ask('x', 2, { text: 'You said {n}?' }))), [
      { item: 'x' },
    ]);
    assert.deepEqual(places('may-be-unasked', later(ask('x', 2, { text: 'You said {m}?' }))), []);
    assert.deepEqual(places('may-be-unasked', later(ask('x', 2, { askIf: 'n + m > 9' }))), [{ item: 'x' }]);
    assert.deepEqual(places('may-be-unasked', later(ask('x', 2, { askIf: 'n > 4' }))), []);
    const derived = [{ name: 'sum', label: 'Sum', value: 'n + m' }];
    assert.deepEqual(places('may-be-unasked', later(ask('x'), { derived })), [{ derived: 'sum' }]);
  });

  it('picks-contradict: none of these, or picks that lead two ways', () => {
    const walks = (label: string, exclusive: object, skips: Question['skips']) =>
      study([
        ask(
          'walks',
          {
            type: 'multiple',
            options: [
              { code: 1, label: 'Dog' },
              { code: 2, label, ...exclusive },
            ],
          },
          { ...must, skips },
        ),
        ask('x'),
      ]);
    const one = [{ if: 'walks has 2', to: out }];
    assert.deepEqual(places('picks-contradict', walks('None of these', {}, one)), [
      { item: 'walks', option: 2 },
    ]);
    assert.deepEqual(places('picks-contradict', walks('None of these', { exclusive: true }, one)), []);
    const two = [...one, { if: 'walks has 1', to: { section: 'z' } }];
    assert.deepEqual(places('picks-contradict', walks('Bus', {}, two)), [{ item: 'walks', skip: 1 }]);
    const overlap = study([
      ask('n', number(0, 9), {
        ...must,
        skips: [
          { if: 'n > 3', to: out },
          { if: 'n > 5 or n = 1', to: { section: 'z' } },
        ],
      }),
    ]);
    const told = [walks('Bus', {}, two), overlap].map((document) =>
      snagsIn(document).flatMap(({ rule, severity }) =>
        /picks-contradict|rules-overlap/.test(rule) ? [`${severity} ${rule}`] : [],
      ),
    );
    assert.deepEqual(told, [['warning picks-contradict'], ['note rules-overlap']]);
  });

  it('consent-not-kept, screening-lets-all: what these sections are for', () => {
    const endings = [
      { id: 'done', kind: 'complete', messages: [{ text: 'Thank you.' }] },
      { id: 'no', kind: 'declined', messages: [{ text: 'Goodbye.' }] },
    ] as const;
    const consent = (rest: Partial<Question>) =>
      study([ask('agree', 2, { ...must, ...rest })], { endings }, 'consent');
    assert.deepEqual(places('consent-not-kept', consent({})), [{ section: 'a' }]);
    const declines = { skips: [{ if: 'agree = 2', to: { ending: 'no' } }] };
    assert.deepEqual(places('consent-not-kept', consent(declines)), []);
    assert.deepEqual(places('consent-not-kept', consent({ ...declines, agrees: [1] })), []);
    assert.deepEqual(
      places(
        'consent-not-kept',
        study([ask('agree', 2, { ...declines, agrees: [1] })], { endings }, 'consent'),
      ),
      [{ item: 'agree' }],
    );
    assert.deepEqual(places('screening-lets-all', study([ask('q')], {}, 'screening')), [{ section: 'a' }]);
    assert.deepEqual(
      places('screening-lets-all', study([skipping('q', {}, 'q = 1', 'q = 2')], {}, 'screening')),
      [],
    );
    assert.deepEqual(places('screening-lets-all', study([say('hello')], {}, 'screening')), []);
  });

  it('consent-not-kept: says what becomes of those who refuse, and mends lead them out', () => {
    const complete = { id: 'done', kind: 'complete', messages: [{ text: 'Thank you.' }] } as const;
    const declined = { id: 'no', kind: 'declined', messages: [{ text: 'Goodbye.' }] } as const;
    const consent = (endings: Questionnaire['endings'], rest: Partial<Question> = {}) =>
      study([ask('agree', 2, { ...must, ...rest })], { endings }, 'consent');
    const found = (document: Questionnaire) =>
      snagsIn(document).find(({ rule }) => rule === 'consent-not-kept');
    assert.match(found(consent([complete]))?.message ?? '', /interviewed all the same/);
    const out = { id: 'out', kind: 'screened_out', messages: [{ text: 'Goodbye.' }] } as const;
    const misled = consent([complete, out], { skips: [{ if: 'agree = 2', to: { ending: 'out' } }] });
    assert.match(found(misled)?.message ?? '', /ends at “out”/);
    const late = consent([complete, declined], { skips: [{ if: 'agree = 2', to: { item: 'q9' } }] });
    const asked = {
      ...late,
      sections: late.sections.map((each) =>
        each.id === 'z' ? { ...each, onward: [{ if: 'agree = 2', to: { ending: 'no' } }] } : each,
      ),
    };
    assert.match(found(asked)?.message ?? '', /asked more before/);

    for (const endings of [[complete], [complete, declined]]) {
      const document = consent(endings);
      // The ending that waits for the mend is never offered for deletion.
      for (const { mends, rule } of snagsIn(document))
        if (rule === 'ending-unreached') assert.deepEqual(mends ?? [], []);
      const [mend] = found(document)?.mends ?? [];
      assert.ok(mend);
      assert.deepEqual(places('consent-not-kept', applyAll(document, mend.patches)), []);
    }
  });

  it('message-shadowed: a message after one that always holds is moved up, or goes', () => {
    const told = (...messages: readonly { if?: string; text: string }[]) =>
      study([ask('q', 2, must)], { endings: [{ id: 'done', kind: 'complete', messages }] });
    const shadowed = told({ text: 'Thanks.' }, { if: 'q = 2', text: 'Many thanks.' });
    const [snag] = snagsIn(shadowed).filter(({ rule }) => rule === 'message-shadowed');
    assert.deepEqual([snag?.at, snag?.field], [{ ending: 'done' }, 'messages[1].text']);
    const [mend] = snag?.mends ?? [];
    assert.ok(mend);
    const after = applyAll(shadowed, mend.patches);
    assert.deepEqual(
      after.endings[0]?.messages.map(({ text }) => text),
      ['Many thanks.', 'Thanks.'],
    );
    assert.deepEqual(places('message-shadowed', after), []);
    assert.deepEqual(places('message-shadowed', told({ if: 'q = 2', text: 'A' }, { text: 'B' })), []);
    const twice = told({ if: 'q = 1', text: 'A' }, { if: 'q = 2', text: 'B' }, { text: 'C' });
    assert.match(
      snagsIn(twice).find(({ rule }) => rule === 'message-shadowed')?.mends?.[0]?.label ?? '',
      /Delete message 3/,
    );
  });

  it('closing-not-last: what is asked after people have taken their leave is moved before', () => {
    const kinds = (...list: readonly ('topic' | 'closing' | 'background')[]) =>
      questionnaire(list.map((kind, n) => section(`s${n}`, [ask(`q${n}`, 2, { label: 'Q' })], { kind })));
    const late = kinds('topic', 'closing', 'background');
    const [snag] = snagsIn(late).filter(({ rule }) => rule === 'closing-not-last');
    assert.deepEqual(snag?.at, { section: 's2' });
    const after = applyAll(late, snag?.mends?.[0]?.patches ?? []);
    assert.deepEqual(
      after.sections.map(({ id }) => id),
      ['s0', 's2', 's1'],
    );
    assert.deepEqual(places('closing-not-last', after), []);
    assert.deepEqual(places('closing-not-last', kinds('topic', 'closing', 'closing')), []);
    assert.deepEqual(places('closing-not-last', kinds('topic', 'background')), []);
  });

  it('a check that fails costs its own findings alone, and says so', () => {
    const snags = eachByItself(
      {
        broken: () => {
          throw new RangeError('no such place');
        },
        sound: () => [{ rule: 'stuck', severity: 'error', at: {}, message: 'found' }],
      },
      null,
    );
    assert.match(snags[0]?.message ?? '', /no such place/);
    assert.equal(snags[1]?.message, 'found');
    // The log has what it failed with, and nobody else.
    const logged: string[] = [];
    const told = withoutFaults(snags, (fault) => logged.push(fault.message));
    assert.deepEqual(logged, ['no such place']);
    assert.ok(told.every((snag) => !('fault' in snag)));
  });

  it('code-collides: a missing code that could be an answer', () => {
    assert.deepEqual(places('code-collides', study([ask('n', number(-5, 5))]))[0], { item: 'n' });
    assert.deepEqual(places('code-collides', study([ask('n', number(0, 5))])), []);
    const specials = [{ code: 4, label: 'Not sure', missing: 'dont_know' }] as const;
    assert.deepEqual(places('code-collides', study([ask('n', { ...number(0, 5), specials })])), [
      { item: 'n', option: 4 },
    ]);
    const derived = [{ name: 'less', label: 'Less', value: 'n - 5' }];
    assert.deepEqual(places('code-collides', study([ask('n', number(0, 5))], { derived })), [
      { derived: 'less' },
    ]);
    const picks = ask('picks', {
      type: 'multiple',
      options: [1, 2, 3].map((code) => ({ code, label: `${code}` })),
    });
    const coded = ask('coded', {
      type: 'single',
      options: [
        { code: 2, label: 'Two' },
        { code: 5, label: 'Five' },
        { code: 98, label: 'No idea', missing: 'dont_know' },
      ],
    });
    const kin = section('kin', [ask('age', number(0, 9))], { repeat: { times: 'n', max: 2 } });
    // What it can come to, at the ends: the codes of the plan are -1 to -4.
    for (const [value, collides] of [
      ['n + 0', false],
      ['n * 2 - 11', true],
      ['n * 2 - 15', false],
      ['0 - n - 4', true],
      ['0 - n - 5', false],
      ['n * n * (0 - 1)', true],
      ['(0 - n) * (0 - n)', false],
      ['count(picks) - 1', true],
      ['count(picks) - 8', false],
      ['coded - 3', true],
      ['coded - 2', false],
      ['coded - 10', false],
      ['count(age > 3) - 6', true],
      ['count(age > 3) - 7', false],
      ['count(age > 3)', false],
    ] as const) {
      const of = questionnaire([section('a', [ask('n', number(0, 5)), picks, coded]), kin], {
        derived: [{ name: 'made', label: 'Made', value }],
      });
      assert.deepEqual(places('code-collides', of), collides ? [{ derived: 'made' }] : [], value);
    }
    // One that has a problem of its own comes to nothing.
    const broken = [{ name: 'less', label: 'Less', value: 'gone - 5' }];
    assert.deepEqual(places('code-collides', study([ask('n', number(0, 5))], { derived: broken })), []);
  });

  it('duplicate-name: two things called the same, in whatever spelling, or two columns', () => {
    const list = { type: 'multiple', options: [{ code: 1, label: 'Gas' }] } as const;
    const grid = {
      type: 'grid',
      rows: [{ name: 'One', label: 'A' }],
      options: [{ code: 1, label: 'Yes' }],
    } as const;
    const given = [{ name: 'one', label: 'One', answer: number(0, 1) }];
    const derived = [{ name: 'ONE', label: 'One', value: '1' }];
    const cases: readonly (readonly [Questionnaire, readonly object[]])[] = [
      [study([ask('one'), ask('two')]), []],
      [study([ask('one'), ask('one')]), [{ item: 'one' }]],
      [study([ask('one'), say('One')]), [{ item: 'One' }]],
      [study([ask('one'), ask('g', grid)]), [{ item: 'g', row: 'One' }]],
      [study([ask('one')], { given }), [{ item: 'one' }]],
      [study([ask('one')], { derived }), [{ derived: 'ONE' }]],
      // The first code of a multiple makes the column fuel_1.
      [study([ask('fuel', list), ask('fuel_1')]), [{ item: 'fuel' }]],
      [study([ask('fuel', list), ask('fuel_2')]), []],
    ];
    for (const [document, found] of cases) assert.deepEqual(places('duplicate-name', document), found);
  });

  it('code-repeated: two answers of one list that could not be told apart', () => {
    const twice = [1, 2, 1].map((code, n) => ({ code, label: `Answer ${n}` }));
    const list = { type: 'single', options: twice } as const;
    assert.deepEqual(places('code-repeated', study([ask('one', list)])), [{ item: 'one', option: 1 }]);
    const given = [{ name: 'region', label: 'Region', answer: list }];
    assert.deepEqual(places('code-repeated', study([ask('one', 2)], { given })), [
      { given: 'region', option: 1 },
    ]);
    const grid = { type: 'grid', rows: [{ name: 'r1', label: 'A' }], options: twice } as const;
    assert.deepEqual(places('code-repeated', study([ask('g', grid)])), [{ item: 'g', option: 1 }]);
  });

  it('stuck: no answer that is allowed gets somebody past', () => {
    const never = [{ if: 'q = 1', kind: 'hard', message: 'No.' }] as const;
    assert.deepEqual(places('stuck', study([ask('q', 2, must), ask('x', 2, { checks: never })])), [
      { item: 'x' },
    ]);
    assert.deepEqual(
      places('stuck', study([ask('q', 2, must), ask('x', 2, { checks: [{ ...never[0], if: 'x = 1' }] })])),
      [],
    );
  });

  it('no-message: an ending with nothing to say to somebody', () => {
    const ending = (...messages: { if?: string; text: string }[]) => ({
      endings: [{ id: 'done', kind: 'complete' as const, messages }],
    });
    assert.deepEqual(places('no-message', study([ask('q', 2)], ending({ if: 'q = 1', text: 'Yes' }))), [
      { ending: 'done' },
    ]);
    assert.deepEqual(
      places('no-message', study([ask('q', 2)], ending({ if: 'q = 1', text: 'Yes' }, { text: 'All' }))),
      [],
    );
  });

  it('passes-cut: more passes asked for than run', () => {
    const repeated = (most: number) =>
      questionnaire([
        section('a', [ask('n', number(0, most), must)]),
        section('b', [ask('x')], { repeat: { times: 'n', max: 3 } }),
      ]);
    assert.deepEqual(places('passes-cut', repeated(4)), [{ section: 'b' }]);
    assert.deepEqual(places('passes-cut', repeated(3)), []);
    // Picks of an answer, and a value known beforehand, ask for passes as well.
    const options = [1, 2, 3].map((code) => ({ code, label: `Answer ${code}` }));
    const each = (max: number) =>
      questionnaire([
        section('a', [ask('p', { type: 'multiple', options }, must)]),
        section('b', [ask('x')], { repeat: { each: 'p', max } }),
      ]);
    const given = [{ name: 'n', label: 'N', answer: number(0, 5) }];
    const known = questionnaire([section('b', [ask('x')], { repeat: { times: 'n', max: 3 } })], { given });
    for (const [cut, most] of [
      [repeated(4), 4],
      [each(2), 3],
      [known, 5],
    ] as const) {
      const found = snagsIn(cut).find(({ rule }) => rule === 'passes-cut');
      const mend = found?.mends?.[0];
      assert.equal(mend?.label, `Allow ${most} passes`);
      assert.deepEqual(places('passes-cut', applyAll(cut, mend?.patches ?? [])), []);
    }
    assert.deepEqual(places('passes-cut', each(3)), []);
  });

  it('too-long: routes over the limit of minutes, with the share that takes them', () => {
    const slow = (maxMinutes: number) =>
      questionnaire(
        [
          section('a', [
            ask('more', 2, { ...must, assume: { shares: { '1': 0.25 } } }),
            ask('essay', { type: 'text' }, { askIf: 'more = 1', seconds: 600 }),
          ]),
        ],
        { settings: { maxMinutes } },
      );
    const found = snagsIn(slow(5)).find(({ rule }) => rule === 'too-long');
    assert.deepEqual([found?.at, found?.witness?.items], [{ ending: 'done' }, ['more', 'essay']]);
    assert.match(
      found?.message ?? '',
      /up to 11 minutes, over the limit of 5: .*about 2\d in 100 respondents/,
    );
    assert.deepEqual(places('too-long', slow(11)), []);
  });

  it('unlabelled, no-way-out: what the codebook and the respondent would miss', () => {
    assert.deepEqual(
      places(
        'unlabelled',
        study([ask('q', { type: 'scale', min: 1, max: 5, lowLabel: 'Low' }, { label: 'Q' })]),
      ),
      [{ item: 'q' }, { item: 'q9' }],
    );
    assert.deepEqual(places('no-way-out', study([ask('q', 2, { ...must, sensitive: true })])), [
      { item: 'q' },
    ]);
    assert.deepEqual(places('no-way-out', study([ask('q', 2, { sensitive: true })])), []);
  });
});

describe('a snag of the unfinished demo', () => {
  it('is walked by its witness, and each mend takes it away', async () => {
    const { readFileSync } = await import('node:fs');
    const read = readDocument(
      JSON.parse(
        readFileSync(new URL('../../../demo/street-lighting-doorstep.fork.json', import.meta.url), 'utf8'),
      ),
    );
    assert.ok(read.ok);
    const plan = planOf(read.document);
    let mended = 0;
    for (const { rule, at, witness, mends } of allSnagsOf(plan, analyse(plan))) {
      if (witness !== undefined) {
        assert.equal(
          trail(plan, walked(plan, witness)),
          `${witness.items.join(' ')} > ${witness.ending}`,
          rule,
        );
      }
      for (const { label, patches } of mends ?? []) {
        const after = readDocument(applyAll(read.document, patches));
        assert.ok(after.ok, label);
        const next = planOf(after.document);
        const left = allSnagsOf(next, analyse(next));
        assert.ok(
          !left.some((snag) => snag.rule === rule && JSON.stringify(snag.at) === JSON.stringify(at)),
          label,
        );
        mended += 1;
      }
    }
    assert.equal(mended, 9);
  });
});

describe('what is too entangled to be followed', () => {
  it('is said with the place from which on, and the rest is checked all the same', () => {
    const options = (when: (code: number) => object) =>
      Array.from({ length: 24 }, (_, n) => ({ code: n + 1, label: `Option ${n + 1}`, ...when(n + 1) }));
    const document = questionnaire([
      section('a', [
        ask('seen', { type: 'multiple', options: options(() => ({})) }, must),
        ask('liked', { type: 'multiple', options: options((code) => ({ askIf: `seen has ${code}` })) }, must),
        ask('best', { type: 'single', options: options((code) => ({ askIf: `liked has ${code}` })) }, must),
      ]),
      section('b', [ask('why', 2, { askIf: 'best = 99' })]),
    ]);
    const stopped = snagsIn(document).filter(({ rule }) => rule === 'not-exact');
    assert.deepEqual(
      stopped.map(({ at }) => at),
      [{ item: 'liked' }],
    );
    assert.match(stopped[0]?.message ?? '', /^From here on/);
    assert.deepEqual(places('unknown-code', document), [{ item: 'why' }]);
  });
});
