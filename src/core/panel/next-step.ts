/**
 * What a member of a made-up panel does next, and when: a pure function of the letters they got and of where they stand, so that a
 * panel that was interrupted goes on as if it had not been.
 */
import type { PageCase } from '../responding/page-case';
import type { Plan } from '../routing/plan';
import { pageDone, type PageDone } from './answering';
import { occasionsOf, type LetterSent, type Member } from './member';
import { panelEnds, type PanelSettings } from './panel-settings';

export interface MemberSitting {
  readonly plan: Plan;
  readonly questionnaire: number;
  readonly kept: PageCase;
  /** When the page in hand came, or was come back to. */
  readonly cameAt: number;
  readonly endsAt: number | null;
}

export interface MemberSoFar {
  readonly member: Member;
  readonly letters: readonly LetterSent[];
  /** Null: they have not begun, or nothing of it is kept. */
  readonly sitting: MemberSitting | null;
  /** Nothing more is asked of them: they came to an ending. */
  readonly isSettled: boolean;
  /** Up to then they have done, or were refused, whatever they would do. */
  readonly spentUntil: number;
}

export type MemberStep =
  | { readonly do: 'begin' | 'return'; readonly at: number }
  | { readonly do: 'turn'; readonly at: number; readonly done: PageDone };

/** Null: nothing, unless another letter comes. */
export function nextStep(settings: PanelSettings, of: MemberSoFar): MemberStep | null {
  const step = of.isSettled
    ? null
    : of.sitting === null
      ? beginning(settings, of)
      : goingOn(settings, of, of.sitting);
  return step === null || step.at >= panelEnds(settings) ? null : step;
}

function beginning(settings: PanelSettings, { member, letters, spentUntil }: MemberSoFar): MemberStep | null {
  const at = occasionsOf(settings, member.n, letters, null).find((moment) => moment > spentUntil);
  return at === undefined ? null : { do: 'begin', at };
}

function goingOn(
  settings: PanelSettings,
  { member, letters, spentUntil }: MemberSoFar,
  sitting: MemberSitting,
): MemberStep | null {
  const { kept, cameAt } = sitting;
  if (kept.closed !== null) return null;
  const occasions = occasionsOf(settings, member.n, letters, kept.startedAt);
  const assumed = { seed: settings.seed, breakOff: settings.behaviour.breakOff };
  const before = occasions.filter((moment) => moment <= cameAt).length;
  const done =
    spentUntil > cameAt ? null : pageDone(assumed, member, { ...sitting, at: cameAt, occasion: before });
  if (done?.leaves === false) return { do: 'turn', at: Math.round(cameAt + done.seconds * 1000), done };
  // Whoever refuses does not come back.
  if (member.refuses) return null;
  const at = occasions.find((moment) => moment > Math.max(cameAt, spentUntil));
  return at === undefined ? null : { do: 'return', at };
}
