/** Codes that mean two things: a missing code, option or special that is also a possible answer. */
import { hasRows, isNumeric, picksMany } from '../document/answer-types';
import { codeTaken, isInLimits, picksWord } from '../document/code-taken';
import { optionsOf } from '../document/shape';
import type { Answer, Option, Question, Questionnaire } from '../document/types';
import { applyChange } from '../editing/change';
import { nearestFreeCodes } from '../editing/missing-codes';
import { recode, recodeProblem } from '../editing/recode';
import type { Plan } from '../routing/plan';
import type { DocumentPlace } from '../routing/problems';
import type { Mend, Snag } from './types';

export function codeCollides(plan: Plan): Snag[] {
  const { document } = plan;
  const snags: Snag[] = [];
  for (const given of document.given ?? [])
    snags.push(...ofVariable(document, null, given.answer, { given: given.name }));
  document.sections.forEach(({ items }, section) =>
    items.forEach((item, place) => {
      if (item.kind !== 'question') return;
      snags.push(
        ...ofVariable(document, { question: item, section, place }, item.answer, { item: item.name }),
      );
    }),
  );
  for (const derived of document.derived ?? []) {
    const codes = 'cases' in derived ? [...derived.cases, ...(derived.else ? [derived.else] : [])] : [];
    for (const { reason, code } of document.missing) {
      const clash = codes.find((entry) => entry.code === code);
      const possible = clash !== undefined || ('value' in derived && sumCanBe(plan, derived.name, code));
      if (!possible) continue;
      snags.push({
        rule: 'code-collides',
        severity: 'error',
        at: { derived: derived.name },
        message: `${code} stands for ${words(reason)}, and is also ${clash === undefined ? 'a value that this can have' : `the code of “${clash.label}”`}: give one of them another code`,
      });
      break;
    }
  }
  return snags;
}

interface Owner {
  readonly question: Question;
  readonly section: number;
  readonly place: number;
}

function ofVariable(document: Questionnaire, owner: Owner | null, answer: Answer, at: DocumentPlace): Snag[] {
  const snags: Snag[] = [];
  for (const { reason, code: planned } of document.missing) {
    const code = owner?.question.missingCodes?.[reason] ?? planned;
    const what = codeTaken(answer, code);
    if (what === null) continue;
    snags.push({
      rule: 'code-collides',
      severity: 'error',
      at,
      field: 'missingCodes',
      message: `${code} stands for ${words(reason)}, and is also ${what}: a blank could not be told from an answer, so give this variable another code`,
      mends: owner === null ? [] : otherCodes(document, owner, answer, reason, code),
    });
  }
  for (const option of optionsOf(answer)) {
    const clash = optionClash(answer, option.code, option.missing !== undefined);
    if (clash === null) continue;
    snags.push({
      rule: 'code-collides',
      severity: 'error',
      at: { ...at, option: option.code },
      field: 'code',
      message: `“${option.label}” has the code ${option.code}, which is also ${clash}: give it another code`,
      mends: owner === null ? [] : otherOptionCodes(document, owner, answer, option),
    });
  }
  return snags;
}

/** A special within the limits; a don't-know whose code its columns hold for picks. */
function optionClash(answer: Answer, code: number, missing: boolean): string | null {
  if (isNumeric(answer))
    return isInLimits(answer, code) ? `a possible answer, within ${answer.min} to ${answer.max}` : null;
  const many = picksMany(answer) || (hasRows(answer) && answer.pick === 'many');
  return many && missing && (code === 0 || code === 1) ? picksWord(code) : null;
}

/** Gives the variable a code of its own that is free: the nearest of each kind. */
function otherCodes(
  document: Questionnaire,
  owner: Owner,
  answer: Answer,
  reason: string,
  code: number,
): Mend[] {
  const { question, section, place } = owner;
  const taken = new Set(document.missing.map((entry) => question.missingCodes?.[entry.reason] ?? entry.code));
  return nearestFreeCodes(answer, code, taken).map((free) => {
    const label = `Use ${free} for ${words(reason)} in ${question.name}`;
    const { step } = applyChange(document, {
      label,
      apply: (draft) => {
        const item = draft.sections[section]?.items[place];
        if (item?.kind === 'question') item.missingCodes = { ...item.missingCodes, [reason]: free };
      },
    });
    return { label, patches: step.forward };
  });
}

/** Gives an option another code, with everything that names it, where conditions do not take its codes as numbers. */
function otherOptionCodes(document: Questionnaire, owner: Owner, answer: Answer, option: Option): Mend[] {
  const place = { section: owner.section, item: owner.place };
  const taken = new Set([
    ...optionsOf(answer).map(({ code }) => code),
    ...document.missing.map((entry) => owner.question.missingCodes?.[entry.reason] ?? entry.code),
  ]);
  return nearestFreeCodes(answer, option.code, taken).flatMap((free) => {
    const recoding = new Map([[option.code, free]]);
    if (recodeProblem(document, place, recoding) !== null) return [];
    const label = `Use ${free} for “${option.label}” in ${owner.question.name}`;
    return [{ label, patches: applyChange(document, recode(document, place, recoding)).step.forward }];
  });
}

function words(reason: string): string {
  return `“${reason.replaceAll('_', ' ')}”`;
}

/** Whether a derived sum can come to a value: by the bounds of what it is worked out from, and by whole numbers. */
function sumCanBe(plan: Plan, name: string, code: number): boolean {
  const index = plan.document.derived?.findIndex((derived) => derived.name === name) ?? -1;
  const value = plan.derived[index]?.value;
  if (value == null) return false;
  const bounds = boundsOf(plan, value);
  return bounds !== null && code >= bounds[0] && code <= bounds[1];
}

type CodeRange = readonly [least: number, most: number];

function boundsOf(plan: Plan, node: NonNullable<Plan['derived'][number]['value']>): CodeRange | null {
  switch (node.kind) {
    case 'number':
      return [node.value, node.value];
    case 'count':
    case 'name': {
      const { name } = node.kind === 'name' ? node : node.name;
      const variable = plan.variables.get(name.toLowerCase());
      if (variable === undefined) return null;
      if (node.kind === 'count') return [0, variable.codes?.length ?? 0];
      if (variable.of === 'derived') {
        const value = plan.derived[variable.index]?.value;
        if (value != null) return boundsOf(plan, value);
        return variable.codes === null ? null : [Math.min(...variable.codes), Math.max(...variable.codes)];
      }
      const answer =
        variable.of === 'given'
          ? variable.given.answer
          : variable.of === 'question'
            ? variable.question.answer
            : null;
      if (isNumeric(answer)) return [answer.min, answer.max];
      const substantive = (
        variable.of === 'row' ? variable.grid.options : answer === null ? [] : optionsOf(answer)
      )
        .filter(({ missing }) => missing === undefined)
        .map(({ code }) => code);
      return substantive.length === 0 ? null : [Math.min(...substantive), Math.max(...substantive)];
    }
    case 'count-passes':
      return [0, Math.max(0, ...plan.sections.map(({ repeat }) => repeat?.max ?? 0))];
    case 'arithmetic': {
      const left = boundsOf(plan, node.left);
      const right = boundsOf(plan, node.right);
      if (left === null || right === null) return null;
      if (node.operator === '+') return [left[0] + right[0], left[1] + right[1]];
      if (node.operator === '-') return [left[0] - right[1], left[1] - right[0]];
      const products = left.flatMap((a) => right.map((b) => a * b));
      return [Math.min(...products), Math.max(...products)];
    }
    default:
      return null;
  }
}
