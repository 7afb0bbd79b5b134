/**
 * Values of a number, scale, date or time that conditions on it leave out between those they deal with: 6 between
 * “below 6” and “above 6”.
 *
 * Looked at are families of conditions that read it alone and exclude each other: the skips of the question, ask-ifs of
 * items and sections, and the cases of a derived variable.
 */
import { AnswerSymbol, IDLE, shortestTest, testsOn, variablesIn, type Driver } from '../analysis';
import { holds, type Reading } from '../condition/evaluate';
import type { Condition } from '../condition/syntax';
import { nameInKey } from '../document/addresses';
import type { Answer, Question } from '../document/types';
import type { Variable } from '../document/variables';
import { variableAnswer } from '../routing/answers';
import type { Plan, PlanItem } from '../routing/plan';
import type { DocumentPlace } from '../routing/problems';
import { PlanEnvironment } from '../routing/readings';
import type { CheckContext, Site } from './check-context';
import type { Mend, Snag } from './types';

/** A gap is a few values: this share of the range at most, or one value. */
const FEW = 0.1;
/** At an end of the range what is left out is likelier to be meant. */
const FEW_AT_AN_END = 0.05;
/** Of more different ask-ifs, or families of them, than this not every family is looked for. */
const MOST_ASK_IFS = 40;
const MOST_FAMILIES = 300;

/** One condition of a family. */
interface Member {
  readonly condition: Condition;
  readonly text: string;
  /** Writes another condition in its place. */
  readonly mend: (by: string) => Mend;
}

/** Conditions of which at most one holds, or of which the first that holds counts. */
interface Family {
  readonly of: 'its skips' | 'the ask-ifs' | 'the cases';
  readonly at: DocumentPlace;
  readonly members: readonly Member[];
}

export function valuesUnclaimed(context: CheckContext): Snag[] {
  return steering(context).flatMap((steer) => {
    const { variable, answer } = steer;
    const conditions = conditionsOn(context, variable);
    const values = new Values(context.plan, variable, answer, conditions, context.diagrams);
    const ofSkips = skipFamily(context, steer);
    const ofAskIfs = askIfFamilies(context, steer, values);
    const found = [
      [...(ofSkips === null ? [] : [ofSkips])],
      ofAskIfs,
      ...caseFamilies(context, steer.variable).map((family) => [family]),
    ];
    // Of ask-ifs many families can share a gap: it is told once.
    return found.flatMap((families) => firstGap(context, steer, values, families));
  });
}

/** A variable with an order, and where it stands. */
interface Steering {
  readonly variable: Variable;
  readonly answer: Answer;
  readonly planItem: PlanItem | null;
  readonly at: DocumentPlace;
}

function steering({ plan, items }: CheckContext): Steering[] {
  const of = (name: string, planItem: PlanItem | null, at: DocumentPlace): Steering[] => {
    const variable = plan.variables.get(name.toLowerCase());
    const answer = variableAnswer(variable);
    return variable !== undefined && answer !== null && isOrdered(answer)
      ? [{ variable, answer, planItem, at }]
      : [];
  };
  return [
    ...(plan.document.given ?? []).flatMap(({ name }) => of(name, null, { given: name })),
    ...items.flatMap((planItem) =>
      planItem.item.kind === 'question' && !planItem.namesakes.has(planItem.item.name)
        ? of(planItem.item.name, planItem, { item: planItem.item.name })
        : [],
    ),
  ];
}

function isOrdered({ type }: Question['answer']): boolean {
  return ['number', 'scale', 'date', 'time', 'datetime'].includes(type);
}

function readsOnly(plan: Plan, condition: Condition | null, variable: Variable): condition is Condition {
  return condition !== null && onlyRead(plan, condition) === variable;
}

/** Every condition is asked about for every question that has an order. */
const onlyReads = new WeakMap<Plan, Map<Condition, Variable | null>>();

/** The one variable whose values a condition is about; null where it reads several, or speaks of states or passes. */
function onlyRead(plan: Plan, condition: Condition): Variable | null {
  let known = onlyReads.get(plan);
  if (known === undefined) onlyReads.set(plan, (known = new Map()));
  let only = known.get(condition);
  if (only === undefined) {
    const read = variablesIn(condition, plan);
    const speaksOfStates = / (un)?answered| asked|"pass"|"each"|count-passes/.test(JSON.stringify(condition));
    only = read.length === 1 && !speaksOfStates ? (read[0] ?? null) : null;
    known.set(condition, only);
  }
  return only;
}

function conditionsOn({ plan, sites }: CheckContext, variable: Variable): Condition[] {
  const written = [
    ...sites.map(({ condition }) => condition),
    ...plan.derived.flatMap(({ cases }) => (cases ?? []).map((entry) => entry.if)),
  ];
  return written.filter((condition) => readsOnly(plan, condition, variable));
}

function skipFamily(context: CheckContext, { variable, planItem, at }: Steering): Family | null {
  const { sites } = context;
  const own = sites.filter((site) => site.role === 'skip' && site.planItem === planItem);
  if (planItem === null || own.some(({ condition }) => condition === null)) return null;
  return { of: 'its skips', at, members: membersOf(context, own, variable) };
}

function membersOf(context: CheckContext, sites: readonly Site[], variable: Variable): Member[] {
  return sites.flatMap((site): Member[] => {
    const { condition, text } = site;
    if (!readsOnly(context.plan, condition, variable)) return [];
    return [{ condition, text, mend: (by) => context.mendCondition(site, by) }];
  });
}

/** As many ask-ifs as exclude each other, in every way in which none can be added. */
function askIfFamilies(context: CheckContext, { variable, at }: Steering, values: Values): Family[] {
  const askIfs = context.sites.filter(({ role }) => role === 'item' || role === 'section');
  const byClaim = new Map<string, Member>();
  for (const member of membersOf(context, askIfs, variable)) {
    const claim = values.claimedBy(member.condition).map(Number).join('');
    if (claim.includes('1') && !byClaim.has(claim)) byClaim.set(claim, member);
  }
  const claims = [...byClaim.keys()].slice(0, MOST_ASK_IFS);
  const excludes = (a: string, b: string) => ![...a].some((is, n) => is === '1' && b[n] === '1');
  return cliques(claims, excludes).map((clique) => ({
    of: 'the ask-ifs',
    at,
    members: clique.flatMap((claim) => byClaim.get(claim) ?? []),
  }));
}

function caseFamilies(context: CheckContext, variable: Variable): Family[] {
  const { plan } = context;
  return plan.derived.flatMap(({ derived, cases }): Family[] => {
    if (cases === null || !('cases' in derived) || derived.else !== undefined) return [];
    if (!cases.every((entry) => readsOnly(plan, entry.if, variable))) return [];
    const members = cases.map(({ if: condition }, n): Member => {
      const text = derived.cases[n]?.if ?? '';
      return {
        condition,
        text,
        mend: (by) =>
          context.mendBy(`Write “${by}” for “${text}”`, (draft) => {
            const entry = draft.derived?.find(({ name }) => name === derived.name);
            const written = entry !== undefined && 'cases' in entry ? entry.cases[n] : undefined;
            if (written !== undefined) written.if = by;
          }),
      };
    });
    return [{ of: 'the cases', at: { derived: derived.name }, members }];
  });
}

/**
 * The largest sets in which every two go together, none of which is part of another (Bron and Kerbosch, “Algorithm 457”,
 * 1973).
 */
function cliques<T>(all: readonly T[], together: (a: T, b: T) => boolean): T[][] {
  const found: T[][] = [];
  const grow = (so: readonly T[], may: readonly T[], done: readonly T[]): void => {
    if (found.length >= MOST_FAMILIES) return;
    if (may.length === 0 && done.length === 0) found.push([...so]);
    let left = may;
    let tried = done;
    for (const next of may) {
      const fits = (other: T) => together(next, other);
      grow([...so, next], left.filter(fits), tried.filter(fits));
      left = left.filter((other) => other !== next);
      tried = [...tried, next];
    }
  };
  grow([], all, []);
  return found.filter((clique) => clique.length > 1);
}

/** The values of a variable, smallest first, one for every class that any condition on it tells apart. */
class Values {
  readonly symbol: AnswerSymbol;
  readonly readings: readonly Reading[];
  private readonly claims = new Map<Condition, readonly boolean[]>();

  constructor(
    private readonly plan: Plan,
    private readonly variable: Variable,
    answer: Answer,
    conditions: readonly Condition[],
    diagrams: CheckContext['diagrams'],
  ) {
    const key = variable.name.toLowerCase();
    const atoms = conditions.flatMap((condition) => testsOn(condition, variable, plan));
    const driver: Driver = { ...IDLE, variable, key, atoms };
    this.symbol = new AnswerSymbol(diagrams, driver, answer, key, 0, Infinity, false);
    this.readings = this.symbol.readings
      .filter(({ value, missing }) => value !== null && !missing)
      .sort((a, b) => ((a.value as number | string) < (b.value as number | string) ? -1 : 1));
  }

  /** For which values a condition holds. */
  claimedBy(condition: Condition): readonly boolean[] {
    let claimed = this.claims.get(condition);
    if (claimed === undefined) {
      claimed = this.readings.map((reading) => this.tells(condition, reading));
      this.claims.set(condition, claimed);
    }
    return claimed;
  }

  tells(condition: Condition, reading: Reading): boolean {
    const key = this.variable.name.toLowerCase();
    const store = {
      get: (name: string) => (nameInKey(name) === key ? reading : undefined),
      passesBegun: () => 0,
    };
    return holds(condition, new PlanEnvironment(this.plan, store, 0, null));
  }
}

/** Consecutive values, as first and last index. */
type ValueRun = readonly [from: number, to: number];

function firstGap(
  context: CheckContext,
  steer: Steering,
  values: Values,
  families: readonly Family[],
): Snag[] {
  for (const family of families) {
    const snag = gapIn(context, steer, values, family);
    if (snag !== null) return [snag];
  }
  return [];
}

function gapIn(context: CheckContext, steer: Steering, values: Values, family: Family): Snag | null {
  const { members, at, of } = family;
  if (members.length < 2) return null;
  const { readings } = values;
  const claimed = members.map(({ condition }) => values.claimedBy(condition));
  const claims = readings.map((_, n) => claimed.findIndex((own) => own[n]));
  const gaps = runsOf(claims).filter((gap) => isFew(readings, claims, gap));
  const inside = gaps.filter(([from, to]) => from > 0 && to < readings.length - 1);
  // Where there is one inside, what lies beyond both ends is likely to be meant.
  const told = inside.length > 0 ? inside : runsOf(claims).length === 1 ? gaps : [];
  const [first] = told;
  if (first === undefined) return null;
  const tests = members.map(({ text }) => `“${text}”`);
  const words = told.map((gap) => gapInWords(values, gap)).join(' and ');
  const leaves = `which leaves out ${words}`;
  const neither =
    of === 'the cases'
      ? 'those who answer so have no value'
      : `those who answer so are treated as ${members.length > 2 ? 'none of them' : 'neither'}`;
  return {
    rule: 'values-unclaimed',
    severity: 'warning',
    at,
    message: `${of} deal with ${listInWords(tests)}, ${leaves}: ${neither}`,
    ...witnessFor(context, steer, readings[first[0]]?.value),
    mends: [claims[first[0] - 1], claims[first[1] + 1]].flatMap((by) => {
      const member = by === undefined || by < 0 ? undefined : members[by];
      return member === undefined ? [] : widened(values, member, first);
    }),
  };
}

function listInWords(words: readonly string[]): string {
  return words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
}

/** A few values only: inside, or at an end of what at least two conditions deal with. */
function isFew(readings: readonly Reading[], claims: readonly number[], [from, to]: ValueRun): boolean {
  const inside = from > 0 && to < readings.length - 1;
  const share = shareOf(readings, from, to);
  if (inside) return from === to || share <= FEW;
  return share <= FEW_AT_AN_END && new Set(claims.filter((claim) => claim >= 0)).size >= 2;
}

/** Stretches that nothing claims. */
function runsOf(claims: readonly number[]): ValueRun[] {
  const runs: [number, number][] = [];
  claims.forEach((claim, n) => {
    if (claim >= 0) return;
    const last = runs.at(-1);
    if (last !== undefined && last[1] === n - 1) last[1] = n;
    else runs.push([n, n]);
  });
  return runs;
}

/** `6`, `3 to 5`, `2020-02-29`, or, of moments without a first and last, as a condition. */
function gapInWords(values: Values, [from, to]: ValueRun): string {
  const inside = new Set(values.readings.slice(from, to + 1).map(({ value }) => value));
  const wanted = values.symbol.readings.map(({ value, missing }) => !missing && inside.has(value));
  const may = values.symbol.readings.map(({ value, missing }) => value !== null && !missing);
  const { text } = shortestTest(values.symbol, { wanted, may });
  const one = /^\w+ = (\S+)$/.exec(text)?.[1];
  const range = /^\w+ in \(([^,]+)\.\.([^,]+)\)$/.exec(text);
  if (one !== undefined) return one;
  return range === null ? `“${text}”` : `${range[1]} to ${range[2]}`;
}

/** The stretch as a share of the whole range, both with a value's own width. */
function shareOf(values: readonly Reading[], from: number, to: number): number {
  const at = (index: number): number => {
    const value = values[index]?.value;
    if (typeof value === 'number') return value;
    const text = String(value);
    return (
      Date.parse(/^\d{2}:/.test(text) ? `2000-01-01T${text}Z` : text.includes('T') ? `${text}Z` : text) || 0
    );
  };
  const range = at(values.length - 1) - at(0);
  return range === 0 ? 1 : (at(to) - at(from)) / range;
}

function witnessFor(
  context: CheckContext,
  { variable, planItem }: Steering,
  value: Reading['value'] | undefined,
) {
  const { encoded, flow, diagrams } = context;
  if (planItem === null) return {};
  for (const at of context.placesOf(planItem)) {
    const symbol = encoded.symbols.get(encoded.keyOf(variable, context.standingOf(planItem, at)));
    if (symbol === undefined) continue;
    const reading = symbol.readings.findIndex((each) => each.value === value && !each.missing);
    if (reading < 0) continue;
    const mass = diagrams.and(flow.answersAt(at), symbol.cube(reading));
    const found = context.witness(at, mass);
    if (found.witness !== undefined) return found;
  }
  return {};
}

/** A mend that has one of the conditions deal with the stretch too. */
function widened(values: Values, member: Member, [from, to]: ValueRun): Mend[] {
  const more = new Set(values.readings.slice(from, to + 1).map(({ value }) => value));
  const { readings } = values.symbol;
  const wanted = readings.map(
    (reading) => values.tells(member.condition, reading) || (!reading.missing && more.has(reading.value)),
  );
  const { text } = shortestTest(values.symbol, { wanted, may: readings.map(() => true) });
  return text === '' ? [] : [member.mend(text)];
}
