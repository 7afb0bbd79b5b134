/** Test respondents: walks that were kept, walked again on every edit to tell what is different for them now. */
import { codedRow } from '../coding/row';
import { nameInKey, renamedKey } from '../document/addresses';
import type { Walked } from '../document/walked';
import type { Plan } from '../routing/plan';
import { routeChanges, routeChangeWords } from '../routing/route-changes';
import { contentMarks, routeMarks } from '../routing/route-content';
import { walk, type Walk } from '../routing/walk';
import type { Snag } from './types';

/** A walk as it was kept. */
export interface TestRespondent {
  readonly name: string;
  readonly walked: Walked;
  /** What was presented, and the marks of what was shown, the ending's last. */
  readonly items: readonly string[];
  readonly marks: readonly string[];
  /** The coded row, by column. */
  readonly row: Readonly<Record<string, number | string>>;
}

export type WalkedAgain =
  | {
      readonly ok: true;
      readonly now: Omit<TestRespondent, 'name'>;
      readonly ending: string;
      /** In words; empty where nothing is different. */
      readonly changes: readonly string[];
    }
  | { readonly ok: false; readonly problem: string };

/** What a respondent is to be kept with; null where the walk comes to no ending. */
export function keptOf(
  plan: Plan,
  walked: Walked,
): (Omit<TestRespondent, 'name'> & { ending: string }) | null {
  const result = walk(plan, walked);
  if (!result.ok || result.walk.ending === null) return null;
  return { walked, ...shownOn(plan, result.walk), row: codedRow(plan, result.walk, walked.answers) };
}

/** Walks somebody again, under the names that items have now: an item is known again by what it shows. */
export function walkAgain(plan: Plan, kept: TestRespondent): WalkedAgain {
  const walked = renamed(plan, kept);
  const result = walk(plan, walked);
  if (!result.ok) return { ok: false, problem: result.problem };
  if (result.walk.ending === null)
    return { ok: false, problem: `stops at ${result.walk.steps.at(-1)?.key ?? 'the start'}` };
  const { items, marks, ending } = shownOn(plan, result.walk);
  const row = codedRow(plan, result.walk, walked.answers);
  const shown = routeChanges(kept, { items, marks }).map(routeChangeWords);
  const sameRoute = shown.length === 0;
  const changes = [...shown, ...rowChanges(kept.row, row, sameRoute)];
  return { ok: true, now: { walked, items, marks, row }, ending, changes };
}

/** A snag for each of them for whom something is different. */
export function respondentSnags(plan: Plan, kept: readonly TestRespondent[]): Snag[] {
  return kept.flatMap((respondent): Snag[] => {
    const again = walkAgain(plan, respondent);
    if (!again.ok)
      return [
        {
          rule: 'respondent-changed',
          severity: 'warning',
          at: {},
          message: `Test respondent “${respondent.name}” cannot be walked any more: ${again.problem}. Keep another walk, or delete this one.`,
        },
      ];
    if (again.changes.length === 0) return [];
    const { now, ending, changes } = again;
    const some = changes.slice(0, 3).join('; ');
    const more = changes.length > 3 ? `; and ${changes.length - 3} more` : '';
    return [
      {
        rule: 'respondent-changed',
        severity: 'warning',
        at: {},
        message: `For test respondent “${respondent.name}” something is different: ${some}${more}. If that is meant, keep the walk as it is now.`,
        witness: { ...now.walked, items: now.items, ending },
      },
    ];
  });
}

function shownOn(plan: Plan, { steps, ending }: Walk): { items: string[]; marks: string[]; ending: string } {
  const items = steps.map(({ key }) => key);
  const id = plan.endings[ending ?? 0]?.ending.id ?? '';
  return { items, marks: routeMarks(contentMarks(plan), items, id), ending: id };
}

/** Columns with other values; where the route is the same and all values are, only columns were renamed. */
function rowChanges(before: TestRespondent['row'], now: TestRespondent['row'], sameRoute: boolean): string[] {
  if (sameRoute && Object.values(before).join('\n') === Object.values(now).join('\n')) return [];
  const changed = Object.keys(now).flatMap((column) =>
    column in before && before[column] !== now[column]
      ? [`${column} is coded ${now[column]}, not ${before[column]}`]
      : [],
  );
  const gone = Object.keys(before).filter((column) => !(column in now));
  const added = Object.keys(now).filter((column) => !(column in before));
  return [
    ...changed,
    ...(gone.length > 0 ? [`the row has no ${gone.join(', ')} any more`] : []),
    ...(added.length > 0 ? [`the row has ${added.join(', ')} now`] : []),
  ];
}

function renamed(plan: Plan, { walked, items, marks }: TestRespondent): Walked {
  const known = new Set(plan.sections.flatMap((section) => section.items.map(({ item }) => item.name)));
  const byMark = new Map<string, string>();
  const shown = contentMarks(plan);
  for (const name of known) byMark.set(shown.item(name, null), name);
  const names = new Map<string, string>();
  items.forEach((key, n) => {
    const name = nameInKey(key);
    const now = known.has(name) ? undefined : byMark.get(nameInKey(marks[n] ?? ''));
    if (now !== undefined) names.set(name, now);
  });
  if (names.size === 0) return walked;
  const keyNow = (key: string) => {
    const now = names.get(nameInKey(key));
    return now === undefined ? key : renamedKey(key, now);
  };
  const answers = Object.fromEntries(
    Object.entries(walked.answers).map(([key, value]) => [keyNow(key), value]),
  );
  const draws = Object.fromEntries(
    Object.entries(walked.draws ?? {}).map(([key, drawn]) => [
      key,
      drawn.map((name) => names.get(name) ?? name),
    ]),
  );
  return { ...walked, answers, ...(walked.draws === undefined ? {} : { draws }) };
}
