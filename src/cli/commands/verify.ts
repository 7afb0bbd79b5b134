/** `jolly-fork verify FILE --observed STEPS.csv`: what another implementation showed, held against the routing. */
import { analyse } from '../../core/analysis';
import { isDefused } from '../../core/exchange/csv';
import { STEP_COLUMNS } from '../../core/release/steps';
import { Verification, type ObservedStep, type Verified } from '../../core/release/verify';
import type { Plan } from '../../core/routing/plan';
import { planOf } from '../../core/routing/planner';
import { forkEventWords } from '../../core/views/fork-events';
import { Misuse, readCall, readQuestionnaire } from '../files';
import { openRows } from '../table-files';

/** All are held until their respondents are whole, in whatever order they stand. */
const MOST_STEPS = 2_000_000;

/** 1 where somebody left the route that they should have taken. */
export async function command(args: readonly string[]): Promise<number> {
  const { file, values } = readCall(args, { observed: { type: 'string' } } as const);
  const { observed } = values;
  if (typeof observed !== 'string') throw new Misuse('verify needs --observed STEPS.csv');
  const plan = planOf(readQuestionnaire(file));
  const verification = new Verification(plan, analyse(plan));
  for (const [respondent, steps] of await readObserved(observed)) verification.take(respondent, steps);
  const found = verification.result();
  process.stdout.write(
    values.json ? `${JSON.stringify(asJson(plan, found), null, 2)}\n` : `${report(plan, found).join('\n')}\n`,
  );
  return found.differ.length > 0 ? 1 : 0;
}

/** By respondent, in the order in which they come first. */
async function readObserved(file: string): Promise<Map<string, ObservedStep[]>> {
  const { rows } = await openRows(file);
  const found = new Map<string, ObservedStep[]>();
  let places: number[] | null = null;
  let line = 0;
  for await (const bunch of rows)
    for (const row of bunch) {
      line += 1;
      if (places === null) {
        places = placesOf(file, row);
        continue;
      }
      if (line > MOST_STEPS)
        throw new Misuse(`${file}: more than ${MOST_STEPS.toLocaleString('en')} steps: verify parts of them`);
      const [respondent = '', step = '', item = '', answer = ''] = places.map((at) => cell(row[at] ?? ''));
      if (item === '') throw new Misuse(`${file}: row ${line}: there is no item`);
      const steps = found.get(respondent);
      if (steps === undefined) found.set(respondent, [{ step, item, answer }]);
      else steps.push({ step, item, answer });
    }
  if (places === null) throw new Misuse(`${file}: there is nothing in it`);
  return found;
}

/** Where each column stands; others are passed over. */
function placesOf(file: string, header: readonly string[]): number[] {
  const names = header.map((name) => name.trim().toLowerCase());
  const missing = STEP_COLUMNS.filter((name) => !names.includes(name));
  if (missing.length > 0)
    throw new Misuse(
      `${file}: the columns ${STEP_COLUMNS.join(', ')} are needed; missing: ${missing.join(', ')}`,
    );
  return STEP_COLUMNS.map((name) => names.indexOf(name));
}

/** Without the apostrophe that keeps a spreadsheet from running it. */
const cell = (text: string) => (text.startsWith("'") && isDefused(text.slice(1)) ? text.slice(1) : text);

function asJson(plan: Plan, { respondents, agree, differ, forks }: Verified) {
  return {
    respondents,
    agree,
    differ: differ.map(({ step, ...rest }) => ({ ...rest, step: /^\d+$/.test(step) ? Number(step) : step })),
    forks: {
      all: forks.all,
      taken: forks.taken,
      untaken: forks.untaken.map((event) => forkEventWords(plan, event)),
      complete: forks.complete,
    },
  };
}

function report(plan: Plan, { respondents, agree, differ, forks }: Verified): string[] {
  return [
    `${respondents} respondents: ${agree} as they should be, ${differ.length} not`,
    ...differ.map(
      ({ respondent, step, expected, seen, because }) =>
        `  ${respondent}, step ${step}: ${seen} was shown${expected === '' ? '' : `, ${expected} should come`} (${because})`,
    ),
    '',
    forks.untaken.length === 0
      ? `All ${forks.all} outcomes of forks were tried.`
      : `${forks.taken} of ${forks.all} outcomes of forks were tried. Nobody has tried yet:`,
    ...forks.untaken.map((event) => `  ${forkEventWords(plan, event)}`),
    ...(forks.complete ? [] : ['The forks are too many to be sure that these are all.']),
  ];
}
