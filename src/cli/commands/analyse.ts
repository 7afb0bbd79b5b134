/** `jolly-fork analyse FILE`: how many routes, where they end, who is asked what, and few routes that take every fork. */
import {
  analyse,
  sharesOf,
  type Analysis,
  type Route,
  type RouteLength,
  type Shares,
} from '../../core/analysis';
import { secondsByName } from '../../core/routing/burden';
import type { Plan } from '../../core/routing/plan';
import { planOf } from '../../core/routing/planner';
import { placeWords } from '../../core/wording/places';
import { readCall, readQuestionnaire } from '../files';
import { exitCode, judge } from '../judged';
import { routeTable } from '../route-table';
import { table } from '../table';

export function command(args: readonly string[]): number {
  const { file, values } = readCall(args, { pairs: { type: 'boolean' } });
  const plan = planOf(readQuestionnaire(file));
  const analysis = analyse(plan);
  const shares = sharesOf(plan);
  const judged = judge(plan, analysis);
  const { provisional } = judged;
  process.stdout.write(
    values.json
      ? `${JSON.stringify({ ...asJson(plan, analysis, shares, provisional), ...(values.pairs ? pairsJson(analysis) : {}) }, null, 2)}\n`
      : `${report(plan, analysis, shares, provisional)}${values.pairs ? pairsReport(plan, analysis) : ''}`,
  );
  return exitCode(['analyse', ...args], judged);
}

/** Counts and numbers as decimal strings, since they can be of any size. */
export function routeJson(route: Route): object {
  const { number, items, ending, answers, draws, given, full } = route;
  return { number: String(number), items, ending, answers, draws, given, full };
}

function asJson(plan: Plan, analysis: Analysis, shares: Shares | null, provisional: boolean): object {
  const { exact, limits, unsaid, shortest, longest, cover } = analysis;
  const asked = askedInOrder(plan, analysis);
  return {
    ...(provisional ? { provisional } : {}),
    title: plan.document.title,
    items: asked.length,
    routes: String(analysis.routes),
    exact,
    ...(limits.length + unsaid.length === 0 ? {} : { limits: [...limits, ...unsaid] }),
    endings: analysis.endings.map(({ id, routes }) => ({ id, routes: String(routes) })),
    shortest: shortest && { items: shortest.items, number: String(shortest.number) },
    longest: longest && { items: longest.items, number: String(longest.number) },
    asked,
    cover: cover.routes.map(routeJson),
    coverAtLeast: cover.atLeast,
    sample: shares && {
      minutes: shares.minutes,
      endings: shares.endings,
      items: [...shares.items].map(([name, { share }]) => ({ name, share })),
    },
  };
}

function askedInOrder(plan: Plan, { asked, passes, items }: Analysis) {
  return plan.sections.flatMap((section) =>
    section.items.map(({ item: { name } }) => {
      const byPass = passes
        .get(name)
        ?.map(({ pass, routes, if: who }) => ({ pass, routes: String(routes), if: who }));
      return {
        name,
        routes: String(items.get(name) ?? 0n),
        if: asked.get(name) ?? null,
        ...(byPass === undefined ? {} : { passes: byPass }),
      };
    }),
  );
}

const isSomewhere = (at: object): boolean => Object.keys(at).length > 0;

function report(plan: Plan, analysis: Analysis, shares: Shares | null, provisional: boolean): string {
  const { exact, limits, unsaid, shortest, longest, cover } = analysis;
  const slowest = analysis.slowest(secondsByName(plan));
  const total = String(analysis.routes);
  const lines = [
    plan.document.title,
    '',
    `${exact ? '' : 'At least '}${total} ${analysis.routes === 1n ? 'route' : 'routes'}.`,
    ...(provisional ? ['Provisional: the questionnaire has errors (see jolly-fork check).'] : []),
    ...limits.map(({ at, message }) => `Not exact at ${placeWords(plan.document, at)}: ${message}.`),
    ...unsaid.map(
      ({ at, message }) =>
        `Who is asked${isSomewhere(at) ? `, from ${placeWords(plan.document, at)} on` : ''}: ${message}.`,
    ),
    ...(shortest && longest
      ? [
          `Shortest: route ${shortest.number}, ${itemsIn(shortest)}. Longest: route ${longest.number}, ${itemsIn(longest)}.`,
        ]
      : []),
    ...(slowest && shares
      ? [
          `An interview takes about ${minutes(shares.minutes)} on average; route ${slowest.number} takes longest, ${minutes(slowest.seconds / 60)}.`,
        ]
      : []),
    '',
    table(
      ['ending', 'routes', 'of sample'],
      analysis.endings.map(({ id, routes }, n) => [id, String(routes), percent(shares?.endings[n]?.share)]),
      [1, 2],
    ),
    '',
    table(
      ['item', 'on routes', 'of sample', 'asked if'],
      askedInOrder(plan, analysis).map(({ name, routes, if: condition }) => [
        name,
        routes,
        percent(shares?.items.get(name)?.share),
        condition ?? 'cannot be told',
      ]),
      [1, 2],
    ),
    '',
    coverSentence(cover),
    '',
    routeTable(plan, cover.routes),
  ];
  return `${lines.join('\n')}\n`;
}

function pairsJson({ pairs }: Analysis): object {
  return { pairs: pairs.routes.map(routeJson), pairsAtLeast: pairs.atLeast };
}

function pairsReport(plan: Plan, { pairs: { routes, atLeast, pairs, complete } }: Analysis): string {
  if (!complete)
    return '\nThere are too many forks to find routes that take every two of their outcomes; none are listed.\n';
  const these = routes.length === 1 ? 'This route takes' : `These ${routes.length} routes between them take`;
  const bound = routes.length === atLeast ? 'fewer cannot' : `fewer than ${atLeast} cannot`;
  const words = `${these} every two outcomes of forks that anybody meets together\n(${pairs} pairs); ${bound}.`;
  return `\n${words}\n\n${routeTable(plan, routes)}\n`;
}

function percent(share: number | undefined): string {
  return share === undefined ? '?' : `${(share * 100).toFixed(1)}%`;
}

function minutes(count: number): string {
  return `${count.toFixed(1)} minutes`;
}

function itemsIn({ items }: RouteLength): string {
  return items === 1 ? '1 item' : `${items} items`;
}

export function coverSentence({ routes, atLeast, outcomes, of, complete }: Analysis['cover']): string {
  const { length } = routes;
  if (!complete)
    return 'The conditions are too entangled to find a few routes that take every fork; none are listed.';
  if (length === 0) return 'No route comes to an ending, so there is nothing to walk.';
  const these = length === 1 ? 'This route takes' : `These ${length} routes between them take`;
  const bound =
    length === atLeast
      ? 'fewer cannot'
      : `fewer than ${atLeast} cannot, and whether ${atLeast === length - 1 ? atLeast : `${atLeast} to ${length - 1}`} could is not known`;
  if (outcomes < of)
    return `${these} ${outcomes} of ${of} outcomes of forks, items, endings and messages\nthat anybody meets; no route was found for the others: there are too many forks to tell apart.`;
  return `${these} every fork both ways, and present every item, ending and message that anybody meets\n(${outcomes} outcomes); ${bound}.`;
}
