/** Codes that mean two things: a missing code, option or special that is also a possible answer. */
import { applyChange } from '../editing/change';
import { optionsOf } from '../document/shape';
import type { Answer, Question, Questionnaire } from '../document/types';
import type { Plan } from '../routing/plan';
import type { Place } from '../routing/problems';
import { holdsIn } from './variables';
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

function ofVariable(document: Questionnaire, owner: Owner | null, answer: Answer, at: Place): Snag[] {
  const snags: Snag[] = [];
  for (const { reason, code: planned } of document.missing) {
    const code = owner?.question.missingCodes?.[reason] ?? planned;
    const what = asAnswer(answer, code);
    if (what === null) continue;
    snags.push({
      rule: 'code-collides',
      severity: 'error',
      at,
      field: 'missingCodes',
      message: `${code} stands for ${words(reason)}, and is also ${what}: a blank could not be told from an answer, so give this variable another code`,
      mends: owner === null ? [] : [otherCode(document, owner, answer, reason)],
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
    });
  }
  return snags;
}

/** The answer that a code would be taken for; null where it is none. */
function asAnswer(answer: Answer, code: number): string | null {
  const option = optionsOf(answer).find((each) => each.code === code);
  switch (answer.type) {
    case 'single':
    case 'rank':
      return option === undefined ? null : `the answer “${option.label}”`;
    case 'multiple':
      if (code === 0 || code === 1) return picksWord(code);
      return option?.missing === undefined ? null : `the answer “${option.label}”`;
    case 'grid':
      if (answer.pick === 'many' && (code === 0 || code === 1)) return picksWord(code);
      return option === undefined || (answer.pick === 'many' && option.missing === undefined)
        ? null
        : `the answer “${option.label}”`;
    case 'number':
    case 'scale':
      if (option !== undefined) return `the answer “${option.label}”`;
      return isInLimits(answer, code) ? `a possible answer, within ${answer.min} to ${answer.max}` : null;
    case 'date':
    case 'time':
    case 'datetime':
      return option === undefined ? null : `the answer “${option.label}”`;
    case 'text':
      return null;
    default:
      return answer satisfies never;
  }
}

function picksWord(code: number): string {
  return code === 1 ? 'what its columns hold for a pick' : 'what its columns hold for no pick';
}

/** A special within the limits; a don't-know whose code its columns hold for picks. */
function optionClash(answer: Answer, code: number, missing: boolean): string | null {
  if (answer.type === 'number' || answer.type === 'scale')
    return isInLimits(answer, code) ? `a possible answer, within ${answer.min} to ${answer.max}` : null;
  const many = answer.type === 'multiple' || (answer.type === 'grid' && answer.pick === 'many');
  return many && missing && (code === 0 || code === 1) ? picksWord(code) : null;
}

function isInLimits(answer: Answer & { type: 'number' | 'scale' }, code: number): boolean {
  if (code < answer.min || code > answer.max) return false;
  const scale = answer.type === 'scale';
  return holdsIn(code - (scale ? answer.min : 0), scale ? (answer.step ?? 1) : 10 ** -(answer.decimals ?? 0));
}

/** Gives the variable the nearest negative code that is free. */
function otherCode(document: Questionnaire, owner: Owner, answer: Answer, reason: string): Mend {
  const { question, section, place } = owner;
  const taken = new Set(document.missing.map((entry) => question.missingCodes?.[entry.reason] ?? entry.code));
  let code = -1;
  while (taken.has(code) || asAnswer(answer, code) !== null) code -= 1;
  const label = `Use ${code} for ${words(reason)} in ${question.name}`;
  const { step } = applyChange(document, {
    label,
    apply: (draft) => {
      const item = draft.sections[section]?.items[place];
      if (item?.kind === 'question') item.missingCodes = { ...item.missingCodes, [reason]: code };
    },
  });
  return { label, patches: step.forward };
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

type Bounds = readonly [least: number, most: number];

function boundsOf(plan: Plan, node: NonNullable<Plan['derived'][number]['value']>): Bounds | null {
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
      if (answer?.type === 'number' || answer?.type === 'scale') return [answer.min, answer.max];
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
