/**
 * What a printed condition has to be: it can be read where it is printed, holds for just those who are asked, has nothing
 * in it that is the same for everybody, and nothing that could be left out.
 */
import assert from 'node:assert/strict';
import type { Analysis } from '../../src/core/analysis';
import { holds } from '../../src/core/condition/evaluate';
import { parseCondition } from '../../src/core/condition/parse';
import { printCondition } from '../../src/core/condition/print';
import type { Condition } from '../../src/core/condition/syntax';
import { passKey } from '../../src/core/document/addresses';
import type { Questionnaire } from '../../src/core/document/types';
import type { Plan } from '../../src/core/routing/plan';
import { planOf } from '../../src/core/routing/planner';
import type { Walk } from '../../src/core/routing/walk';

export function parsed(text: string): Condition {
  const result = parseCondition(text);
  assert.ok(result.ok, text);
  return result.tree;
}

/** Put where it is printed for, a condition has no problem that was not there before. */
export function judgeReadable(plan: Plan, analysis: Analysis, about: string): void {
  const { document } = plan;
  const alone = (change: (document: Questionnaire) => void) => {
    const copy = JSON.parse(JSON.stringify(document)) as Questionnaire;
    change(copy);
    return planOf(copy).problems;
  };
  for (const [name, text] of analysis.asked) {
    const at = { item: name };
    const found = alone((copy) => {
      for (const section of copy.sections)
        for (const item of section.items)
          if (item.kind !== 'page_break' && item.name === name) Object.assign(item, { askIf: text });
    }).filter(({ at: place, field }) => JSON.stringify(place) === JSON.stringify(at) && field === 'askIf');
    assert.deepEqual(found, [], `${about}, ${name} if ${text}`);
  }
  for (const { section, items } of plan.sections) {
    for (const { if: text, pass } of analysis.passes.get(items[0]?.item.name ?? '') ?? []) {
      const found = alone((copy) => {
        for (const each of copy.sections) if (each.id === section.id) Object.assign(each, { askIf: text });
      }).filter(({ at, field }) => at.section === section.id && at.onward === undefined && field === 'askIf');
      assert.deepEqual(found, [], `${about}, pass ${pass} of ${section.id} if ${text}`);
    }
  }
}

/** Somebody at an item (or at a section, for a pass of it), with whether they are presented it (or have it). */
interface Meeting {
  readonly is: boolean;
  /** What the condition and its variants see. */
  readonly says: (tree: Condition) => boolean;
}

/** `everybody`: whether they are all there can be, so that what is the same for all of them always is. */
export function judgeSaid(
  plan: Plan,
  analysis: Analysis,
  people: readonly Walk[],
  about: string,
  everybody: boolean,
): void {
  for (const { index, items, repeat, section } of plan.sections) {
    for (const { item } of items) {
      if (section.draw !== undefined && item.kind === 'question') continue;
      const meetings = people.flatMap((walk) => {
        const keys = new Set(walk.steps.map(({ key }) => key));
        const passes =
          repeat === null ? [null] : Array.from({ length: walk.passes.get(index) ?? 0 }, (_, n) => n + 1);
        return passes.map((pass): Meeting => {
          const here = walk.environment(index, pass);
          return { is: keys.has(passKey(item.name, pass)), says: (tree) => holds(tree, here) };
        });
      });
      judge(analysis.asked.get(item.name) ?? '', meetings, `${about}, ${item.name}`, everybody);
    }
    const [first] = items;
    if (repeat === null || first === undefined) continue;
    // Where something inside leaves the section, some who could have a pass have not.
    const leaves = items.some(({ skips }) =>
      skips.some(({ to }) => to.to === 'section' || to.to === 'ending'),
    );
    for (const { pass, if: text } of analysis.passes.get(first.item.name) ?? []) {
      const meetings = people.map((walk): Meeting => {
        const here = walk.environment(index, null);
        return { is: (walk.passes.get(index) ?? 0) >= pass, says: (tree) => holds(tree, here) };
      });
      const where = `${about}, pass ${pass} of ${section.id}`;
      if (leaves)
        assert.ok(
          meetings.every(({ is, says }) => !is || says(parsed(text))),
          `${where} if ${text}`,
        );
      else judge(text, meetings, where, everybody);
    }
  }
}

function judge(text: string, meetings: readonly Meeting[], about: string, everybody: boolean): void {
  const tree = parsed(text);
  const where = `${about} if ${text}`;
  for (const { is, says } of meetings) assert.equal(says(tree), is, where);
  if (!everybody || meetings.length === 0 || tree.kind === 'constant') return;
  for (const less of withLess(tree))
    assert.ok(
      meetings.some(({ is, says }) => says(less) !== is),
      `${where}: “${printCondition(less)}” says the same`,
    );
}

/** A condition with one of its tests left out, for each of them. */
function withLess(node: Condition): Condition[] {
  if (node.kind === 'not') return withLess(node.part).map((part) => ({ ...node, part }));
  if (node.kind !== 'and' && node.kind !== 'or') return [];
  return node.parts.flatMap((part, n) => {
    const rest = node.parts.filter((_, other) => other !== n);
    const [only] = rest;
    const inner = withLess(part).map((changed) => ({
      ...node,
      parts: node.parts.map((each, other) => (other === n ? changed : each)),
    }));
    return [rest.length === 1 && only !== undefined ? only : { ...node, parts: rest }, ...inner];
  });
}
