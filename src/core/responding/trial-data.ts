/** What was answered under a link, as it leaves the house: a coded row for each response, and all that is kept of it. */
import { columnsOf } from '../coding/columns';
import { codedRow } from '../coding/row';
import { readPassKey } from '../document/addresses';
import type { Answers } from '../document/types';
import { csvLines } from '../exchange/csv';
import type { Plan } from '../routing/plan';
import { postedCase, walkOfCase, type Asked, type PostedCase } from './case-data';
import type { Device } from './trial-settings';
import type { TurnedCase } from './turn';

export interface TrialCase {
  readonly kept: TurnedCase;
  readonly device: Device;
  /** Whoever has a link of their own, as the sample calls them; null for the others. */
  readonly person: string | null;
  /** From 1 in the order of the sitting. */
  readonly part: number;
  /** Milliseconds since 1970. */
  readonly changedAt: number;
}

/** A response in full; what `PostedCase` has, and what is kept under a link besides. */
export interface TrialRecord extends Omit<PostedCase, 'contract'> {
  readonly person: string | null;
  readonly part: number;
  readonly device: Device;
  /** Arms and other values known beforehand. */
  readonly given: Answers;
  readonly seed: number;
  /** Names of the questions that were drawn, by section (`id#pass` in a repeat). */
  readonly draws: Readonly<Record<string, readonly string[]>>;
  /** Ids of the quotas that were full when they came to them. */
  readonly full: readonly string[];
  readonly changedAt: string;
}

/** In front of the columns of the codebook. */
const OF_RESPONSE = [
  'case',
  'person',
  'part',
  'state',
  'started',
  'changed',
  'closed',
  'minutes',
  'pages',
  'went_back',
  'device',
  'version',
] as const;

export function trialRecord(plan: Plan, of: TrialCase, asked: Asked): TrialRecord {
  const { contract: _contract, ...posted } = postedCase(plan, of.kept, asked);
  const walked = walkOfCase(plan, of.kept);
  const draws = [...(walked?.drawn ?? [])].map(([key, indices]) => {
    const section = plan.sections.find(({ section: { id } }) => id === readPassKey(key).name);
    return [key, [...indices].flatMap((index) => section?.items[index]?.item.name ?? [])];
  });
  return {
    ...posted,
    person: of.person,
    part: of.part,
    device: of.device,
    given: of.kept.given,
    seed: of.kept.seed,
    draws: Object.fromEntries(draws) as TrialRecord['draws'],
    full: of.kept.full,
    changedAt: new Date(of.changedAt).toISOString(),
  };
}

/** Coded rows under the columns of the codebook; `caseColumn`: with one of that name in front, if the questionnaire has none. */
export function trialRows(
  plan: Plan,
  cases: readonly TrialCase[],
  caseColumn: string | null = null,
): (string | number)[][] {
  const columns = columnsOf(plan).map(({ name }) => name);
  const isLed = caseColumn !== null && !columns.some((name) => name.toLowerCase() === caseColumn);
  return [
    [...(isLed ? [caseColumn] : []), ...columns],
    ...cases.map(({ kept }) => [...(isLed ? [kept.id] : []), ...cellsOf(plan, kept, columns)]),
  ];
}

function cellsOf(plan: Plan, kept: TurnedCase, columns: readonly string[]): (string | number)[] {
  const walked = walkOfCase(plan, kept);
  const row = walked === null ? {} : codedRow(plan, walked, kept.answers);
  return columns.map((name) => row[name] ?? '');
}

/**
 * Rows under a header, with the columns of the codebook behind those that say which response it is. A column that the
 * questionnaire calls the same keeps its name, and the other gets `_` in front.
 */
export function trialCsv(plan: Plan, cases: readonly TrialCase[], { version }: Asked): string {
  const columns = columnsOf(plan).map(({ name }) => name);
  const taken = new Set(columns.map((name) => name.toLowerCase()));
  const own = OF_RESPONSE.map((name) => {
    let free: string = name;
    while (taken.has(free)) free = `_${free}`;
    return free;
  });
  const rows = cases.map(({ kept, device, person, part, changedAt }) => {
    const { closed, visits } = kept;
    const seconds = visits.reduce((sum, visit) => sum + visit.seconds, 0);
    return [
      ...[kept.id, person ?? '', part, stateOf(kept)],
      ...[kept.startedAt, changedAt, closed?.at ?? null].map((at) =>
        at === null ? '' : new Date(at).toISOString(),
      ),
      ...[(seconds / 60).toFixed(2), visits.length, turnsBack(kept), device, version],
      ...cellsOf(plan, kept, columns),
    ];
  });
  return csvLines([[...own, ...columns], ...rows]);
}

const STATES = { ending: 'ended', stop: 'stopped', time: 'time_over' } as const;
const stateOf = ({ closed }: TurnedCase) => (closed === null ? 'answering' : STATES[closed.by]);

/** How often a page was left for one that had been seen before. */
function turnsBack({ visits }: TurnedCase): number {
  const seen = new Set<string>();
  let back = 0;
  for (const { page } of visits) {
    if (seen.has(page)) back += 1;
    seen.add(page);
  }
  return back;
}
