/** The condition language: reading, printing, meaning. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { Value } from '../document/types';
import { holds, UNASKED, type Environment, type Reading } from './evaluate';
import { parseCondition, parseExpression } from './parse';
import { printCondition, printOperand } from './print';
import type { Condition, Literal, NameNode, Operand } from './syntax';

const at = { from: 0, to: 0 };

function tree(source: string): Condition {
  const parsed = parseCondition(source);
  assert.ok(parsed.ok, `${source}: ${parsed.ok ? '' : parsed.problem.message}`);
  return parsed.tree;
}

function withoutSpans(node: unknown): unknown {
  return JSON.parse(JSON.stringify(node, (key, value: unknown) => (key === 'span' ? undefined : value)));
}

describe('parsing', () => {
  const broken: readonly (readonly [source: string, from: number, to: number, says: RegExp])[] = [
    ['', 0, 0, /missing at the end/],
    ['tenure', 6, 6, /something is missing at the end.*after "tenure"/],
    ['tenure = ', 9, 9, /a value is missing/],
    ['tenure == 1', 8, 9, /a value is needed here, not "="/],
    ['tenure = 1 and', 14, 14, /a value is missing/],
    ['tenure = 1 tenure = 2', 11, 17, /join tests with and, or/],
    ['(tenure = 1', 11, 11, /never closed/],
    ['tenure in 1', 10, 11, /list in brackets/],
    ['tenure in (1, )', 14, 15, /a value is needed/],
    ['tenure not has 1', 11, 14, /comes in \(…\) or asked/],
    ["name = 'open", 7, 12, /no closing quote/],
    ['name = "x"', 7, 8, /single quotes/],
    ['tenure != 1', 7, 8, /write <>/],
    ['born = 2023-02-30', 7, 17, /not a real date/],
    ['1 in (2)', 2, 4, /compare with/],
    ['and = 1', 0, 3, /word of the condition language/],
    ['age , 3', 4, 5, /"," is not expected here: after "age" comes =, .* answered or asked$/],
    ['age 3', 4, 5, /"3" is not expected here: after "age" comes/],
    ['3 4', 2, 3, /"4" is not expected here: compare with/],
    ['age in (1 2)', 10, 11, /never closed: add \) or a comma/],
    ['age in (1..)', 11, 12, /a value is needed here, not "\)"/],
    ['fuels has any 1', 14, 15, /a list in brackets is needed here/],
    ['fuels has any ()', 15, 16, /a value is needed here/],
    ['count(age', 9, 9, /missing at the end: after "age" comes/],
    ['count(age) ', 11, 11, /missing at the end: compare with/],
    ['age - = 3', 6, 7, /a value is needed here, not "="/],
    ['not', 3, 3, /a value is missing at the end/],
    ['age = 1.5.2', 9, 10, /"\." has no meaning here/],
    ['age = 1..2', 7, 9, /"\.\." is not expected here: join tests/],
    ['age answered own', 13, 16, /"own" is not expected here: join tests/],
    ['age = 1)', 7, 8, /"\)" is not expected here/],
    ['1 = age asked', 8, 13, /"asked" is not expected here/],
    ['age = 25:00', 6, 11, /"25:00" is not a real time/],
    ['age = 2020-01-01T25:00', 6, 22, /"2020-01-01T25:00" is not a real datetime/],
    ['(age = 1) = 2', 10, 11, /"=" is not expected here/],
    ['age not 3', 8, 9, /after "age not" comes in \(…\) or asked/],
    ['pass', 4, 4, /missing at the end: compare with/],
    ['age = own = 2', 10, 11, /join tests with and, or/],
    ['age & own', 4, 5, /"&" has no meaning here: write and/],
    ['age ≥ 3', 4, 5, /"≥" has no meaning here: write >=/],
    ['name = ‘x’', 7, 8, /straight single quotes/],
    ["name = 'it''s", 7, 13, /no closing quote/],
    ['age = \u{1F525}', 6, 8, /has no meaning here$/],
  ];
  for (const [source, from, to, says] of broken) {
    it(`points at what is wrong in ${JSON.stringify(source)}`, () => {
      const parsed = parseCondition(source);
      assert.ok(!parsed.ok);
      assert.match(parsed.problem.message, says);
      assert.deepEqual(parsed.problem.span, { from, to });
    });
  }

  it('binds and tighter than or, * tighter than +', () => {
    assert.equal(printCondition(tree('a = 1 or b = 2 and c = 3')), 'a = 1 or b = 2 and c = 3');
    assert.equal(tree('a = 1 or b = 2 and c = 3').kind, 'or');
    const sum = tree('a + 2 * b = 7');
    assert.ok(sum.kind === 'compare' && sum.left.kind === 'arithmetic' && sum.left.operator === '+');
  });

  it('minds neither the case of words nor spaces', () => {
    const expected = withoutSpans(tree('age in (18..64, 98) and not fuels has any (1,2)'));
    assert.deepEqual(withoutSpans(tree('age IN(18 .. 64,98) AND NOT fuels HAS Any(1 , 2)')), expected);
  });

  it('refuses endless nesting instead of overflowing', () => {
    assert.ok(!parseCondition(`${'('.repeat(5000)}a = 1${')'.repeat(5000)}`).ok);
    assert.ok(!parseExpression(`${'('.repeat(5000)}a${')'.repeat(5000)}`).ok);
  });
});

describe('printing', () => {
  const name: fc.Arbitrary<NameNode> = fc
    .constantFrom('tenure', 'Fuel_2', 'x')
    .map((n) => ({ kind: 'name', name: n, span: at }));
  const number: fc.Arbitrary<Literal> = fc
    .oneof(
      fc.integer(),
      fc.integer({ min: 1, max: 1e6 }).map((n) => n / 1000),
    )
    .map((value) => ({ kind: 'number', value: value === 0 ? 0 : value, span: at }));
  const literal: fc.Arbitrary<Literal> = fc.oneof(
    number,
    fc.string().map((value): Literal => ({ kind: 'text', value, span: at })),
    fc.constant<Literal>({ kind: 'date', value: '2024-02-29', span: at }),
    fc.constant<Literal>({ kind: 'time', value: '23:59:01', span: at }),
    fc.constant<Literal>({ kind: 'datetime', value: '2024-02-29T08:30', span: at }),
  );
  const { condition } = fc.letrec<{ condition: Condition; operand: Operand; expression: Operand }>((tie) => ({
    operand: fc.oneof(
      { maxDepth: 2 },
      literal,
      name,
      fc.constant<Operand>({ kind: 'pass', span: at }),
      name.map((n): Operand => ({ kind: 'count', name: n, span: at })),
      // A bare name in count(…) counts picks, so the condition counted over passes is a whole test.
      tie('condition').map((c): Operand => ({ kind: 'count-passes', condition: c, span: at })),
      fc
        .tuple(fc.constantFrom('+' as const, '-' as const), tie('operand'), number)
        .map(([operator, left, right]): Operand => ({ kind: 'arithmetic', operator, left, right, span: at })),
    ),
    expression: fc.oneof(
      { maxDepth: 3 },
      number,
      name,
      fc
        .tuple(
          fc.constantFrom('+' as const, '-' as const, '*' as const),
          tie('expression'),
          tie('expression'),
        )
        .map(([operator, left, right]): Operand => ({ kind: 'arithmetic', operator, left, right, span: at })),
    ),
    condition: fc.oneof(
      { maxDepth: 3 },
      fc.boolean().map((value): Condition => ({ kind: 'constant', value, span: at })),
      fc
        .tuple(fc.constantFrom('=' as const, '<>' as const, '<=' as const), tie('operand'), tie('operand'))
        .map(([operator, left, right]): Condition => ({ kind: 'compare', operator, left, right, span: at })),
      fc
        .tuple(
          name,
          fc.boolean(),
          fc.array(
            fc.oneof(
              literal,
              fc.tuple(number, number).map(([from, to]) => ({ kind: 'range' as const, from, to, span: at })),
            ),
            { minLength: 1, maxLength: 3 },
          ),
        )
        .map(([n, negated, members]): Condition => ({ kind: 'in', name: n, negated, members, span: at })),
      fc
        .tuple(
          name,
          fc.constantFrom('any' as const, 'all' as const, 'none' as const),
          fc.array(number, { minLength: 1, maxLength: 3 }),
        )
        .map(([n, quantifier, values]): Condition => ({
          kind: 'has',
          name: n,
          quantifier,
          values,
          span: at,
        })),
      fc
        .tuple(
          name,
          fc.constantFrom('answered' as const, 'unanswered' as const, 'asked' as const, 'not asked' as const),
        )
        .map(([n, state]): Condition => ({ kind: 'state', name: n, state, span: at })),
      tie('condition').map((part): Condition => ({ kind: 'not', part, span: at })),
      fc
        .tuple(
          fc.constantFrom('and' as const, 'or' as const),
          fc.array(tie('condition'), { minLength: 2, maxLength: 3 }),
        )
        .map(([kind, parts]): Condition => ({ kind, parts, span: at })),
    ),
  })) as { condition: fc.Arbitrary<Condition> };

  it('gives text that parses back to the same tree', () => {
    fc.assert(
      fc.property(condition, (node) => {
        assert.deepEqual(withoutSpans(tree(printCondition(node))), withoutSpans(node));
      }),
      { numRuns: 500 },
    );
  });

  it('keeps the brackets of a derived value', () => {
    const parsed = parseExpression('(a + b) * 2 - (c - 1)');
    assert.ok(parsed.ok);
    assert.equal(printOperand(parsed.tree), '(a + b) * 2 - (c - 1)');
  });
});

describe('meaning', () => {
  const asked = (value: Value | null, missing = false): Reading => ({ presented: true, value, missing });
  const known: Record<string, Reading> = {
    one: asked(1),
    seven: asked(7),
    blank: asked(null),
    dont_know: asked(98, true),
    fuels: asked([1, 3]),
    no_fuels: asked(null),
    fuels_dk: asked([98], true),
    town: asked('Tern'),
    moved: asked('2020-05-01'),
    tenth: asked(0.1),
    fifth: asked(0.2),
  };
  const environment: Environment = {
    read: (name) => known[name] ?? UNASKED,
    pass: 2,
    each: 3,
    passesOver: () => [1, 2, 3].map((value) => ({ ...environment, read: () => asked(value) })),
  };
  const cases: readonly (readonly [source: string, expected: boolean])[] = [
    ['one = 1', true],
    ['ONE = 1', true],
    ['one <> 1', false],
    ['one <> 2', true],
    ['never_asked = 1', false],
    ['never_asked <> 1', false],
    ['never_asked not in (1)', false],
    ['not never_asked = 1', true],
    ['blank <> 1', false],
    ['dont_know = 98', true],
    ['dont_know <> 98', false],
    ['dont_know <> 1', false],
    ['98 = dont_know', true],
    ['dont_know in (1, 98)', true],
    ['dont_know in (90..99)', false],
    ['dont_know not in (1)', false],
    ['dont_know not in (98)', false],
    ['dont_know > 5', false],
    ['dont_know answered', true],
    ['one in (1..3)', true],
    ['seven not in (1..3, 5)', true],
    ['fuels has 3', true],
    ['fuels has any (2, 3)', true],
    ['fuels has all (1, 3)', true],
    ['fuels has all (1, 2)', false],
    ['fuels has none (2)', true],
    ['no_fuels has none (2)', false],
    ['fuels_dk has 98', true],
    ['fuels_dk has none (1)', false],
    ['count(fuels) = 2', true],
    ['count(fuels_dk) >= 0', false],
    ['count(no_fuels) = 0', false],
    ['blank unanswered', true],
    ['never_asked unanswered', false],
    ['never_asked not asked', true],
    ["town = 'Tern'", true],
    ["town = 'tern'", false],
    ['moved < 2020-06-01', true],
    ['one + seven * 2 = 15', true],
    ['tenth + fifth = 0.3', true],
    ['one + blank > 0', false],
    ['pass = 2 and each = 3', true],
    ['count(x >= 2) = 2', true],
    ['always and not never', true],
  ];
  for (const [source, expected] of cases) {
    it(`${source} is ${expected}`, () => assert.equal(holds(tree(source), environment), expected));
  }
});
