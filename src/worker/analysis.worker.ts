/** The analysis off the main thread: one questionnaire at a time, asked about by number. */
import { expose } from 'comlink';
import * as v from 'valibot';
import {
  analyse,
  DEFAULT_CAPS,
  sameRouting,
  sharesOf,
  Workshop,
  type Analysis,
  type Shares,
} from '../core/analysis';
import { readDocument } from '../core/document/read';
import { routingContent } from '../core/document/routing-content';
import type { Plan } from '../core/routing/plan';
import { secondsAlong, secondsByName } from '../core/routing/burden';
import { planOf } from '../core/routing/planner';
import { routedSnagsOf } from '../core/snags';
import { contentMarks, fingerprint, routeMarks, type ContentMarks } from '../core/views/route-content';
import type { AnalysisApi, AnalysisSummary, RouteRow, RouteView } from './types';

const NumberText = v.pipe(v.string(), v.regex(/^\d+$/, 'a route number is written in digits'));
const Count = v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(500));
const Marks = v.array(v.string());
const From = v.union([v.strictObject({ item: v.string() }), v.strictObject({ section: v.string() })]);

/** From one edit to the next. */
const workshop = new Workshop();

let analysis: Analysis | null = null;
let marks: ContentMarks | null = null;
let plan: Plan | null = null;
/** What of the questionnaire the analysis is of. */
let analysed: string | null = null;
/** Undefined until they have been asked for. */
let shares: Shares | null | undefined;

function loaded(): { analysis: Analysis; marks: ContentMarks } {
  if (analysis === null || marks === null) throw new Error('no questionnaire has been loaded');
  return { analysis, marks };
}

function sharesNow(): Shares | null {
  if (plan === null) return null;
  if (shares === undefined) shares = sharesOf(plan);
  return shares;
}

const api: AnalysisApi = {
  load(document): AnalysisSummary {
    const read = readDocument(document);
    if (!read.ok) throw new Error(read.problems[0]?.message);
    plan = planOf(read.document);
    const content = routingContent(read.document);
    // An edit of words, or of anything else that leads nobody anywhere, leaves every route as it was.
    const result =
      analysis !== null && content === analysed ? analysis : analyse(plan, DEFAULT_CAPS, workshop);
    analysed = content;
    analysis = result;
    shares = undefined;
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

  asked: () => Object.fromEntries(loaded().analysis.asked),

  snags: () => (plan === null ? [] : routedSnagsOf(plan, loaded().analysis, workshop)),

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
    const { total, exact } = loaded().analysis.filtered({ taking: [way] });
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

  rows(from, count): RouteRow[] {
    const { analysis: of, marks: by } = loaded();
    const first = BigInt(v.parse(NumberText, from));
    const rows: RouteRow[] = [];
    for (let n = 0; n < v.parse(Count, count); n += 1) {
      const outline = of.outline(first + BigInt(n));
      if (outline === null) break;
      const { number, items, ending } = outline;
      rows.push({
        number: String(number),
        items,
        ending,
        fingerprint: fingerprint(routeMarks(by, items, ending)),
      });
    }
    return rows;
  },

  route(number): RouteView | null {
    const { analysis: of, marks: by } = loaded();
    const route = of.route(BigInt(v.parse(NumberText, number)));
    if (route === null) return null;
    const shown = routeMarks(by, route.items, route.ending);
    return {
      ...route,
      number: String(route.number),
      marks: shown,
      fingerprint: fingerprint(shown),
      seconds: plan === null ? 0 : secondsAlong(secondsByName(plan), route.items),
      share: sharesNow()?.ofRoute(route) ?? null,
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

  standing(list) {
    const { analysis: of, marks: by } = loaded();
    return v.parse(v.array(Marks), list).map((shown) => {
      const found = of.numberShowing(shown, by);
      return found === null ? null : String(found);
    });
  },
};

expose(api);
