/**
 * `jolly-fork forecast FILE --starts N [--break-off P] [--goal NAME=n]… [--set NAME]`: how many will be asked each question, how long it
 * takes, and how many have to start for enough of some.
 */
import type { Group } from '../../core/analysis';
import { readPassKey } from '../../core/document/addresses';
import { assumedInSet, setsOf } from '../../core/forecast/sets';
import { Forecaster, type Expected, type Forecast } from '../../core/forecast/forecast';
import type { Plan } from '../../core/routing/plan';
import { planOf } from '../../core/routing/planner';
import { placeWords } from '../../core/wording/places';
import { Misuse, readCall, readMany, readQuestionnaire, readWhole } from '../files';
import { exitCode, judge } from '../judged';
import { table } from '../table';

const OPTIONS = {
  starts: { type: 'string' },
  'break-off': { type: 'string' },
  goal: { type: 'string', multiple: true },
  set: { type: 'string' },
} as const;

export function command(args: readonly string[]): number {
  const { file, values } = readCall(args, OPTIONS);
  const starts = readWhole(values.starts, '--starts', 1);
  const breakOff = readChance(values['break-off'] ?? '0');
  const plan = planOf(readQuestionnaire(file));
  const goals = readMany(values, 'goal').map((goal) => readGoal(plan, goal));
  const assumptions = assumedInSet(plan.document, readSet(plan, values.set ?? null));
  const forecast = new Forecaster(plan).forecast({ starts, breakOff, goals, assumptions });
  const judged = judge(plan);
  process.stdout.write(
    values.json
      ? `${JSON.stringify(asJson(starts, forecast, judged.provisional), null, 2)}\n`
      : report(plan, starts, breakOff, forecast, judged.provisional),
  );
  return exitCode(['forecast', ...args], judged);
}

function readChance(text: string | boolean): number {
  const chance = Number(text);
  if (typeof text !== 'string' || text.trim() === '' || !(chance >= 0 && chance < 1))
    throw new Misuse(
      `--break-off ${String(text)}: the chance of breaking off a minute is a number from 0 to below 1, say 0.01`,
    );
  return chance;
}

/** A set of assumptions by its name; null: what stands at the questions. */
function readSet({ document }: Plan, name: string | boolean | null): string | null {
  if (name === null) return null;
  const names = setsOf(document).map((set) => set.name);
  const found = names.find((of) => of.toLowerCase() === String(name).toLowerCase());
  if (found !== undefined) return found;
  const there = names.length === 0 ? 'it has none' : `it has ${names.join(', ')}`;
  throw new Misuse(`--set ${String(name)}: the questionnaire has no such set of assumptions: ${there}`);
}

/** `NAME=n`: of an item, an item in one pass (`NAME#2=n`), or an ending. */
function readGoal(plan: Plan, text: string): { group: Group; n: number } {
  const at = text.lastIndexOf('=');
  const key = text.slice(0, Math.max(0, at));
  const n = Number(text.slice(at + 1));
  if (at < 1 || !Number.isSafeInteger(n) || n < 1)
    throw new Misuse(`--goal ${text}: give a name and how many are wanted, say --goal heat_pump=100`);
  const { name, pass } = readPassKey(key);
  const section = plan.sections.find(({ items }) => items.some(({ item }) => item.name === name));
  if (section !== undefined && (pass === null || pass <= (section.repeat?.max ?? 0)))
    return { group: { item: name, pass }, n };
  if (plan.endings.some(({ ending }) => ending.id === key)) return { group: { ending: key }, n };
  throw new Misuse(
    section === undefined
      ? `--goal ${text}: “${key}” is neither an item nor an ending`
      : `--goal ${text}: “${name}” has no pass ${pass}`,
  );
}

const nameOf = (group: Group): string =>
  'ending' in group ? group.ending : 'section' in group ? group.section : group.item;

function asJson(
  starts: number,
  { exact, limits, items, endings, minutes, goals }: Forecast,
  provisional: boolean,
): object {
  const numbers = ({ share, expected, low, high, error }: Expected) => ({
    share,
    expected,
    low,
    high,
    ...(error === null ? {} : { error }),
  });
  return {
    ...(provisional ? { provisional } : {}),
    starts,
    items: items.map((of) => ({ ...named(of.group), ...numbers(of) })),
    endings: endings.map((of) => ({ id: nameOf(of.group), ...numbers(of) })),
    minutes,
    goals: goals.map(({ group, n, starts: needed }) => ({
      ...named(group),
      n,
      starts50: needed[50],
      starts90: needed[90],
      starts95: needed[95],
    })),
    exact,
    ...(limits.length === 0 ? {} : { limits }),
  };
}

function named(group: Group): { name: string; pass?: number } {
  return 'item' in group && group.pass !== null
    ? { name: group.item, pass: group.pass }
    : { name: nameOf(group) };
}

function report(
  plan: Plan,
  starts: number,
  breakOff: number,
  { limits, items, endings, minutes, goals }: Forecast,
  provisional: boolean,
): string {
  const row = ({ group, share, expected, low, high, error }: Expected) => [
    'item' in group && group.pass !== null ? `  pass ${group.pass}` : nameOf(group),
    `${(100 * share).toFixed(1)}%`,
    expected.toFixed(0),
    `${low} to ${high}`,
    error === null ? '' : `simulated, ± ${(100 * error).toFixed(1)}`,
  ];
  const isSimulated = [...items, ...endings].some(({ error }) => error !== null);
  const columns = (first: string, rows: readonly Expected[]) =>
    table(
      [first, 'share', 'expected', '95 in 100 times', ...(isSimulated ? [''] : [])],
      rows.map((of) => (isSimulated ? row(of) : row(of).slice(0, 4))),
      [1, 2, 3],
    );
  const people = (count: number | null) => (count === null ? 'no number' : String(count));
  const lines = [
    plan.document.title,
    '',
    `Of ${starts} who start${breakOff > 0 ? `, of whom ${(100 * breakOff).toFixed(1)} in 100 break off every minute` : ''}, by the assumed answers:`,
    ...(provisional ? ['Provisional: the questionnaire has errors (see jolly-fork check).'] : []),
    ...limits.map(({ at, message }) =>
      Object.keys(at).length === 0
        ? `Simulated in part: ${message}.`
        : `Simulated, since it cannot be told exactly at ${placeWords(plan.document, at)}: ${message}.`,
    ),
    '',
    columns('ending', endings),
    '',
    columns('asked', items),
    '',
    minutes === null
      ? 'Nobody comes to the end of an interview.'
      : `An interview that is finished takes ${minutes.mean.toFixed(1)} minutes on average: 1 in 10 at most ${minutes.p10.toFixed(1)}, half at most ${minutes.median.toFixed(1)}, 9 in 10 at most ${minutes.p90.toFixed(1)}, the longest ${minutes.longest.toFixed(1)}.`,
    ...(goals.length === 0
      ? []
      : [
          '',
          table(
            ['wanted', '', 'start, half certain', '90%', '95%'],
            goals.map(({ group, n, starts: needed }) => [
              'item' in group && group.pass !== null ? `${group.item}, pass ${group.pass}` : nameOf(group),
              String(n),
              people(needed[50]),
              people(needed[90]),
              people(needed[95]),
            ]),
            [1, 2, 3, 4],
          ),
        ]),
  ];
  return `${lines.join('\n')}\n`;
}
