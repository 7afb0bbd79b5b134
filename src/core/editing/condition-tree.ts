/** Changing one part of a condition's tree. A part is told by its path: which branch to take, from the root on. */
import type { Condition } from '../condition/syntax';

export type TreePath = readonly number[];

const NOWHERE = { from: 0, to: 0 };

/** With another part in the place of one, or without it: null where nothing is left. */
export function replacedAt(
  tree: Condition,
  [step, ...rest]: TreePath,
  by: Condition | null,
): Condition | null {
  if (step === undefined) return by;
  if (tree.kind === 'not') {
    const part = replacedAt(tree.part, rest, by);
    return part === null ? null : notted(part);
  }
  if (tree.kind !== 'and' && tree.kind !== 'or') return tree;
  const parts = tree.parts.flatMap((part, n) => (n === step ? (replacedAt(part, rest, by) ?? []) : [part]));
  return grouped(tree.kind, parts);
}

/** One part beside another: in its group where that is of this word, else in a new group of the two. */
export function joinedAt(tree: Condition, path: TreePath, word: 'and' | 'or', added: Condition): Condition {
  const part = partAt(tree, path);
  if (part === null) return tree;
  const own = part.kind === word ? [...part.parts, added] : [part, added];
  return replacedAt(tree, path, grouped(word, own)) ?? tree;
}

/** The opposite of one part; what was the opposite already is taken as it was. */
export function negatedAt(tree: Condition, path: TreePath): Condition {
  const part = partAt(tree, path);
  if (part === null) return tree;
  return replacedAt(tree, path, part.kind === 'not' ? part.part : notted(part)) ?? tree;
}

/** The other word in a group. */
export function regroupedAt(tree: Condition, path: TreePath, word: 'and' | 'or'): Condition {
  const part = partAt(tree, path);
  if (part === null || (part.kind !== 'and' && part.kind !== 'or')) return tree;
  return replacedAt(tree, path, grouped(word, part.parts)) ?? tree;
}

/** Null where the path leads nowhere. */
export function partAt(tree: Condition, [step, ...rest]: TreePath): Condition | null {
  if (step === undefined) return tree;
  if (tree.kind === 'not') return partAt(tree.part, rest);
  if (tree.kind !== 'and' && tree.kind !== 'or') return null;
  const part = tree.parts[step];
  return part === undefined ? null : partAt(part, rest);
}

/** A group of one is that one; a group within a group of the same word is part of it. */
function grouped(kind: 'and' | 'or', parts: readonly Condition[]): Condition | null {
  const flat = parts.flatMap((part) => (part.kind === kind ? part.parts : [part]));
  const [only] = flat;
  if (only === undefined) return null;
  return flat.length === 1 ? only : { kind, parts: flat, span: NOWHERE };
}

function notted(part: Condition): Condition {
  return part.kind === 'not' ? part.part : { kind: 'not', part, span: NOWHERE };
}
