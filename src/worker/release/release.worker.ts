/** What a release asks for off the main thread: which routes are left to pass, and two versions held against each other. */
import { expose, wrap } from 'comlink';
import * as v from 'valibot';
import { analyse, type Analysis } from '../../core/analysis';
import { documentGiven } from '../../core/document/read';
import { routingContent } from '../../core/document/routing-content';
import { besideThrough, type BesideApi, type OpenBeside } from '../../core/release/beside';
import { bothSides, type Side } from '../../core/release/both-sides';
import { compareThese } from '../../core/release/compare';
import { contentGiven } from '../../core/release/content-given';
import { DIFFERING, differingRoutes, type DifferingRoutes } from '../../core/release/differing-routes';
import type { FormatWriter, StudyContent, Written } from '../../core/release/format-types';
import { fileNameFor, KNOWN, kindsOf } from '../../core/release/formats/known';
import { WRITERS } from '../../core/release/formats/writers';
import { MOST_ROWS, rowsGiven } from '../../core/release/data/rows';
import { twoSheets } from '../../core/release/two-sheets';
import { versionsOf, type Versions } from '../../core/release/versions';
import { zipped } from '../../core/exchange/zipped';
import { planOf } from '../../core/routing/planner';
import { contentMarks } from '../../core/routing/route-content';
import { brokenDown } from '../broken-down';
import { contained } from '../contained';
import { NumberText } from '../list-query';
import type { ReleaseApi } from './types';

const MarkLists = v.array(v.array(v.string()));
const Whole = v.pipe(v.number(), v.integer(), v.minValue(0));
const Asked = v.object({
  format: v.picklist(Object.keys(WRITERS) as (keyof typeof WRITERS)[]),
  kind: v.string(),
  post: v.optional(v.pipe(v.string(), v.url())),
  rows: v.optional(
    v.variant('of', [
      v.object({ of: v.literal('made-up'), count: v.pipe(Whole, v.maxValue(MOST_ROWS)), seed: Whole }),
      v.object({
        of: v.literal('rows'),
        about: v.string(),
        header: v.array(v.string()),
        rows: v.array(v.array(v.union([v.string(), v.number()]))),
      }),
    ]),
  ),
});
/** Of the questionnaire asked about last: edits of words lead nobody elsewhere. */
let counted: { readonly content: string; readonly analysis: Analysis } | null = null;
let compared: { readonly versions: Versions; readonly routes: DifferingRoutes } | null = null;

/** Some files of a package are made in a worker of this worker. */
const beside: OpenBeside = (content) => {
  const worker = new Worker(new URL('./beside.worker.ts', import.meta.url), { type: 'module' });
  const end = () => worker.terminate();
  return besideThrough(wrap<BesideApi>(worker), content, end, brokenDown(worker));
};

function bytesOf(written: Exclude<Written, string>): Uint8Array<ArrayBuffer> {
  return written instanceof Uint8Array ? new Uint8Array(written) : zipped(written);
}

const text = (number: bigint | null) => (number === null ? null : String(number));
const shown = (side: Side) => ({ ...side, number: text(side.number) });

const api: ReleaseApi = {
  passedRoutes(asked, marks) {
    const document = documentGiven(asked);
    const plan = planOf(document);
    const content = routingContent(document);
    if (counted?.content !== content) counted = { content, analysis: analyse(plan) };
    const { analysis } = counted;
    const by = contentMarks(plan);
    const passed = v
      .parse(MarkLists, marks)
      .flatMap((route) => analysis.numberShowing(route, by) ?? [])
      .map(String);
    return {
      total: String(analysis.routes),
      exact: analysis.exact,
      cover: analysis.cover.routes.map(({ number }) => String(number)),
      covered: analysis.cover.complete,
      passed: [...new Set(passed)],
    };
  },

  async file(asked, document, version, progress) {
    const { format, kind, rows, post } = v.parse(Asked, asked);
    const { write, losses }: FormatWriter = WRITERS[format];
    if (!kindsOf(format).includes(kind))
      throw new Error(`no file is written as ${format} with the ending ${kind}`);
    const given = contentGiven(document, version, post);
    const data = rows && rowsGiven(planOf(given.document), rows);
    if (data?.ok === false) throw new Error(data.problems.join(' '));
    const content: StudyContent = { ...given, ...(data === undefined ? {} : { data: data.data }) };
    const written = await write(content, kind, {
      progress: (done, of) => void progress(done, of),
      beside,
    });
    const body = typeof written === 'string' ? written : bytesOf(written);
    return {
      name: fileNameFor(content.document, format, content.version?.number, kind),
      blob: new Blob([body], { type: KNOWN[format].mediaType }),
      losses: await losses(content),
    };
  },

  compare(old, now) {
    const versions = versionsOf(documentGiven(old), documentGiven(now));
    const routes = differingRoutes(versions);
    compared = { versions, routes };
    const found = compareThese(versions, routes);
    const { share, exact } = found.routes;
    return {
      routes: {
        old: String(found.routes.old),
        now: String(found.routes.now),
        lost: text(found.routes.lost),
        gained: text(found.routes.gained),
        changed: text(found.routes.changed),
        share,
        exact,
      },
      breaks: found.breaks.map(({ name, why }) => ({ name, why })),
      sheets: twoSheets(versions, found),
    };
  },

  bothSides(which, k) {
    if (compared === null) throw new Error('no versions have been compared');
    const { versions, routes } = compared;
    const found = bothSides(
      versions,
      routes,
      v.parse(v.picklist(DIFFERING), which),
      BigInt(v.parse(NumberText, k)),
    );
    return found && { rows: found.rows, old: shown(found.old), now: shown(found.now) };
  },
};

expose(contained(api));
