/**
 * Values of a number, scale or date that its skips, or the ask-ifs that read it, leave out between those they deal
 * with: 6 between “below 6” and “above 6”.
 */
import { holds, type Reading } from '../condition/evaluate';
import type { Condition } from '../condition/syntax';
import type { Question } from '../document/types';
import type { Variable } from '../document/variables';
import { variablesIn } from '../analysis/drivers';
import type { Instance } from '../analysis/predicates';
import { shortestTest } from '../analysis/tests-in-words';
import type { PlanItem } from '../routing/plan';
import type { Inquiry, Site } from './inquiry';
import type { Mend, Snag } from './types';

/** A gap is a few values: this share of the range at most, or one value. */
const FEW = 0.1;
/** At an end of the range what is left out is likelier to be meant. */
const FEW_AT_AN_END = 0.05;

export function valuesUnclaimed(inquiry: Inquiry): Snag[] {
  const snags: Snag[] = [];
  for (const planItem of inquiry.items) {
    const { item } = planItem;
    if (item.kind !== 'question' || !isOrdered(item)) continue;
    const variable = inquiry.plan.variables.get(item.name.toLowerCase());
    if (variable === undefined) continue;
    const own = inquiry.sites.filter((site) => site.role === 'skip' && site.planItem === planItem);
    const found =
      gapIn(inquiry, planItem, variable, own) ??
      askIfPairs(inquiry, variable)
        .map((pair) => gapIn(inquiry, planItem, variable, pair))
        .find((snag) => snag !== null);
    if (found != null) snags.push(found);
  }
  return snags;
}

function isOrdered({ answer }: Question): boolean {
  return ['number', 'scale', 'date', 'time', 'datetime'].includes(answer.type);
}

function readsOnly(
  inquiry: Inquiry,
  condition: Condition | null,
  variable: Variable,
): condition is Condition {
  if (condition === null) return false;
  const read = variablesIn(condition, inquiry.plan);
  return (
    read.length === 1 && read[0] === variable && !/ (un)?answered| asked/.test(JSON.stringify(condition))
  );
}

/** Pairs of ask-ifs that read the variable alone and never hold both, where no third one deals with what is between. */
function askIfPairs(inquiry: Inquiry, variable: Variable): Site[][] {
  const sites = inquiry.sites.filter(
    ({ role, condition }) =>
      (role === 'item' || role === 'section') && readsOnly(inquiry, condition, variable),
  );
  const values = substantive(instanceOf(inquiry, variable));
  const claimed = sites.map(({ condition }) => values.map((reading) => tells(condition, reading)));
  const disjoint = (a: number, b: number) => !values.some((_, n) => claimed[a]?.[n] && claimed[b]?.[n]);
  const pairs: Site[][] = [];
  sites.forEach((site, a) => {
    sites.slice(a + 1).forEach((other, n) => {
      const b = a + 1 + n;
      if (!disjoint(a, b)) return;
      const dealtWith = sites.some((_, c) => c !== a && c !== b && disjoint(a, c) && disjoint(b, c));
      if (!dealtWith) pairs.push([site, other]);
    });
  });
  return pairs;
}

function gapIn(
  inquiry: Inquiry,
  planItem: PlanItem,
  variable: Variable,
  sites: readonly Site[],
): Snag | null {
  const instance = instanceOf(inquiry, variable);
  const dealing = sites.filter(({ condition }) => readsOnly(inquiry, condition, variable));
  if (instance === null || dealing.length < 2 || sites.some(({ condition }) => condition === null))
    return null;
  const values = substantive(instance);
  const claims = values.map((reading) => dealing.findIndex(({ condition }) => tells(condition, reading)));
  const gaps = runsOf(claims);
  const [gap] = gaps;
  if (gaps.length !== 1 || gap === undefined) return null;
  const [from, to] = gap;
  const inside = from > 0 && to < values.length - 1;
  const [low, high] = [values[from]?.value, values[to]?.value];
  const share = shareOf(values, from, to);
  const few = share <= (inside ? FEW : FEW_AT_AN_END) || (inside && from === to);
  if (!few || (!inside && distinct(claims) < 2)) return null;
  const words = low === high ? String(low) : `${String(low)} to ${String(high)}`;
  const tests = dealing.map(({ text }) => `“${text}”`).join(' and ');
  const what = sites[0]?.role === 'skip' ? 'its skips' : 'the ask-ifs';
  return {
    rule: 'values-unclaimed',
    severity: 'warning',
    at: { item: planItem.item.name },
    message: `${what} deal with ${tests}, which leaves out ${words}: those who answer so are treated as neither`,
    ...witnessFor(inquiry, planItem, variable, values[from]?.value),
    mends: [claims[from - 1], claims[to + 1]].flatMap((by) =>
      by === undefined || by < 0 ? [] : widen(inquiry, instance, dealing[by], values, from, to),
    ),
  };
}

function tells(condition: Condition | null, reading: Reading): boolean {
  return (
    condition !== null &&
    holds(condition, { read: () => reading, pass: null, each: null, passesOver: () => [] })
  );
}

function instanceOf(inquiry: Inquiry, variable: Variable): Instance | null {
  for (const instance of inquiry.terrain.instances.values())
    if (instance.driver.variable === variable) return instance;
  return null;
}

/** The readings with a value, smallest first; between two of them nothing changes for any test. */
function substantive(instance: Instance | null): Reading[] {
  return (instance?.readings ?? [])
    .filter(({ value, missing }) => value !== null && !missing)
    .sort((a, b) => ((a.value as number | string) < (b.value as number | string) ? -1 : 1));
}

/** Stretches that nothing claims, as first and last index. */
function runsOf(claims: readonly number[]): (readonly [from: number, to: number])[] {
  const runs: [number, number][] = [];
  claims.forEach((claim, n) => {
    if (claim >= 0) return;
    const last = runs.at(-1);
    if (last !== undefined && last[1] === n - 1) last[1] = n;
    else runs.push([n, n]);
  });
  return runs;
}

function distinct(claims: readonly number[]): number {
  return new Set(claims.filter((claim) => claim >= 0)).size;
}

/** The stretch as a share of the whole range, both with a value's own width. */
function shareOf(values: readonly Reading[], from: number, to: number): number {
  const at = (index: number): number => {
    const value = values[index]?.value;
    return typeof value === 'number'
      ? value
      : Date.parse(`${String(value).padEnd(10, '-01')}`) / 86_400_000 || 0;
  };
  const width = at(to) - at(from);
  const range = at(values.length - 1) - at(0);
  return range === 0 ? 1 : width / range;
}

function witnessFor(
  inquiry: Inquiry,
  planItem: PlanItem,
  variable: Variable,
  value: Reading['value'] | undefined,
) {
  const { terrain, flow, diagrams } = inquiry;
  for (const at of inquiry.placesOf(planItem)) {
    const instance = terrain.instances.get(terrain.keyOf(variable, inquiry.standingOf(planItem, at)));
    if (instance === undefined) continue;
    const reading = instance.readings.findIndex((each) => each.value === value && !each.missing);
    const mass = diagrams.and(flow.answersAt(at), instance.cube(reading));
    const found = inquiry.witness(at, mass);
    if (found.witness !== undefined) return found;
  }
  return {};
}

/** A mend that has one of the conditions deal with the stretch too. */
function widen(
  inquiry: Inquiry,
  instance: Instance,
  site: Site | undefined,
  values: readonly Reading[],
  from: number,
  to: number,
): Mend[] {
  if (site === undefined) return [];
  const more = new Set(values.slice(from, to + 1).map(({ value }) => value));
  const may = instance.readings.map(() => true);
  const wanted = instance.readings.map(
    (reading) => tells(site.condition, reading) || (!reading.missing && more.has(reading.value)),
  );
  const { text } = shortestTest(instance, { wanted, may });
  return [inquiry.mendCondition(site, text)];
}
