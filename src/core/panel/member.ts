/**
 * What one member of a made-up panel is like. Every decision has a chance of its own, drawn from the panel's seed, the member's
 * number and what is decided, so that whatever happened before, or was lost on the way, decides nothing.
 */
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { generatorFor } from '../routing/chance';
import type { LetterKind } from './letters';
import { HOUR, type Behaviour, type PanelSettings } from './panel-settings';

export interface Member {
  /** From 1. */
  readonly n: number;
  readonly isOnPhone: boolean;
  /** Times the seconds of the burden model; 1 on average, of those who are not careless. */
  readonly pace: number;
  readonly isCareless: boolean;
  /** Says no to taking part, or leaves where that is not asked. */
  readonly refuses: boolean;
}

/** How much people differ in pace: the standard deviation of its logarithm. Assumed, not measured. */
const SPREAD = 0.35;
/** Whoever is careless takes as much of the usual time. */
const RUSHED = 0.2;
/** From getting a letter to opening it, on average; exponentially distributed. Assumed, not measured. */
const TO_OPEN = 9 * HOUR;
/** Nobody opens letters at night, from the first hour to the second. */
const NIGHT = [22, 7] as const;

/** From 0 up to 1. */
export function chanceOf(seed: number, n: number, what: string): number {
  return uniformFloat64(generatorFor(seed, `${n}/${what}`));
}

export function memberOf({ seed, behaviour }: Pick<PanelSettings, 'seed' | 'behaviour'>, n: number): Member {
  const isSo = (what: string, percent: number) => chanceOf(seed, n, what) * 100 < percent;
  const isCareless = isSo('careless', behaviour.careless);
  return {
    n,
    isOnPhone: isSo('phone', behaviour.phones),
    pace: isCareless ? RUSHED : logNormal(seed, n, 'pace', SPREAD),
    isCareless,
    refuses: isSo('refuse', behaviour.refuse),
  };
}

/** 1 on average (Box and Muller, 1958). */
export function logNormal(seed: number, n: number, what: string, spread: number): number {
  const [a, b] = [chanceOf(seed, n, `${what}/a`), chanceOf(seed, n, `${what}/b`)];
  const normal = Math.sqrt(-2 * Math.log(1 - a)) * Math.cos(2 * Math.PI * b);
  return Math.exp(spread * normal - (spread * spread) / 2);
}

export interface LetterSent {
  readonly kind: LetterKind;
  readonly at: number;
}

/**
 * The moments at which a member takes to the questionnaire after a letter, in order. `begunAt`: when they began; null where they
 * have not: whoever had begun before a letter came comes back by another share than who had not.
 */
export function occasionsOf(
  { seed, behaviour }: Pick<PanelSettings, 'seed' | 'behaviour'>,
  n: number,
  letters: readonly LetterSent[],
  begunAt: number | null,
): number[] {
  return letters
    .flatMap(({ kind, at }) => {
      const percent = shareOf(behaviour, kind, begunAt !== null && begunAt < at);
      if (percent === null || chanceOf(seed, n, kind) * 100 >= percent) return [];
      return [awake(at - TO_OPEN * Math.log(1 - chanceOf(seed, n, `${kind}/opens`)))];
    })
    .sort((a, b) => a - b);
}

/** Null: nobody answers a letter of thanks. */
function shareOf(behaviour: Behaviour, kind: LetterKind, hasBegun: boolean): number | null {
  if (kind === 'thanks') return null;
  return hasBegun && kind !== 'invitation' ? behaviour.comeBack : behaviour[kind];
}

function awake(at: number): number {
  const hour = (at / HOUR) % 24;
  const [from, to] = NIGHT;
  return Math.round(hour >= from || hour < to ? at + (24 - from + to) * HOUR : at);
}
