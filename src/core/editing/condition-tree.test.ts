/** A part of a condition changed: what holds then is what the change says, and the text reads back as the same tree. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { parseCondition } from '../condition/parse';
import { printCondition } from '../condition/print';
import type { Condition } from '../condition/syntax';
import { joinedAt, negatedAt, partAt, regroupedAt, replacedAt, type TreePath } from './condition-tree';

const NAMES = ['a', 'b', 'c', 'd'] as const;

function tree(text: string): Condition {
  const parsed = parseCondition(text);
  assert.ok(parsed.ok, text);
  return parsed.tree;
}

const { node } = fc.letrec<{ node: string; leaf: string }>((tie) => ({
  leaf: fc.constantFrom(...NAMES).map((name) => `${name} = 1`),
  node: fc.oneof(
    { maxDepth: 4 },
    tie('leaf'),
    fc
      .tuple(tie('node'), fc.constantFrom('and', 'or'), tie('node'))
      .map(([l, word, r]) => `(${l}) ${word} (${r})`),
    tie('node').map((part) => `not (${part})`),
  ),
}));

/** Read with every name true or false; the parts in `forced` are what is said. */
function holds(of: Condition, truth: ReadonlySet<string>): boolean {
  switch (of.kind) {
    case 'and':
      return of.parts.every((part) => holds(part, truth));
    case 'or':
      return of.parts.some((part) => holds(part, truth));
    case 'not':
      return !holds(of.part, truth);
    case 'compare':
      return of.left.kind === 'name' && truth.has(of.left.name);
    default:
      throw new Error('not of this test');
  }
}

function paths(of: Condition, path: TreePath = []): TreePath[] {
  const own = of.kind === 'and' || of.kind === 'or' ? of.parts : of.kind === 'not' ? [of.part] : [];
  return [path, ...own.flatMap((part, n) => paths(part, [...path, n]))];
}

/** With one part read as `value`. */
function holdsWith(of: Condition, path: TreePath, value: boolean, truth: ReadonlySet<string>): boolean {
  const marked = replacedAt(of, path, tree('marked = 1'));
  assert.ok(marked !== null);
  return holds(marked, value ? new Set([...truth, 'marked']) : truth);
}

const TRUTHS = Array.from({ length: 16 }, (_, n) => new Set(NAMES.filter((_, bit) => n & (1 << bit))));

describe('a part of a condition', () => {
  it('is joined, negated and regrouped, the rest meaning what it did', () => {
    fc.assert(
      fc.property(
        node,
        fc.nat(),
        fc.constantFrom('and', 'or'),
        (text: string, pick: number, word: 'and' | 'or') => {
          const whole = tree(text);
          const all = paths(whole);
          const path = all[pick % all.length] ?? [];
          const part = partAt(whole, path);
          assert.ok(part !== null);
          const added = tree('d = 1');
          const joined = joinedAt(whole, path, word, added);
          const negated = negatedAt(whole, path);
          for (const truth of TRUTHS) {
            const own: boolean = holds(part, truth);
            const other: boolean = truth.has('d');
            const both: boolean = word === 'and' ? own && other : own || other;
            assert.equal(holds(joined, truth), holdsWith(whole, path, both, truth));
            assert.equal(holds(negated, truth), holdsWith(whole, path, !own, truth));
            if (part.kind === 'and' || part.kind === 'or') {
              const parts: boolean[] = part.parts.map((each) => holds(each, truth));
              const now: boolean = word === 'and' ? parts.every(Boolean) : parts.some(Boolean);
              assert.equal(holds(regroupedAt(whole, path, word), truth), holdsWith(whole, path, now, truth));
            }
          }
          for (const changed of [joined, negated, replacedAt(whole, path, null)])
            if (changed !== null)
              assert.equal(printCondition(tree(printCondition(changed))), printCondition(changed));
        },
      ),
    );
  });

  it('is taken away, and a group of one is that one', () => {
    assert.equal(replacedAt(tree('a = 1'), [], null), null);
    const left = replacedAt(tree('(a = 1 or b = 1) and c = 1'), [0, 1], null);
    assert.equal(left && printCondition(left), 'a = 1 and c = 1');
    assert.equal(replacedAt(tree('not a = 1'), [0], null), null);
  });
});
