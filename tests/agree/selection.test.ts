/** Routes folded over what was drawn, and those that only one of two versions has, against trying everything. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import type { RouteFilter, Selected } from '../../src/core/analysis';
import { readDocument } from '../../src/core/document/read';
import type { Questionnaire } from '../../src/core/document/types';
import type { Plan } from '../../src/core/routing/plan';
import { contentMarks, routeMarks } from '../../src/core/routing/route-content';
import { planFor } from '../support/questionnaire';
import { anyChange, intOf } from './changes';
import { randomChain, randomDocument } from './documents';
import { caseOf, type Case } from './judges';
import { seedsToTry } from './seeds';

const DRAWN = seedsToTry([], 400);
const EDITED = seedsToTry([7], 200);

/** Numbers of the routes that are left, in order, those that are one in a list. */
type Rows = readonly (readonly bigint[])[];

function judgeRows(selected: Selected | null, rows: Rows, routes: number, where: string): void {
  assert.ok(selected, where);
  const ks = rows.map((_, n) => BigInt(n + 1));
  assert.equal(selected.total, BigInt(rows.length), `${where}: rows`);
  assert.deepEqual(
    ks.map((k) => [selected.numberOf(k), selected.timesOf(k)]),
    rows.map((row) => [row[0], BigInt(row.length)]),
    where,
  );
  const places = new Map(rows.flatMap((row, n) => row.map((number) => [number, BigInt(n + 1)] as const)));
  const all = Array.from({ length: routes }, (_, n) => BigInt(n + 1));
  const found = all.map((number) => selected.positionOf(number));
  // Where a filter looks at what was drawn, another of the same row may stand for it.
  all.forEach((number, n) => {
    if (places.has(number)) assert.equal(found[n], places.get(number), `${where}: position of ${number}`);
  });
}

const nameOf = (key: string) => key.split('#')[0] as string;

function rowsFolded({ plan, routes }: Case, { through = [], avoid = [], order }: RouteFilter): Rows {
  const drawIn = new Map<string, string>();
  for (const { section, index, items } of plan.sections)
    if (section.draw !== undefined)
      for (const { item } of items) if (item.kind === 'question') drawIn.set(item.name, `drawn ${index}`);
  const rows = new Map<string, { numbers: bigint[]; length: number; ranks: number[] }>();
  const ranks = rankOf(plan);
  routes.forEach(({ items, ending }, n) => {
    const names = items.map(nameOf);
    const fits =
      through.every((list) => list.some((name) => names.includes(name))) &&
      !avoid.some((name) => names.includes(name));
    if (!fits) return;
    const shown = items.map((key) => {
      const drawn = drawIn.get(nameOf(key));
      return drawn === undefined ? key : `${drawn}#${key.split('#')[1] ?? ''}`;
    });
    const key = [...shown, `> ${ending}`].join(' ');
    const row = rows.get(key) ?? { numbers: [], length: items.length, ranks: [] };
    row.numbers.push(BigInt(n + 1));
    row.ranks = [...items, `> ${ending}`].map((key) => ranks(key));
    rows.set(key, row);
  });
  const found = [...rows.values()].sort((a, b) => compare(a.ranks, b.ranks));
  if (order !== undefined) found.sort((a, b) => (a.length - b.length) * (order === 'shortest' ? 1 : -1));
  return found.map(({ numbers }) => numbers);
}

/** Where things stand; all that a section draws stands where its first question stands. */
function rankOf(plan: Plan): (key: string) => number {
  const places = new Map<string, number>();
  let next = 0;
  for (const { section, repeat, items } of plan.sections)
    for (let pass = 1; pass <= (repeat?.max ?? 1); pass += 1) {
      let drawn: number | null = null;
      for (const { item } of items) {
        const place = item.kind === 'question' && section.draw !== undefined ? (drawn ??= next) : next;
        places.set(repeat === null ? item.name : `${item.name}#${pass}`, place);
        next += 1;
      }
    }
  for (const { ending } of plan.endings) places.set(`> ${ending.id}`, (next += 1));
  return (key) => places.get(key) ?? -1;
}

function compare(a: readonly number[], b: readonly number[]): number {
  const at = a.findIndex((rank, n) => rank !== b[n]);
  return at < 0 ? 0 : (a[at] as number) - (b[at] ?? -1);
}

function withDraws(seed: number): Questionnaire | null {
  const document = randomDocument(seed);
  return document.sections.some(({ draw }) => draw !== undefined) ? document : null;
}

describe('routes that differ only in what was drawn', () => {
  it(`are one, on ${DRAWN.words}`, () => {
    let judged = 0;
    for (const seed of DRAWN.all) {
      const document = withDraws(seed);
      const found = document && caseOf(planFor(document), `seed ${seed}`);
      if (!found) continue;
      judged += 1;
      const names = [...found.analysis.items.keys()];
      const name = names[seed % names.length] as string;
      const other = names[(seed * 7 + 1) % names.length] as string;
      const filters: RouteFilter[] = [
        {},
        { through: [[name]] },
        { avoid: [name], order: 'longest' },
        { through: [[name], [other, names[0] as string]], avoid: [] },
      ];
      for (const filter of filters)
        judgeRows(
          found.analysis.select({ ...filter, folded: true }),
          rowsFolded(found, filter),
          found.routes.length,
          `seed ${seed}, folded, ${JSON.stringify(filter)}`,
        );
    }

    assert.ok(judged > DRAWN.count * 0.05, `only ${judged} had a draw and were small enough`);
  });
});

describe('routes that only one of two versions has', () => {
  it(`are those on which something else is shown, on ${EDITED.words}`, () => {
    let differing = 0;
    for (const seed of EDITED.all) {
      const int = intOf(seed);
      const before = seed % 2 === 0 ? randomDocument(seed) : randomChain(seed);
      const after = reworded(before, int);
      const cases = [before, after].map((document) => caseOf(planFor(document), `seed ${seed}`));
      const [old, now] = cases;
      if (!old || !now) continue;
      const marks = cases.map((each) => contentMarks((each as Case).plan));
      const shown = cases.map((each, n) =>
        (each as Case).routes.map(({ items, ending }) =>
          routeMarks(marks[n] as NonNullable<(typeof marks)[0]>, items, ending).join(' '),
        ),
      );
      const versions = cases.map((each, n) =>
        (each as Case).analysis.version(marks[n] as NonNullable<(typeof marks)[0]>),
      );
      const known = new Set(shown[0]);
      const rows = (shown[1] ?? []).flatMap((text, n) => (known.has(text) ? [] : [[BigInt(n + 1)]]));
      const notIn = [versions[1], versions[0]] as never;
      judgeRows(now.analysis.select({ notIn }), rows, now.routes.length, `seed ${seed}, only in the new one`);
      if (rows.length > 0 && rows.length < now.routes.length) differing += 1;
    }

    assert.ok(differing > EDITED.count * 0.05, `only ${differing} had some routes touched and some not`);
  });
});

/** An edit at random, or an item in other words. */
function reworded(document: Questionnaire, int: (from: number, to: number) => number): Questionnaire {
  if (int(0, 2) > 0) {
    const change = anyChange(document, int);
    if (change !== null) {
      const copy = structuredClone(document);
      change.apply(copy as never);
      if (readDocument(copy).ok) return copy;
    }
  }
  const copy = structuredClone(document) as unknown as { sections: { items: { text?: string }[] }[] };
  const items = copy.sections.flatMap((section) => section.items);
  const item = items[int(0, items.length - 1)];
  if (item?.text !== undefined) item.text = `${item.text} again`;
  return copy as never;
}
