/** Every outcome that the forks of a questionnaire are written to have, to tell those that nobody met. */
import type { ForkEvent } from '../analysis';
import { ENDINGS } from '../document/vocabularies';
import type { Plan, PlanItem, PlanTarget } from '../routing/plan';
import { forkKey } from '../release/forks-taken';

/** Repeated more often than this, passes are not told one by one. */
const MOST_PASSES = 12;

export interface Fork {
  /** What it is called by, whatever comes of it. */
  readonly at: string;
  readonly outcomes: readonly ForkEvent[];
}

/** In the order of the questionnaire; endings last. Whether an outcome can come about at all is the snags' to say. */
export function forksOf(plan: Plan): Fork[] {
  const forks: Fork[] = [];
  const add = (outcomes: readonly ForkEvent[]) => {
    if (outcomes.length > 1) forks.push({ at: forkKey(outcomes[0] as ForkEvent), outcomes });
  };
  for (const { section, gate, repeat, items, onward } of plan.sections) {
    if (gate !== null) add(bothSides({ section: section.id }));
    if (repeat !== null && repeat.max <= MOST_PASSES)
      add(Array.from({ length: repeat.max + 1 }, (_, pass) => ({ kind: 'pass', section: section.id, pass })));
    items.forEach((item) => ofItem(item).forEach(add));
    if (onward.length > 0)
      add([
        ...onward.map(({ index }): ForkEvent => ({ kind: 'onward', section: section.id, index })),
        // Past an entry that always holds nobody comes.
        ...(onward.some((each) => each.if === null)
          ? []
          : [{ kind: 'onward', section: section.id, index: -1 } as const]),
      ]);
  }
  add(plan.endings.map(({ ending }) => ({ kind: 'ending', ending: ending.id })));
  for (const { ending, messages } of plan.endings)
    add(messages.map((_, index) => ({ kind: 'message', ending: ending.id, index })));
  return forks;
}

function ofItem({ item, askIf, optionIf, rowIf, quotas, skips }: PlanItem): ForkEvent[][] {
  const { name } = item;
  const parts = (what: string, conditions: readonly unknown[]) =>
    conditions.flatMap((condition, index) =>
      condition === null ? [] : [bothSides({ item: name, part: `${what} ${index}` })],
    );
  const list = (kind: 'skip' | 'quota', indices: readonly number[]): ForkEvent[] =>
    indices.map((index) => ({ kind, item: name, index }));
  const isSure = skips.some((skip) => skip.if === null);
  const neither = isSure ? [] : list(skips.length > 0 ? 'skip' : 'quota', [-1]);
  const ways = [
    ...list(
      'quota',
      quotas.map((_, index) => index),
    ),
    ...list(
      'skip',
      skips.map(({ index }) => index),
    ),
  ];
  return [
    ...(askIf === null ? [] : [bothSides({ item: name })]),
    ...parts('option', optionIf),
    ...parts('row', rowIf),
    ...(ways.length === 0 ? [] : [[...ways, ...neither]]),
  ];
}

const bothSides = (of: Extract<ForkEvent, { kind: 'ask-if' }>['of']): ForkEvent[] =>
  [true, false].map((holds) => ({ kind: 'ask-if', of, holds }));

export interface UnmetOutcome {
  /** Key of the fork (`Fork.at`). */
  readonly at: string;
  readonly event: ForkEvent;
  /** How many came to the fork, and went another way. */
  readonly came: number;
}

/** Outcomes that nobody met, those first to whose fork most came. `met`: the keys of each respondent's. */
export function unmetOutcomes(forks: readonly Fork[], met: readonly (readonly string[])[]): UnmetOutcome[] {
  const counts = new Map<string, number>();
  for (const keys of met) for (const key of keys) counts.set(key, (counts.get(key) ?? 0) + 1);
  const sets = met.map((keys) => new Set(keys));
  return forks
    .flatMap(({ at, outcomes }) => {
      const keys = outcomes.map(forkKey);
      const missing = outcomes.filter((_, n) => counts.get(keys[n] ?? '') === undefined);
      if (missing.length === 0) return [];
      // In passes somebody may have met several.
      const came = sets.filter((set) => keys.some((key) => set.has(key))).length;
      return missing.map((event) => ({ at, event, came }));
    })
    .toSorted((a, b) => b.came - a.came);
}

/** Whether an outcome is an ending, or the way to one, at which nothing is kept of respondents. */
export function leadsToNothingKept(plan: Plan, event: ForkEvent): boolean {
  const isOf = (target: PlanTarget | undefined) => {
    const found = target?.to === 'ending' ? plan.endings[target.ending] : undefined;
    return found !== undefined && ENDINGS[found.ending.kind].keepsNothing;
  };
  const items = plan.sections.flatMap((section) => section.items);
  switch (event.kind) {
    case 'ending':
    case 'message': {
      const found = plan.endings.find(({ ending }) => ending.id === event.ending);
      return found !== undefined && ENDINGS[found.ending.kind].keepsNothing;
    }
    case 'skip':
      return isOf(
        items.find(({ item }) => item.name === event.item)?.skips.find(({ index }) => index === event.index)
          ?.to,
      );
    case 'quota':
      return isOf(items.find(({ item }) => item.name === event.item)?.quotas[event.index]?.to);
    case 'onward':
      return isOf(
        plan.sections
          .find(({ section }) => section.id === event.section)
          ?.onward.find(({ index }) => index === event.index)?.to,
      );
    case 'ask-if':
    case 'pass':
    case 'presented':
      return false;
    default:
      return event satisfies never;
  }
}
