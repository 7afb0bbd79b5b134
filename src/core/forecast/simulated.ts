/**
 * Shares and lengths as they are among made-up respondents, with quotas open: for where they cannot be told exactly. Says
 * how far they may be off.
 */
import type { Group, Length } from '../analysis';
import { nameInKey } from '../document/addresses';
import { groupKey } from './groups';
import { secondsByName } from '../routing/burden';
import type { Plan } from '../routing/plan';
import { madeUpRespondents } from '../simulate/respondents';

/** As many people are made up. */
const PEOPLE = 20_000;

/** Two-sided, at 95%. */
const TWO_SIDED = 1.959964;

export interface Simulated {
  /** Parallel to the groups asked about. */
  readonly shares: readonly { readonly share: number; readonly error: number }[];
  /** Of those who come to some endings: one for each of them, shortest first. */
  readonly lengths: readonly Length[];
}

/** `stay`: of whoever is presented something that takes so many seconds, how many go on from it. */
export function simulated(
  plan: Plan,
  groups: readonly Group[],
  endings: ReadonlySet<string>,
  stay: (seconds: number) => number,
): Simulated {
  const seconds = secondsByName(plan);
  const sums = new Map<string, { sum: number; squares: number }>();
  const note = (key: string, share: number) => {
    const known = sums.get(key) ?? { sum: 0, squares: 0 };
    known.sum += share;
    known.squares += share * share;
    sums.set(key, known);
  };
  const lengths: Length[] = [];
  const sectionOf = new Map(
    plan.sections.flatMap(({ items, section }) =>
      items.map(({ item }) => [item.name, groupKey({ section: section.id })] as const),
    ),
  );
  for (const { presented, ending } of madeUpRespondents(plan, PEOPLE, 1, { quotas: 'open' })) {
    let left = 1;
    let length = 0;
    const met = new Set<string>();
    for (const key of presented) {
      const name = nameInKey(key);
      for (const each of new Set([name, key, sectionOf.get(name) ?? ''])) {
        if (!met.has(each)) note(each, left);
        met.add(each);
      }
      length += seconds(name);
      left *= stay(seconds(name));
    }
    const id = ending === null ? undefined : plan.endings[ending]?.ending.id;
    if (id === undefined) continue;
    note(groupKey({ ending: id }), left);
    if (endings.has(id)) lengths.push({ seconds: length, share: left / PEOPLE });
  }
  return {
    shares: groups.map((group) => {
      const { sum, squares } = sums.get(groupKey(group)) ?? { sum: 0, squares: 0 };
      const share = sum / PEOPLE;
      const variance = Math.max(0, squares / PEOPLE - share * share);
      return { share, error: TWO_SIDED * Math.sqrt(variance / PEOPLE) };
    }),
    lengths: lengths.sort((a, b) => a.seconds - b.seconds),
  };
}
