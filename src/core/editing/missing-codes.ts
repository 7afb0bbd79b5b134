/** The missing-code plan: ready conventions to start from, and codes that are free for a variable. */
import { isNumeric, picksMany } from '../document/answer-types';
import { codeTaken } from '../document/code-taken';
import { optionsOf } from '../document/shape';
import type { Answer, MissingCode, Questionnaire } from '../document/types';
import type { Change } from './change';

export const CONVENTIONS = ['negative', 'high'] as const;
/**
 * `negative`: −1, −2 …, the same for all variables; `high`: the last codes that fit a variable's width, 6 to 9, widened to
 * 96 to 99 or 996 to 999 where those could be answers.
 */
export type Convention = (typeof CONVENTIONS)[number];

/** With the plan's reasons in their order, each given a code; exceptions only where a variable needs them. */
export function followConvention(document: Questionnaire, convention: Convention): Change {
  const reasons = document.missing.map(({ reason }) => reason);
  const plan = codesFor(null, reasons, convention, document);
  const planned = new Map(reasons.map((reason, n) => [reason, plan[n] ?? 0]));
  return {
    label: convention === 'negative' ? 'Use negative missing codes' : 'Use high missing codes',
    apply: (draft) => {
      draft.missing = draft.missing.map((entry) => ({
        ...entry,
        code: planned.get(entry.reason) ?? entry.code,
      }));
      for (const { items } of draft.sections) {
        for (const item of items) {
          if (item.kind !== 'question') continue;
          const own = codesFor(item.answer as Answer, reasons, convention, document);
          const exceptions = reasons.flatMap((reason, n) =>
            own[n] === planned.get(reason) ? [] : [[reason, own[n] ?? 0] as const],
          );
          if (exceptions.length === 0) delete item.missingCodes;
          else item.missingCodes = Object.fromEntries(exceptions);
        }
      }
    },
  };
}

/** Codes for all reasons of one variable; of the plan itself, which also serves given and derived variables: null. */
function codesFor(
  answer: Answer | null,
  reasons: readonly string[],
  convention: Convention,
  document: Questionnaire,
): number[] {
  const isFree = (code: number) =>
    answer === null ? !isTakenAnywhere(document, code) : codeTaken(answer, code) === null;
  if (convention === 'negative') {
    // The same run of codes for all reasons, further down where one of them could be an answer.
    for (let from = -1; ; from -= 1) {
      const run = reasons.map((_, n) => from - n);
      if (run.every(isFree)) return run;
    }
  }
  for (let width = 1; ; width += 1) {
    const last = 10 ** width - 1;
    const run = reasons.map((_, n) => last - (reasons.length - 1 - n));
    if (run.every((code) => code > 1) && run.every(isFree) && fits(answer, width)) return run;
  }
}

/** No answer is wider than the codes beside it. */
function fits(answer: Answer | null, width: number): boolean {
  if (answer === null) return width >= 2;
  const widest = Math.max(
    ...optionsOf(answer).map(({ code }) => String(Math.abs(code)).length),
    isNumeric(answer) ? String(Math.trunc(Math.abs(answer.max))).length : 1,
    // Picks hold 0 and 1 only.
    1,
  );
  return width >= (picksMany(answer) ? 1 : widest);
}

/** Given and derived variables have no exceptions of their own: the plan's codes must be free for them. */
function isTakenAnywhere(document: Questionnaire, code: number): boolean {
  return (
    (document.given ?? []).some(({ answer }) => codeTaken(answer, code) !== null) ||
    (document.derived ?? []).some(
      (derived) =>
        'cases' in derived &&
        [...derived.cases, ...(derived.else ? [derived.else] : [])].some((each) => each.code === code),
    )
  );
}

/**
 * Codes near one that cannot be used: the nearest free above it, of nines widened where it is one (99, 999), and the nearest
 * free negative. `taken`: codes used otherwise by the variable.
 */
export function nearestFreeCodes(answer: Answer, code: number, taken: ReadonlySet<number>): number[] {
  const isFree = (each: number) => !taken.has(each) && codeTaken(answer, each) === null;
  const found: number[] = [];
  if (code > 0) {
    // 99 becomes 999, 97 becomes 997.
    for (let wide = Number(`9${code}`); wide < 1e9; wide = Number(`9${wide}`)) {
      if (!isFree(wide)) continue;
      found.push(wide);
      break;
    }
  }
  let negative = -1;
  while (!isFree(negative)) negative -= 1;
  return [...found, negative];
}

/** Adds a reason of one's own to the plan, with the next free code in the plan's manner. */
export function addReason(document: Questionnaire, label: string): Change {
  const used = new Set(document.missing.map(({ code }) => code));
  const step = document.missing.every(({ code }) => code < 0) ? -1 : 1;
  let code = (step < 0 ? Math.min(...used) : Math.max(...used)) + step;
  while (used.has(code) || isTakenAnywhere(document, code)) code += step;
  const reasons = new Set(document.missing.map(({ reason }) => reason));
  const stem =
    label
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '_')
      .replace(/^[^a-z]+|_+$/g, '')
      .slice(0, 28) || 'reason';
  let reason = stem;
  for (let n = 2; reasons.has(reason); n += 1) reason = `${stem}_${n}`;
  const entry: MissingCode = { reason, code, label };
  return { label: `Add the reason “${label}”`, apply: (draft) => void draft.missing.push({ ...entry }) };
}
