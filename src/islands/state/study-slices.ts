/** What the slices of a study's store share: how each reads and sets the whole, and what a changed document brings with it. */
import type { StoreApi } from 'zustand';
import type { Questionnaire } from '../../core/document/types';
import type { Plan } from '../../core/routing/plan';
import { planOf } from '../../core/routing/planner';
import { snagsOf, withoutFaults, type Snag } from '../../core/snags';
import type { StudyState } from './study-state';

export type SetState = StoreApi<StudyState>['setState'];
export type GetState = StoreApi<StudyState>['getState'];

/** Shows a document: plans it, with what the plan before still says, and has its snags looked for. */
export type ShowDocument = (
  document: Questionnaire,
  before: Plan | null,
) => { readonly document: Questionnaire; readonly plan: Plan };

/** The snags follow in the frame after: what was typed is seen first. */
export function documentShower(set: SetState, get: GetState): ShowDocument {
  let checking = false;
  return (document, before) => {
    const plan = planOf(document, before);
    if (!checking) {
      checking = true;
      afterPaint(() => {
        checking = false;
        set({ snags: writtenSnags(get().plan) });
      });
    }
    return { document, plan };
  };
}

/** The snags that a document shows by itself; a check that fails by our fault is said on the console. */
export function writtenSnags(plan: Plan): readonly Snag[] {
  return withoutFaults(snagsOf(plan), console.error);
}

function afterPaint(then: () => void): void {
  if (typeof requestAnimationFrame === 'undefined') setTimeout(then, 0);
  else requestAnimationFrame(() => setTimeout(then, 0));
}
