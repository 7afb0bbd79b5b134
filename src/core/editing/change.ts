/**
 * Changes of a document as values: applied, undone and redone, kept as JSON.
 *
 * A change is written as a function on a draft (Immer) and stored as patches in both directions, so that every
 * edit can be undone alike and shares all that it leaves alone.
 */
import { applyPatches, enablePatches, produceWithPatches, type Draft, type Patch } from 'immer';
import type { Questionnaire } from '../document/types';

enablePatches();

export type DocumentDraft = Draft<Questionnaire>;

export interface Change {
  /** What the history calls it, as an order: "Delete landlord". */
  readonly label: string;
  /** Changes in a row with the same key are one step of the history: typing in one field. */
  readonly mergeKey?: string;
  readonly apply: (draft: DocumentDraft) => void;
  /** What is told once it is made, with a way to take it back: what went that somebody had written. */
  readonly said?: string;
  /** It may leave references that lead nowhere any more: then that is to be told. */
  readonly telling?: boolean;
}

/** A change that was made, in both directions. Patches are plain JSON. */
export interface HistoryStep {
  readonly label: string;
  readonly mergeKey?: string;
  /** Made by somebody else, or in another tab: it cannot be taken back here. */
  readonly foreign?: boolean;
  readonly forward: readonly Patch[];
  readonly backward: readonly Patch[];
}

/**
 * The document is left as it is; a change that changes nothing gives it back itself, with a step without
 * patches.
 */
export function applyChange(
  document: Questionnaire,
  change: Change,
): { readonly document: Questionnaire; readonly step: HistoryStep } {
  const [next, forward, backward] = produceWithPatches(document, (draft) => {
    change.apply(draft);
  });
  const { label, mergeKey } = change;
  return {
    document: next,
    step: { label, ...(mergeKey === undefined ? {} : { mergeKey }), forward, backward },
  };
}

/** A change that was worked out beforehand, for the very document it is applied to. */
export function changeOf(label: string, patches: readonly Patch[]): Change {
  return { label, apply: (draft) => void applyPatches(draft, [...patches]) };
}

/** Throws where the patches do not fit the document. */
export function applyAll(document: Questionnaire, patches: readonly Patch[]): Questionnaire {
  return applyPatches(document, [...patches]);
}

/** Whether a step adds, takes away or moves entries of a list: that is never one step with another. */
export function isStructural({ forward, backward }: HistoryStep): boolean {
  return forward.some(({ op, path, value }) => {
    const last = path.at(-1);
    if (last === 'length' || (op !== 'replace' && typeof last === 'number')) return true;
    if (!Array.isArray(value)) return false;
    const before = backward.find((patch) => patch.path.join('/') === path.join('/'))?.value as unknown;
    return !Array.isArray(before) || before.length !== value.length;
  });
}

/** Two steps made one after the other, as one. */
export function mergeSteps(earlier: HistoryStep, later: HistoryStep): HistoryStep {
  return {
    ...earlier,
    forward: [...earlier.forward, ...later.forward],
    backward: [...later.backward, ...earlier.backward],
  };
}
