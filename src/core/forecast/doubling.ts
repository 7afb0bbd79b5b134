/** What would double a base: how far the share of one answer would have to move, all others staying as they are assumed. */
import type { Assumptions, Prospect } from '../analysis';
import { onTheWay, shareOnTheWay, type AssumedAnswer } from './one-more-point';
import type { Deciding, Effect } from './steering';

export interface Doubling {
  readonly name: string;
  /** Among whom, as in `AssumedShare`. */
  readonly where: number | null;
  readonly answer: AssumedAnswer;
  /** Its share now, and where the base would be twice what it is; null where it never is. */
  readonly from: number;
  readonly to: number | null;
  /** How many times the base it is if everybody answers so. */
  readonly most: number;
}

/** Answers that are tried, each of another question. */
const MOST = 4;
/** How near the share is told, and how often it is tried at most. */
const NEAR = 1e-4;
const MOST_STEPS = 24;

/** Of a group by its index, those that add to it, the one with the most effect first; none where nobody belongs to it. */
export function doublings(
  group: number,
  effects: readonly Effect[],
  deciding: readonly Deciding[],
  prospect: Prospect,
  assumptions: Assumptions,
): Doubling[] {
  const now = prospect.share(group) ?? 0;
  if (!(now > 0)) return [];
  const tried = new Map<string, Effect>();
  for (const effect of effects)
    if (effect.perPoint > 0 && !tried.has(effect.name) && tried.size < MOST) tried.set(effect.name, effect);
  const found = [...tried.values()].flatMap(({ name, where, answer }): Doubling[] => {
    const shares = deciding.find((of) => of.name === name)?.shares;
    const same = (other: AssumedAnswer) => JSON.stringify(other) === JSON.stringify(answer);
    const of = shares?.find((each) => each.where === where && same(each.answer));
    // Where everybody answers so already, there is no way on.
    if (of === undefined || of.length <= 0) return [];
    const at = (part: number) => {
      prospect.assume(new Map([...assumptions, [name, onTheWay(of, part)]]));
      return (prospect.share(group) ?? 0) / now;
    };
    const most = at(1);
    const to = most < 2 ? null : shareOnTheWay(of, partFor(2, at, most));
    return [{ name, where, answer, from: of.share, to, most }];
  });
  prospect.assume(assumptions);
  return found;
}

/** Where something that is 1 at 0 and more than `wanted` at 1 comes to it: false position, the end that stays weighed less (Illinois). */
function partFor(wanted: number, at: (part: number) => number, most: number): number {
  let [low, high] = [0, 1];
  let [below, above] = [1 - wanted, most - wanted];
  for (let step = 0; step < MOST_STEPS && high - low > NEAR && above > 0; step += 1) {
    const part = low + ((high - low) * -below) / (above - below);
    const value = at(part) - wanted;
    if (Math.abs(value) < NEAR) return part;
    if (value < 0) {
      [low, below] = [part, value];
      above /= 2;
    } else {
      [high, above] = [part, value];
      below /= 2;
    }
  }
  return high;
}
