/** `jolly-fork routes FILE --from K --limit N`: routes in canonical order, with a respondent for each. */
import { analyse, type Route, type RouteFilter, type Via } from '../../core/analysis';
import type { Plan } from '../../core/routing/plan';
import { planOf } from '../../core/routing/planner';
import { routeJson } from './analyse';
import { Misuse, readCall, readQuestionnaire } from '../files';
import { exitCode, judge } from '../judged';
import { routeTable } from '../route-table';

const OPTIONS = {
  from: { type: 'string' },
  limit: { type: 'string' },
  through: { type: 'string' },
  avoid: { type: 'string' },
  ending: { type: 'string' },
  taking: { type: 'string' },
} as const;

export function command(args: readonly string[]): number {
  const { file, values } = readCall(args, OPTIONS);
  const plan = planOf(readQuestionnaire(file));
  const from = readCount(values.from ?? '1', '--from');
  const limit = readCount(values.limit ?? '20', '--limit');
  const filter = readFilter(plan, values);
  const analysis = analyse(plan);
  const left = analysis.filtered(filter);
  const routes: Route[] = [];
  for (let k = from; k < from + limit; k += 1n) {
    const route = left.route(k);
    if (route === null) break;
    routes.push(route);
  }
  const judged = judge(plan, analysis);
  const { provisional } = judged;
  const exact = analysis.exact && left.exact;
  const { limits } = analysis;
  const output = {
    ...(provisional ? { provisional } : {}),
    total: String(left.total),
    ...(exact ? {} : { exact, limits }),
    routes: routes.map(routeJson),
  };
  if (values.json) process.stdout.write(`${JSON.stringify(output, null, 2)}\n`);
  else process.stdout.write(report(plan, output.total, routes, { provisional, exact }));
  return exitCode(['routes', ...args], judged);
}

function readCount(text: string | boolean, option: string): bigint {
  if (typeof text === 'string' && /^[1-9]\d*$/.test(text)) return BigInt(text);
  throw new Misuse(`${option} takes a whole number from 1, not "${String(text)}"`);
}

function readFilter(plan: Plan, values: Record<string, string | boolean | undefined>): RouteFilter {
  const items = new Set(plan.sections.flatMap((section) => section.items.map(({ item }) => item.name)));
  const filter: { through?: [string][]; avoid?: string[]; ending?: string } = {};
  for (const option of ['through', 'avoid'] as const) {
    const name = values[option];
    if (typeof name !== 'string') continue;
    if (!items.has(name)) throw new Misuse(`--${option}: there is no item "${name}"`);
    if (option === 'through') filter.through = [[name]];
    else filter.avoid = [name];
  }
  const { ending, taking } = values;
  if (typeof ending === 'string') {
    if (!plan.endings.some((end) => end.ending.id === ending))
      throw new Misuse(`--ending: there is no ending "${ending}"`);
    filter.ending = ending;
  }
  if (typeof taking !== 'string') return filter;
  return { ...filter, via: taking.split(',').map((way) => readWay(plan, way.trim())) };
}

/** `NAME:N`, the N-th skip of an item; `SECTION:N`, the N-th onward entry of a section; or the id of a quota. */
function readWay(plan: Plan, text: string): Via {
  const [name = '', number] = text.split(':');
  const item = plan.sections.flatMap(({ items }) => items).find((each) => each.item.name === name);
  const section = plan.sections.find((each) => each.section.id === name);
  if (number === undefined) {
    if (plan.document.quotas?.some(({ id }) => id === name)) return { quota: name };
    throw new Misuse(`--taking: there is no quota "${name}"; of a skip write NAME:N, the N-th of an item`);
  }
  const index = Number(number) - 1;
  if (item?.skips.some((skip) => skip.index === index)) return { item: name, skip: index };
  if (section?.onward.some((entry) => entry.index === index)) return { section: name, onward: index };
  if (item === undefined && section === undefined)
    throw new Misuse(`--taking: there is no item or section "${name}"`);
  const has = item === undefined ? (section?.onward.length ?? 0) : item.skips.length;
  const what = item === undefined ? 'onward' : 'skip';
  const count = has === 0 ? `no ${what}` : has === 1 ? `one ${what}` : `${has} ${what}s`;
  throw new Misuse(`--taking: "${name}" has ${count}, so no number ${number}`);
}

function report(
  plan: Plan,
  total: string,
  routes: readonly Route[],
  { provisional, exact }: { provisional: boolean; exact: boolean },
): string {
  return [
    `${plan.document.title}: ${exact ? '' : 'at least '}${total} ${total === '1' ? 'route' : 'routes'}`,
    ...(provisional ? ['Provisional: the questionnaire has errors (see jolly-fork check).'] : []),
    '',
    routeTable(plan, routes),
    '',
  ].join('\n');
}
