/** What can be wrong with a condition where it stands: names, kinds, codes, order, passes; each with its words underlined. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import type { Questionnaire } from '../document/types';
import { planOf } from '../routing/planner';
import { parseCondition } from './parse';
import { conditionProblems } from './resolve';
import type { Scope } from './scope';

const option = (code: number, rest: object = {}) => ({ code, label: `Answer ${code}`, ...rest });
const options = [option(1), option(2), option(98, { missing: 'dont_know' })];
const DOCUMENT = questionnaire(
  [
    section('a', [
      ask('own', { type: 'single', options }),
      ask('age', {
        type: 'number',
        min: 0,
        max: 99,
        specials: [option(998, { missing: 'refused' })] as never,
      }),
      ask('fuels', { type: 'multiple', options: options.slice(0, 2) }),
      ask('best', { type: 'rank', options: options.slice(0, 2) }),
      ask('name', { type: 'text' }),
      ask('born', { type: 'date' }),
      ask('views', { type: 'grid', rows: [{ name: 'heat', label: 'Heat' }], options: options.slice(0, 2) }),
    ]),
    section('kin', [ask('kin_age', { type: 'number', min: 0, max: 99 }), ask('kin_job')], {
      repeat: { times: 'age', max: 3 },
    }),
    section('heated', [ask('costs')], { repeat: { each: 'fuels', max: 2 } }),
    section('mixed', [ask('red'), ask('blue')], { shuffle: true }),
    section('last', [ask('end'), ask('after')]),
  ],
  {
    given: [{ name: 'region', label: 'Region', answer: { type: 'single', options: [option(1), option(2)] } }],
    derived: [
      { name: 'rich', label: 'Rich', value: 'age * 2' },
      { name: 'late', label: 'Late', value: 'end + 1' },
      { name: 'kids', label: 'Kids', value: 'count(kin_age < 18)' },
    ],
  },
);
const plan = planFor(DOCUMENT);

/** `rule: words underlined: message` of each problem; the place is before an item of a section. */
function problems(
  source: string,
  at: readonly [section: number, item: number] = [4, 0],
  more: Partial<Scope> = {},
): string[] {
  const parsed = parseCondition(source);
  assert.ok(parsed.ok, source);
  const found = conditionProblems(parsed.tree, {
    document: DOCUMENT,
    variables: plan.variables,
    before: { section: at[0], item: at[1] },
    openPass: at[0] === 1 || at[0] === 2 ? at[0] : null,
    inputsOf: (index) => plan.derived[index]?.inputs ?? [],
    ...more,
  });
  return found.map(({ rule, span, message }) => `${rule}: ${source.slice(span.from, span.to)}: ${message}`);
}
const one = (...of: Parameters<typeof problems>) => {
  const found = problems(...of);
  assert.ok(found.length <= 1, found.join('\n'));
  return found[0] ?? '';
};

describe('a condition that can be trusted', () => {
  it('tests everything by what it holds, and missing answers by their codes', () => {
    for (const source of [
      'own = 1 and own <> 98 and 98 = own and age = 998 and age < 3',
      'own in (1, 98) and age in (1..3, 998) and born in (2020-01-01..2021-01-01)',
      'fuels has 1 and best has any (1, 2) and count(fuels) > 1 and count(best) = 2',
      "name = 'x' and name in ('x', 'y') and born >= 2020-02-29 and heat = 2",
      'views answered and heat asked and not (name answered)',
      'count(kin_age < 18 and kin_job = 1) > 0 and rich > 3 and kids + rich * 2 < age - 1',
      'red = 1 or region = 2 or always',
    ])
      assert.deepEqual(problems(source), [], source);
    assert.deepEqual(problems('kin_age > 3 and pass = 2 and own = 1', [1, 1]), []);
    assert.deepEqual(problems('each = 2 and 1 = each', [2, 0]), []);
    assert.deepEqual(problems('count(kin_age > 3) > 0', [2, 0]), []);
  });
});

describe('a condition is underlined', () => {
  it('where kinds do not go together', () => {
    for (const [source, at, says] of [
      ["own = 'x'", "own = 'x'", /a number cannot be compared with a text/],
      ['name < 3', 'name < 3', /a text cannot be compared with a number/],
      ['born = 12:00', 'born = 12:00', /a date cannot be compared with a time/],
      ['fuels = 1', 'fuels', /“fuels” holds several picks: test it with has or count/],
      ['1 < best', 'best', /“best” holds several picks/],
      ['views = 1', 'views', /“views” is a grid: test one of its rows/],
      ['views in (1)', 'views', /“views” is a grid/],
      ['own in (2020-01-01)', '2020-01-01', /“own” is a number, not a date/],
      ["name in ('a'..'b')", "'a'..'b'", /a range runs over numbers, dates or times, not texts/],
      ['own has 1', 'own', /holds one answer, so it "has" none: write own = …/],
      ["fuels has 'x'", "'x'", /the picks of “fuels” are codes, not a text/],
      ['rich asked', 'rich asked', /“rich” is derived, so it is never asked/],
      ['count(own) = 1', 'count(own)', /“own” is not answered by picking several/],
      ['name + 1 = 2', 'name', /\+ is for numbers, not for a text/],
      ['1 - fuels = 2', 'fuels', /- is for numbers, not for a set of picks/],
    ] as const) {
      const found = one(source);
      assert.ok(found.startsWith(`type-mismatch: ${at}: `), `${source}: ${found}`);
      assert.match(found, says);
    }
    // Both ends of a range.
    assert.deepEqual(problems('age in (2020-01-01..2021-01-01)').length, 2);
    // Within a calculation nothing is told twice.
    assert.equal(problems('name + 1 + 2 = 2').length, 1);
  });

  it('where a code is unknown, with the codes there are', () => {
    for (const source of [
      'own = 3',
      '3 = own',
      'own in (1, 3)',
      'fuels has any (1, 3)',
      'region <> 3',
      'heat = 3',
    ]) {
      const found = one(source);
      assert.ok(found.startsWith('unknown-code: 3: '), `${source}: ${found}`);
      assert.match(found, /has no code 3: its codes are 1, 2(, 98)?$/);
    }
    assert.equal(one('own > 3'), '');
    assert.match(one('each = 3', [2, 0]), /^unknown-code: 3: “fuels” has no code 3/);
  });

  it('where a name is unknown, with the nearest that would fit there', () => {
    for (const [source, hint] of [
      ['ownn = 1', /did you mean “own”\?$/],
      ['fules has 1', /did you mean “fuels”\?$/],
      // Nearer is “own”, which has no such code.
      ['own_ = 1 and owm = 1', /did you mean “own”\?$/],
      ['zzzzzz = 1', /nothing is named “zzzzzz”$/],
      // “name” is nearer still, and holds a text.
      ['nane = 3', /did you mean “age”\?$/],
    ] as const)
      for (const found of problems(source)) assert.match(found, hint);
  });

  it('where it speaks of what comes later, or may', () => {
    assert.match(one('end = 1'), /^refers-forward: end: “end” comes later than this place/);
    assert.equal(one('end = 1', [4, 1]), '');
    assert.match(one('late = 1', [4, 0]), /“late” is worked out from “end”, which comes later$/);
    assert.equal(one('late = 1', [4, 1]), '');
    assert.match(one('kids = 1', [1, 1]), /“kids” is worked out from “kin_age”, which comes later$/);
    assert.equal(one('kids = 1', [2, 0]), '');
    assert.match(
      one('kids > rich', [4, 0], { derivedBefore: 2 }),
      /^refers-forward: kids: “kids” is derived later/,
    );
    assert.equal(one('late > rich', [4, 1], { derivedBefore: 2 }), '');
    const onlySibling = { section: 3, item: 0 };
    assert.equal(one('red = 1', [3, 9], { onlySibling }), '');
    assert.match(
      one('blue = 1', [3, 9], { onlySibling }),
      /stands in the same shuffled section, so it may come later/,
    );
    assert.equal(one('own = 1', [3, 9], { onlySibling }), '');
  });

  it('where passes are mixed up', () => {
    assert.match(
      one('kin_age = 1'),
      /^repeated-outside: kin_age: “kin_age” is answered up to 3 times: .* count\(kin_age answered\) > 0$/,
    );
    assert.match(one('kin_age = 1', [2, 0]), /^repeated-outside: /);
    for (const [source, at, says] of [
      [
        'count(kin_age > 1 and count(kin_job = 1) > 0) > 0',
        [4, 0],
        /^bad-condition: count\(kin_job = 1\): a count stands inside another/,
      ],
      [
        'count(own = 1) > 0',
        [4, 0],
        /^bad-condition: count\(own = 1\): .*needs a test of a question in a repeated section/,
      ],
      [
        'count(kin_age > 1 and costs = 1) > 0',
        [4, 0],
        /^bad-condition: costs: one count goes over one repeated section/,
      ],
      [
        'count(kin_age > 1) > 0',
        [1, 1],
        /^bad-condition: kin_age: passes are counted from outside their section/,
      ],
      ['count(kin_age > 1) > 0', [1, 0], /^bad-condition: kin_age: passes are counted from outside/],
      ['count(kin_age > 1) > 0', [0, 5], /^refers-forward: kin_age: /],
      ['pass = 1', [4, 0], /^bad-condition: pass: “pass” has a meaning inside a repeated section only/],
      ['each = 1', [4, 0], /^bad-condition: each: “each” has a meaning inside a repeated section only/],
      [
        'each = 1',
        [1, 0],
        /^bad-condition: each: "each" has a meaning only where the section repeats for each/,
      ],
    ] as const)
      assert.match(one(source, at), says, source);
    assert.equal(one('count(kin_age > pass) > 0'), '');
    // What is wrong within a count is told there alone.
    assert.deepEqual(problems("count(kin_age = 'x') > 0"), [
      "type-mismatch: kin_age = 'x': a number cannot be compared with a text",
    ]);
  });
});

it('a derived value is a number, of numbers', () => {
  const found = (value: string) => {
    const document: Questionnaire = { ...DOCUMENT, derived: [{ name: 'made', label: 'Made', value }] };
    return planOf(document).problems.map(({ rule, message }) => `${rule}: ${message}`);
  };
  assert.deepEqual(found('age + count(fuels)'), []);
  assert.deepEqual(found('name'), ['type-mismatch: a derived value is a number, not a text']);
  assert.deepEqual(found('name + 1'), ['type-mismatch: + is for numbers, not for a text']);
  assert.deepEqual(found('born'), ['type-mismatch: a derived value is a number, not a date']);
});
