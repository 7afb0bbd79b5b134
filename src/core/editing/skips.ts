/**
 * Skips made from single answers: "from this answer, go there".
 *
 * Codes that lead to one place share one skip, written `name = 2` or `name in (2, 3)` (`has` for several
 * picks). Skips with any other condition are left as they stand.
 */
import { parseCondition } from '../condition/parse';
import { printCondition } from '../condition/print';
import type { Condition, Literal } from '../condition/syntax';
import { picksMany, ranksOptions } from '../document/answer-types';
import type { Question, Skip, Target } from '../document/types';
import type { Change } from './change';
import { editQuestion, type ItemPlace } from './structure';

const NOWHERE = { from: 0, to: 0 };

/** Makes answers, by their codes, lead to `target`; with null they carry on to the next item. */
export function aimAnswers(
  place: ItemPlace,
  question: Question,
  codes: readonly number[],
  target: Target | null,
): Change {
  const skips = codes.reduce(
    (so, code) => skipsAimed({ ...question, skips: so }, code, target),
    [...(question.skips ?? [])],
  );
  const words = target === null ? 'carry on' : Object.values(target)[0];
  const which = codes.length === 1 ? `= ${codes[0]}` : `in ${codes.join(', ')}`;
  return editQuestion(place, `aim ${codes.join(' ')}`, `Aim ${question.name} ${which}: ${words}`, (draft) => {
    if (skips.length === 0) delete draft.skips;
    else draft.skips = skips as typeof draft.skips;
  });
}

/**
 * Makes every answer within a range, its ends among them, lead to `target`. An end that is empty is open. Null where
 * this is no range of such answers.
 */
export function aimRange(
  place: ItemPlace,
  question: Question,
  [from, to]: readonly [from: string, to: string],
  target: Target,
): Change | null {
  const { name } = question;
  const [least, most] = [from.trim(), to.trim()];
  const condition =
    least !== '' && most !== ''
      ? least === most
        ? `${name} = ${least}`
        : `${name} in (${least}..${most})`
      : least !== ''
        ? `${name} >= ${least}`
        : `${name} <= ${most}`;
  const parsed = parseCondition(condition);
  if (!parsed.ok || (parsed.tree.kind !== 'in' && parsed.tree.kind !== 'compare')) return null;
  return editQuestion(place, 'skips', `Skip from ${name} ${condition.slice(name.length + 1)}`, (draft) => {
    const skips = draft.skips ?? [];
    // Before a skip that takes everybody, which would leave the new one nothing.
    const always = skips.findIndex((skip) => skip.if === undefined);
    skips.splice(always < 0 ? skips.length : always, 0, { if: condition, to: target });
    draft.skips = skips;
  });
}

function skipsAimed(question: Question, code: number, target: Target | null): Skip[] {
  const kept = (question.skips ?? []).flatMap((skip) => {
    const codes = codesOfSkip(question, skip);
    if (codes === null || !codes.includes(code)) return [skip];
    const others = codes.filter((other) => other !== code);
    return others.length === 0 ? [] : [{ ...skip, if: codesCondition(question, others) }];
  });
  if (target === null) return kept;
  const same = kept.findIndex((skip) => codesOfSkip(question, skip) !== null && sameTarget(skip.to, target));
  const shared = kept[same];
  if (shared === undefined) {
    // Before a skip that takes everybody, which would leave the new one nothing.
    const always = kept.findIndex((skip) => skip.if === undefined);
    const made: Skip = { if: codesCondition(question, [code]), to: target };
    return always < 0 ? [...kept, made] : [...kept.slice(0, always), made, ...kept.slice(always)];
  }
  const codes = [...(codesOfSkip(question, shared) ?? []), code];
  const order = optionCodes(question);
  codes.sort((a, b) => order.indexOf(a) - order.indexOf(b));
  return kept.map((skip, index) =>
    index === same ? { ...skip, if: codesCondition(question, codes) } : skip,
  );
}

/** The codes of a skip that is plainly "from one of these answers"; null for every other. */
export function codesOfSkip(question: Question, skip: Skip): number[] | null {
  if (skip.if === undefined) return null;
  const parsed = parseCondition(skip.if);
  return parsed.ok ? plainCodes(parsed.tree, question.name) : null;
}

function plainCodes(node: Condition, name: string): number[] | null {
  const own = (of: string) => of.toLowerCase() === name.toLowerCase();
  const numbers = (values: readonly { readonly kind: string }[]) =>
    values.every((value) => value.kind === 'number')
      ? (values as readonly (Literal & { kind: 'number' })[]).map(({ value }) => value)
      : null;
  switch (node.kind) {
    case 'compare':
      if (node.operator !== '=' || node.left.kind !== 'name' || !own(node.left.name)) return null;
      return node.right.kind === 'number' ? [node.right.value] : null;
    case 'in':
      return node.negated || !own(node.name.name) ? null : numbers(node.members);
    case 'has':
      if (!own(node.name.name) || (node.quantifier !== 'any' && node.quantifier !== 'single')) return null;
      return numbers(node.values);
    default:
      return null;
  }
}

/** `name = 2`, `name in (2, 3)`, or with `has` where several can be picked. */
export function codesCondition(
  { name, answer }: Pick<Question, 'name' | 'answer'>,
  codes: readonly number[],
): string {
  const values = codes.map((value) => ({ kind: 'number' as const, value, span: NOWHERE }));
  const node = { kind: 'name' as const, name, span: NOWHERE };
  const several = picksMany(answer) || ranksOptions(answer);
  const [first] = values;
  if (several) {
    const quantifier = values.length === 1 ? 'single' : 'any';
    return printCondition({ kind: 'has', name: node, quantifier, values, span: NOWHERE });
  }
  if (values.length === 1 && first !== undefined) {
    return printCondition({ kind: 'compare', operator: '=', left: node, right: first, span: NOWHERE });
  }
  return printCondition({ kind: 'in', name: node, negated: false, members: values, span: NOWHERE });
}

function optionCodes({ answer }: Question): number[] {
  return 'options' in answer ? answer.options.map(({ code }) => code) : [];
}

/** Both as they are read from a document, with their properties in one order. */
export function sameTarget(a: Target, b: Target): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}
