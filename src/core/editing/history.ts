/**
 * The history of one person's edits, in a questionnaire that others change as well: what came from elsewhere stands
 * between one's own steps and stays when those are taken back.
 */
import type { Questionnaire } from '../document/types';
import { applyOperations, patchesBetween } from './apply-operations';
import { applyAll, mergeSteps, type HistoryStep } from './change';
import { operationsBetween } from './operations';

/** The history after others made of `before` what is there now. */
export function withForeign(
  past: readonly HistoryStep[],
  before: Questionnaire,
  now: Questionnaire,
): HistoryStep[] {
  const step: HistoryStep = { label: 'Changed elsewhere', foreign: true, ...patchesBetween(before, now) };
  if (step.forward.length === 0) return [...past];
  const last = past.at(-1);
  return last?.foreign ? [...past.slice(0, -1), mergeSteps(last, step)] : [...past, step];
}

export interface Undone {
  readonly document: Questionnaire;
  readonly past: readonly HistoryStep[];
  /** What was taken back, to be done again; null where nothing of it was left to take back. */
  readonly step: HistoryStep | null;
}

/** Takes back the last step of one's own; null where there is none. What others changed since stays as it is. */
export function undoLast(document: Questionnaire, past: readonly HistoryStep[]): Undone | null {
  const at = past.findLastIndex(({ foreign }) => foreign !== true);
  const own = past[at];
  if (own === undefined) return null;
  const since = past.slice(at + 1);
  if (since.length === 0)
    return { document: applyAll(document, own.backward), past: past.slice(0, -1), step: own };
  const made = since.reduceRight((now, step) => applyAll(now, step.backward), document);
  const before = applyAll(made, own.backward);
  // What others have renamed since is found under its new name.
  const foreign = operationsBetween(made, document);
  const back = applyOperations(document, operationsBetween(made, before), new Set(), foreign);
  const { label, mergeKey } = own;
  return {
    document: back.document,
    past: withForeign(past.slice(0, at), before, back.document),
    step:
      back.forward.length === 0
        ? null
        : {
            label,
            ...(mergeKey === undefined ? {} : { mergeKey }),
            forward: back.backward,
            backward: back.forward,
          },
  };
}

/** Steps that were taken back from `from`, the next to be done again last, made to fit what others made of it. */
export function rebased(
  future: readonly HistoryStep[],
  from: Questionnaire,
  onto: Questionnaire,
): HistoryStep[] {
  const fitted: HistoryStep[] = [];
  let [then, now] = [from, onto];
  for (const step of [...future].reverse()) {
    const next = applyAll(then, step.forward);
    const foreign = operationsBetween(then, now);
    const { document, forward, backward } = applyOperations(
      now,
      operationsBetween(then, next),
      new Set(),
      foreign,
    );
    if (forward.length > 0) fitted.unshift({ ...step, forward, backward });
    [then, now] = [next, document];
  }
  return fitted;
}
