/** Items of two versions that are asked of others now: who was asked, who is, and what share of the sample that is. */
import type { Analysis, Shares } from '../analysis';
import type { Plan } from '../routing/plan';
import type { VersionsCounted } from './versions';

export interface BaseChange {
  readonly name: string;
  /** A condition, `always` or `never`, in the names and codes of its version. */
  readonly old: string;
  readonly now: string;
  /** From 0 to 1; null where it is not known exactly. */
  readonly oldShare: number | null;
  readonly nowShare: number | null;
}

/**
 * `otherBases`: the items that others are asked now, where that is known exactly; else the conditions are compared.
 * `sharesOf`: of some items of a version, asked for only where some base is another.
 */
export function baseChanges(
  { before, after, first, second }: VersionsCounted,
  otherBases: ReadonlySet<string> | null,
  sharesOf: (plan: Plan, names: ReadonlySet<string>) => Shares['items'] | null,
): BaseChange[] {
  if (otherBases?.size === 0) return [];
  const common = new Set(before.sections.flatMap(({ items }) => items.map(({ item }) => item.name)));
  const [was, is] = [
    basesIn(before, first.askedAmong(otherBases)),
    basesIn(after, second.askedAmong(otherBases)),
  ];
  const names = after.sections
    .flatMap(({ items }) => items.map(({ item }) => item.name))
    .filter((name) => common.has(name) && (otherBases?.has(name) ?? was(name).key !== is(name).key));
  if (names.length === 0) return [];
  const changed = new Set(names);
  const [shares, sharesNow] = [sharesOf(before, changed), sharesOf(after, changed)];
  return names.map((name) => {
    const [old, now] = [was(name), is(name)];
    // Where the same are asked within a pass, others have the pass.
    const pass = old.inPass === now.inPass ? now.passes.findIndex((text, n) => text !== old.passes[n]) : -1;
    return {
      name,
      old: pass < 0 ? old.inPass : (old.passes[pass] ?? 'never'),
      now: pass < 0 ? now.inPass : (now.passes[pass] ?? 'never'),
      oldShare: shares?.get(name)?.share ?? null,
      nowShare: sharesNow?.get(name)?.share ?? null,
    };
  });
}

function basesIn(plan: Plan, { asked, passes }: ReturnType<Analysis['askedAmong']>) {
  const sectionOf = new Map(
    plan.sections.flatMap(({ section, items }) => items.map(({ item }) => [item.name, section.id] as const)),
  );
  return (name: string) => {
    const inPass = asked.get(name) ?? '';
    const ofPasses = passes.get(sectionOf.get(name) ?? '') ?? [];
    return { inPass, passes: ofPasses, key: JSON.stringify([inPass, ofPasses]) };
  };
}
