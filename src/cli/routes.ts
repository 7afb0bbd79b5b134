/** `jolly-fork routes FILE --from K --limit N`: routes in canonical order, with a respondent for each. */
import { analyse, type Route, type RouteFilter } from '../core/analysis';
import type { Plan } from '../core/routing/plan';
import { planOf } from '../core/routing/planner';
import { routeJson } from './analyse';
import { hasErrors, Misuse, readCall, readQuestionnaire } from './files';
import { routeTable } from './route-table';

const OPTIONS = {
  from: { type: 'string' },
  limit: { type: 'string' },
  through: { type: 'string' },
  avoid: { type: 'string' },
  ending: { type: 'string' },
} as const;

export function routesCommand(args: readonly string[]): number {
  const { file, values } = readCall(args, OPTIONS);
  const plan = planOf(readQuestionnaire(file));
  const from = readCount(values.from ?? '1', '--from');
  const limit = readCount(values.limit ?? '20', '--limit');
  const filter = readFilter(plan, values);
  const analysis = analyse(plan);
  const left = analysis.filtered(filter);
  const routes: Route[] = [];
  for (let k = from; k < from + limit; k += 1n) {
    const number = left.numberOf(k);
    const route = number === null ? null : analysis.route(number);
    if (route === null) break;
    routes.push(route);
  }
  const provisional = hasErrors(plan, analysis);
  const { exact, limits } = analysis;
  const output = {
    ...(provisional ? { provisional } : {}),
    total: String(left.total),
    ...(exact ? {} : { exact, limits }),
    routes: routes.map(routeJson),
  };
  if (values.json) process.stdout.write(`${JSON.stringify(output, null, 2)}\n`);
  else process.stdout.write(report(plan, output.total, routes, { provisional, exact }));
  return provisional ? 1 : 0;
}

function readCount(text: string | boolean, option: string): bigint {
  if (typeof text === 'string' && /^[1-9]\d*$/.test(text)) return BigInt(text);
  throw new Misuse(`${option} takes a whole number from 1, not "${String(text)}"`);
}

function readFilter(plan: Plan, values: Record<string, string | boolean | undefined>): RouteFilter {
  const items = new Set(plan.sections.flatMap((section) => section.items.map(({ item }) => item.name)));
  const filter: Record<string, string> = {};
  for (const option of ['through', 'avoid'] as const) {
    const name = values[option];
    if (typeof name !== 'string') continue;
    if (!items.has(name)) throw new Misuse(`--${option}: there is no item "${name}"`);
    filter[option] = name;
  }
  const { ending } = values;
  if (typeof ending !== 'string') return filter;
  if (!plan.endings.some((end) => end.ending.id === ending))
    throw new Misuse(`--ending: there is no ending "${ending}"`);
  return { ...filter, ending };
}

function report(
  plan: Plan,
  total: string,
  routes: readonly Route[],
  { provisional, exact }: { provisional: boolean; exact: boolean },
): string {
  return [
    `${plan.document.title}: ${exact ? '' : 'at least '}${total} routes`,
    ...(provisional ? ['Provisional: the questionnaire has errors (see jolly-fork check).'] : []),
    '',
    routeTable(plan, routes),
    '',
  ].join('\n');
}
