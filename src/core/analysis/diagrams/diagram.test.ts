/** Diagrams against truth tables: equal functions are equal numbers, whatever made them. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { Diagrams, FALSE, TRUE, type Diagram } from './diagram';
import { TooManyNodes } from './limits';

const LEVELS = [0, 3, 4, 9, 10];
const TABLE = 2 ** LEVELS.length;

type Formula =
  | { readonly op: 'variable'; readonly at: number }
  | { readonly op: 'not'; readonly a: Formula }
  | { readonly op: 'and' | 'or'; readonly a: Formula; readonly b: Formula };

const formula = fc.letrec<{ tree: Formula }>((tie) => ({
  tree: fc.oneof(
    { depthSize: 'medium' },
    fc.record({ op: fc.constant('variable' as const), at: fc.nat(LEVELS.length - 1) }),
    fc.record({ op: fc.constant('not' as const), a: tie('tree') }),
    fc.record({ op: fc.constantFrom('and' as const, 'or' as const), a: tie('tree'), b: tie('tree') }),
  ),
})).tree;

function build(store: Diagrams, node: Formula): Diagram {
  switch (node.op) {
    case 'variable':
      return store.variable(LEVELS[node.at] as number);
    case 'not':
      return store.not(build(store, node.a));
    default:
      return store[node.op](build(store, node.a), build(store, node.b));
  }
}

/** The truth table as bits: row `r` gives variable n the n-th bit of r. */
function table(node: Formula): number[] {
  return Array.from({ length: TABLE }, (_, row) => evaluate(node, row));
}

function evaluate(node: Formula, row: number): number {
  switch (node.op) {
    case 'variable':
      return (row >> node.at) & 1;
    case 'not':
      return 1 - evaluate(node.a, row);
    case 'and':
      return evaluate(node.a, row) & evaluate(node.b, row);
    case 'or':
      return evaluate(node.a, row) | evaluate(node.b, row);
    default:
      return node satisfies never;
  }
}

function tableOf(store: Diagrams, a: Diagram): number[] {
  return Array.from({ length: TABLE }, (_, row) => {
    let at = a;
    while (at > TRUE) {
      const bit = (row >> LEVELS.indexOf(store.topOf(at))) & 1;
      at = bit === 1 ? store.highOf(at) : store.lowOf(at);
    }
    return at;
  });
}

describe('diagrams', () => {
  it('are what their truth table says, and equal where it is', () => {
    const store = new Diagrams();
    const byTable = new Map<string, Diagram>();
    fc.assert(
      fc.property(formula, (node) => {
        const a = build(store, node);
        const expected = table(node);
        assert.deepEqual(tableOf(store, a), expected);
        const key = expected.join('');
        assert.equal(byTable.get(key) ?? a, a);
        byTable.set(key, a);
      }),
      { numRuns: 500 },
    );
  });

  it('forget variables as "for some value"', () => {
    const store = new Diagrams();
    fc.assert(
      fc.property(formula, fc.nat(TABLE - 1), (node, dead) => {
        const a = build(store, node);
        const rest = store.forget(a, (level) => ((dead >> LEVELS.indexOf(level)) & 1) === 1);
        const before = table(node);
        const after = tableOf(store, rest);
        after.forEach((value, row) => {
          const some = before.some((truth, other) => truth === 1 && (other & ~dead) === (row & ~dead));
          assert.equal(value, some ? 1 : 0);
        });
        assert.ok(store.support(rest).every((level) => ((dead >> LEVELS.indexOf(level)) & 1) === 0));
      }),
      { numRuns: 300 },
    );
  });

  it('count the work of forgetting also where nothing goes, so that it comes to an end', () => {
    const store = new Diagrams(1000, 100);
    const a = store.and(store.variable(1), store.variable(2));
    assert.throws(() => {
      for (let n = 0; n < 100; n += 1) store.forget(a, () => false);
    }, TooManyNodes);
  });

  it('say beforehand where work would take more steps than are left, and count none for it', () => {
    const store = new Diagrams(1000, 100);
    store.foresee(100);
    store.spend(1);
    assert.throws(() => store.foresee(100), TooManyNodes);
    store.foresee(99);
    store.rest();
    store.foresee(100);
  });

  it('keep nothing of variables whose values are put in, and agree with them', () => {
    const store = new Diagrams();
    fc.assert(
      fc.property(formula, fc.nat(TABLE - 1), fc.nat(TABLE - 1), (node, fixed, bits) => {
        const bitOf = (row: number, level: number) => ((row >> LEVELS.indexOf(level)) & 1) === 1;
        const chosen = LEVELS.filter((level) => bitOf(fixed, level));
        const rest = store.restrict(
          build(store, node),
          new Map(chosen.map((level) => [level, bitOf(bits, level)])),
        );
        assert.ok(store.support(rest).every((level) => !chosen.includes(level)));
        const before = table(node);
        tableOf(store, rest).forEach((value, row) =>
          assert.equal(value, before[(row & ~fixed) | (bits & fixed)]),
        );
      }),
      { numRuns: 300 },
    );
  });

  it('give values that make them true', () => {
    const store = new Diagrams();
    fc.assert(
      fc.property(formula, (node) => {
        const a = build(store, node);
        const values = store.satisfy(a);
        if (values === null) assert.equal(a, FALSE);
        else {
          const cube = store.cube(values);
          assert.equal(store.and(cube, store.not(a)), FALSE);
          assert.ok(store.meets(cube, a));
        }
      }),
    );
  });

  it('stop at the number of nodes they are allowed', () => {
    const store = new Diagrams(50);
    assert.throws(() => {
      let parity: Diagram = FALSE;
      for (let level = 0; level < 60; level += 1) {
        const bit = store.variable(level);
        parity = store.choose(bit, store.not(parity), parity);
      }
    }, TooManyNodes);
  });
});
