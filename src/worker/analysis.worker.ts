/** The analysis off the main thread: one questionnaire at a time, asked about by number. */
import { expose } from 'comlink';
import * as v from 'valibot';
import {
  analyse,
  AnalysisCache,
  DEFAULT_CAPS,
  sameRouting,
  sharesOf,
  transitionsOf,
  whoFlows,
  type Analysis,
  type Shares,
  type RouteVersion,
} from '../core/analysis';
import { documentGiven, readDocument } from '../core/document/read';
import { withPartsOf } from '../core/document/shared-parts';
import { routingContent } from '../core/document/routing-content';
import { WalkedSchema } from '../core/document/walked';
import { secondsAlong, secondsByName } from '../core/routing/burden';
import type { Plan } from '../core/routing/plan';
import { planOf } from '../core/routing/planner';
import { filterAlong } from '../core/views/forks';
import { routeChanges, routeChangeWords } from '../core/routing/route-changes';
import { contentMarks, fingerprint, routeMarks, type ContentMarks } from '../core/routing/route-content';
import { walk } from '../core/routing/walk';
import { madeUpRespondents } from '../core/simulate/respondents';
import { routedSnagsOf, unsaidSnags, withoutFaults } from '../core/snags';
import { contained } from './contained';
import { ListQuerySchema, NumberText } from './list-query';
import { Lists } from './lists';
import { RouteShares } from './route-shares';
import type { AnalysisApi, AnalysisSummary, RouteRow, RouteView } from './types';

const Count = v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(500));
const Marks = v.array(v.string());
const Names = v.array(v.string());
const FlowingSchema = v.object({
  from: v.nullable(Names),
  to: v.union([Names, v.object({ ending: v.string() })]),
});
const ChoiceSchema = v.object({
  through: v.array(Names),
  avoid: Names,
  ending: v.nullable(v.string()),
});
const LookedAt = v.object({
  items: v.array(v.string()),
  marks: Marks,
  walked: v.nullable(WalkedSchema),
});
const From = v.union([v.strictObject({ item: v.string() }), v.strictObject({ section: v.string() })]);

/** From one edit to the next. */
const cache = new AnalysisCache();

let analysis: Analysis | null = null;
let marks: ContentMarks | null = null;
let plan: Plan | null = null;
/** What of the questionnaire the analysis is of. */
let analysed: string | null = null;
let shares: RouteShares | null = null;
let lists: Lists | null = null;
let seconds: ReturnType<typeof secondsByName> | null = null;
/** What touched routes are told by. */
let since: { readonly text: string; readonly version: RouteVersion } | null = null;

function loaded(): { analysis: Analysis; marks: ContentMarks } {
  if (analysis === null || marks === null) throw new Error('no questionnaire has been loaded');
  return { analysis, marks };
}

const sharesNow = (): Shares | null => shares?.now ?? null;

function listsNow(): Lists {
  const { analysis: of, marks: by } = loaded();
  const versions = () => (since === null ? null : ([of.version(by), since.version] as const));
  lists ??= new Lists({ plan: plan as Plan, analysis: of, shares: sharesNow, versions });
  return lists;
}

function rowOf(number: bigint, times: bigint | null = null): RouteRow | null {
  const { analysis: of, marks: by } = loaded();
  const outline = of.outline(number);
  if (outline === null || plan === null) return null;
  seconds ??= secondsByName(plan);
  const { items, ending } = outline;
  return {
    number: String(number),
    items,
    ending,
    fingerprint: fingerprint(routeMarks(by, items, ending)),
    seconds: secondsAlong(seconds, items),
    times: times === null ? '1' : String(times),
  };
}

const api: AnalysisApi = {
  load(document): AnalysisSummary {
    // What the edit left alone is what it was: much of what was worked out is kept by part.
    const questionnaire = withPartsOf(plan?.document, documentGiven(document));
    plan = planOf(questionnaire, plan);
    const content = routingContent(questionnaire);
    // An edit of words, or of anything else that leads nobody anywhere, leaves every route as it was.
    const result = analysis !== null && content === analysed ? analysis : analyse(plan, DEFAULT_CAPS, cache);
    analysed = content;
    analysis = result;
    const asked = plan;
    shares = new RouteShares(() => sharesOf(asked));
    lists = null;
    seconds = null;
    marks = contentMarks(plan);
    const length = (of: Analysis['shortest']) => of && { items: of.items, number: String(of.number) };
    return {
      routes: String(result.routes),
      exact: result.exact,
      limits: result.limits,
      endings: result.endings.map(({ id, routes }) => ({ id, routes: String(routes) })),
      items: Object.fromEntries([...result.items].map(([name, routes]) => [name, String(routes)])),
      shortest: length(result.shortest),
      longest: length(result.longest),
    };
  },

  asked() {
    const { asked, passes } = loaded().analysis;
    const byItem = [...passes].map(([name, list]) => [
      name,
      list.map(({ pass, routes, if: who }) => ({ pass, routes: String(routes), if: who })),
    ]);
    return { items: Object.fromEntries(asked), passes: Object.fromEntries(byItem) };
  },

  snags: () =>
    plan === null
      ? []
      : withoutFaults(
          [...unsaidSnags(loaded().analysis), ...routedSnagsOf(plan, loaded().analysis, cache)],
          console.error,
        ),

  ways(asked) {
    const from = v.parse(From, asked);
    const shares = sharesNow()?.ways.filter((way) => JSON.stringify(way.from) === JSON.stringify(from));
    const list = 'item' in from ? 'skip' : 'onward';
    const shareOf = (index: number | null) =>
      shares?.find(({ by }) => (by === null ? index === null : by.list === list && by.index === index))
        ?.share ?? null;
    const sections = plan?.sections ?? [];
    const written =
      'item' in from
        ? sections.flatMap(({ items }) => items).find(({ item }) => item.name === from.item)?.skips
        : sections.find(({ section }) => section.id === from.section)?.onward;
    return [...(written ?? []).map(({ index }) => index), null].map((index) => ({
      index,
      share: shareOf(index),
    }));
  },

  routesTaking(asked, at) {
    const from = v.parse(From, asked);
    const index = v.parse(v.pipe(v.number(), v.integer(), v.minValue(0)), at);
    const way = 'item' in from ? { ...from, skip: index } : { ...from, onward: index };
    const { total, exact } = loaded().analysis.filtered({ via: [way] });
    return { routes: String(total), exact };
  },

  leadsAlike(document) {
    const read = readDocument(document);
    return plan === null || !read.ok ? null : sameRouting(plan, planOf(read.document));
  },

  sample() {
    const found = sharesNow();
    return (
      found && {
        items: Object.fromEntries(found.items),
        endings: found.endings,
        minutes: found.minutes,
      }
    );
  },

  since(document) {
    const questionnaire = documentGiven(document);
    const text = JSON.stringify(questionnaire);
    if (text === since?.text) return;
    const before = planOf(questionnaire);
    since = { text, version: analyse(before).version(contentMarks(before)) };
    lists = null;
  },

  list: (asked) => listsNow().summary(v.parse(ListQuerySchema, asked)),

  rows(asked, from, count): RouteRow[] {
    const list = listsNow().of(v.parse(ListQuerySchema, asked));
    const first = BigInt(v.parse(NumberText, from));
    const rows: RouteRow[] = [];
    if (list === null) return rows;
    for (let n = 0; n < v.parse(Count, count); n += 1) {
      const number = list.numberOf(first + BigInt(n));
      const row = number === null ? null : rowOf(number, asked.folded ? list.timesOf(number) : null);
      if (row === null) break;
      rows.push(row);
    }
    return rows;
  },

  positionIn(asked, number) {
    const list = listsNow().of(v.parse(ListQuerySchema, asked));
    const position = list?.positionOf(BigInt(v.parse(NumberText, number))) ?? null;
    return position === null ? null : String(position);
  },

  nextIn(asked, after, passed) {
    const list = listsNow().of(v.parse(ListQuerySchema, asked));
    if (list === null) return null;
    const numbers = new Set(v.parse(v.array(NumberText), passed));
    const start = after === null ? null : list.positionOf(BigInt(v.parse(NumberText, after)));
    // Few routes are passed, so one that is not is found after at most as many steps.
    for (let k = (start ?? 0n) + 1n; ; k += 1n) {
      const number = list.numberOf(k);
      if (number === null || !numbers.has(String(number))) return number === null ? null : String(number);
    }
  },

  sharesOf(numbers) {
    const { analysis: of } = loaded();
    return v.parse(v.array(NumberText), numbers).map((number) => {
      const outline = of.outline(BigInt(number));
      return outline && (shares?.ofRoute(outline) ?? null);
    });
  },

  route(number): RouteView | null {
    const { analysis: of, marks: by } = loaded();
    const route = of.route(BigInt(v.parse(NumberText, number)));
    if (route === null) return null;
    const row = rowOf(route.number);
    if (row === null) return null;
    return {
      ...route,
      ...row,
      marks: routeMarks(by, route.items, route.ending),
      share: shares?.ofRoute(route) ?? null,
    };
  },

  ahead(items) {
    const found = loaded().analysis.ahead(v.parse(Marks, items));
    return found && { ...found, routes: String(found.routes) };
  },

  numberOf(items, ending) {
    const found = loaded().analysis.numberOf(v.parse(Marks, items), v.parse(v.string(), ending));
    return found === null ? null : String(found);
  },

  numbersOf(routes) {
    const { analysis: of } = loaded();
    return v
      .parse(v.array(v.object({ items: Marks, ending: v.string() })), routes)
      .map(({ items, ending }) => {
        const found = of.numberOf(items, ending);
        return found === null ? null : String(found);
      });
  },

  likely: () => listsNow().likely(),

  flows: () => (plan === null ? null : transitionsOf(plan, sharesNow())),

  whoFlows: (flowing) => (plan === null ? null : whoFlows(plan, v.parse(FlowingSchema, flowing))),

  totals: (choices) =>
    v
      .parse(v.array(ChoiceSchema), choices)
      .map((choice) => String(loaded().analysis.filtered(filterAlong(choice)).total)),

  became(routes) {
    const { analysis: of, marks: by } = loaded();
    return v.parse(v.array(LookedAt), routes).map(({ walked, ...before }) => {
      const again = plan === null || walked === null ? null : walk(plan, walked);
      if (plan === null || again === null || !again.ok || again.walk.ending === null) return null;
      const items = again.walk.steps.map(({ key }) => key);
      const ending = plan.endings[again.walk.ending]?.ending.id ?? '';
      const number = of.numberOf(items, ending);
      if (number === null) return null;
      const changes = routeChanges(before, { items, marks: routeMarks(by, items, ending) });
      return { number: String(number), changes: changes.map(routeChangeWords) };
    });
  },

  drawn(seed, count) {
    const { analysis: of } = loaded();
    if (plan === null) return [];
    const { endings } = plan;
    const people = madeUpRespondents(plan, v.parse(Count, count), v.parse(v.number(), seed));
    return [...people].map(({ ending, presented }) => {
      if (ending === null) return null;
      const number = of.numberOf(presented, endings[ending]?.ending.id ?? '');
      return number === null ? null : String(number);
    });
  },

  standing(list) {
    const { analysis: of, marks: by } = loaded();
    return v.parse(v.array(Marks), list).map((shown) => {
      const found = of.numberShowing(shown, by);
      return found === null ? null : String(found);
    });
  },
};

expose(contained(api));
