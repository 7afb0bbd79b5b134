/** Which responses stand behind a figure of the monitor: what a press on it asks for. */
import * as v from 'valibot';
import { forkKey } from '../release/forks-taken';
import type { Plan } from '../routing/plan';
import { forksOf } from './forks';
import { isWhole, OUTCOMES, outcomeOf, type OutcomeMoment } from './outcomes';
import type { ResponseSummary } from './summary';

const Name = v.pipe(v.string(), v.maxLength(500));
const Day = v.pipe(v.string(), v.regex(/^\d{4}-\d\d-\d\d$/));

export const ITEM_FIGURES = ['asked', 'blank', 'dont_know', 'refused', 'left'] as const;
export type ItemFigure = (typeof ITEM_FIGURES)[number];

export const PickedSchema = v.variant('of', [
  /** People who were sent a letter or a link; those of whom nothing was heard. */
  v.strictObject({ of: v.literal('invited'), day: v.exactOptional(Day) }),
  v.strictObject({ of: v.literal('unheard') }),
  v.strictObject({ of: v.literal('begun'), day: v.exactOptional(Day) }),
  v.strictObject({ of: v.literal('outcome'), is: v.array(v.picklist(OUTCOMES)), day: v.exactOptional(Day) }),
  v.strictObject({ of: v.literal('ending'), id: Name }),
  v.strictObject({ of: v.literal('page'), place: Name, is: v.picklist(['shown', 'left']) }),
  v.strictObject({ of: v.literal('item'), name: Name, is: v.picklist(ITEM_FIGURES) }),
  /** Who came to a fork, by its key. */
  v.strictObject({ of: v.literal('fork'), at: Name }),
  v.strictObject({ of: v.literal('quota'), id: Name }),
  v.strictObject({ of: v.literal('fast') }),
  v.strictObject({ of: v.literal('straight'), grid: v.exactOptional(Name) }),
]);
export type Picked = v.InferOutput<typeof PickedSchema>;

export interface PickingIn extends OutcomeMoment {
  readonly plan: Plan;
  readonly dayOf: (at: number) => string;
  /** Whether somebody was faster than one can be (`pace.ts`). */
  readonly isFast: (of: ResponseSummary) => boolean;
}

/** When somebody came to what became of them. */
export const outcomeAt = ({ closedAt, changedAt }: ResponseSummary) => closedAt ?? changedAt;

/** Null where people are meant, who are in no response. */
export function pickedBy(picked: Picked, within: PickingIn): ((of: ResponseSummary) => boolean) | null {
  const { dayOf } = within;
  const isOn = (at: number) => !('day' in picked) || picked.day === undefined || dayOf(at) === picked.day;
  switch (picked.of) {
    case 'invited':
    case 'unheard':
      return null;
    case 'begun':
      return ({ startedAt }) => isOn(startedAt);
    case 'outcome':
      return (of) => picked.is.includes(outcomeOf(of, within)) && isOn(outcomeAt(of));
    case 'ending':
      return ({ ending }) => ending === picked.id;
    case 'page':
      return (of) =>
        picked.is === 'shown' ? of.pages.includes(picked.place) : hasLeft(of, within, picked.place);
    case 'item':
      return ({ items }) =>
        items.some(({ name, as }) => name === picked.name && (picked.is === 'asked' || as === picked.is));
    case 'fork': {
      const keys = new Set(
        forksOf(within.plan)
          .find(({ at }) => at === picked.at)
          ?.outcomes.map(forkKey),
      );
      return ({ forks }) => forks.some((key) => keys.has(key));
    }
    case 'quota':
      return (of) => takesPlace(of, picked.id);
    case 'fast':
      return within.isFast;
    case 'straight':
      return ({ straight }) =>
        picked.grid === undefined ? straight.length > 0 : straight.includes(picked.grid);
    default:
      return picked satisfies never;
  }
}

/** Whether somebody left on a page. */
export function hasLeft(of: ResponseSummary, moment: OutcomeMoment, place: string): boolean {
  if (of.inHand !== place) return false;
  const outcome = outcomeOf(of, moment);
  return outcome === 'broken_off' || outcome === 'partial';
}

/** Whether a complete response counts towards a quota. */
export const takesPlace = (of: ResponseSummary, quota: string) => isWhole(of) && of.held.includes(quota);
