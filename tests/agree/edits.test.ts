/** The analysis after an edit, which finds again what the edit did not touch, against one that begins anew. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { analyse, AnalysisCache, DEFAULT_CAPS, type Analysis } from '../../src/core/analysis';
import { readDocument } from '../../src/core/document/read';
import type { Item, Question, Questionnaire } from '../../src/core/document/types';
import type { Plan } from '../../src/core/routing/plan';
import { routedSnagsOf } from '../../src/core/snags';
import { planFor } from '../support/questionnaire';
import { randomChain, randomDocument } from './documents';
import { caseOf, JUDGES } from './judges';
import { seedsToTry } from './seeds';

/** With the seeds that once failed. */
const SEEDS = seedsToTry([151, 251], 15);
const EDITS = 8;

type Loose = { -readonly [Key in keyof Question]: Question[Key] };

/** One change of the kind that authors make; where it does not apply, none. */
function edited(document: Questionnaire, int: (from: number, to: number) => number): Questionnaire {
  const copy = structuredClone(document) as unknown as {
    sections: { items: Item[]; id: string; title: string }[];
  };
  const { sections } = copy;
  const section = sections[int(0, sections.length - 1)] as { items: Item[]; id: string; title: string };
  const at = int(0, Math.max(0, section.items.length - 1));
  const item = section.items[at] as Loose | undefined;
  const other = sections.flatMap(({ items }) => items).at(int(0, 5)) as Loose | undefined;
  switch (int(0, 11)) {
    case 0:
      if (item !== undefined) delete item.askIf;
      break;
    case 1:
      if (item !== undefined && other?.askIf !== undefined) item.askIf = other.askIf;
      break;
    case 2:
      section.items.splice(at, 1);
      break;
    case 3:
      // The rows of a grid have names of their own.
      if (item?.kind === 'question' && item.answer.type !== 'grid')
        section.items.splice(at, 0, { ...item, name: `${item.name}x${int(1, 99)}` } as Item);
      break;
    case 4:
      if (item !== undefined) delete item.skips;
      break;
    case 5:
      if (item?.kind === 'question') item.required = !(item.required === true);
      break;
    case 6:
      section.items.push(...section.items.splice(at, 1));
      break;
    case 7:
      sections.splice(int(0, sections.length - 1), 0, {
        id: `new${int(1, 9999)}`,
        title: 'New',
        kind: 'topic',
        items: [],
      } as never);
      break;
    // Words alone, with an answer in them or without one.
    case 8:
      section.title = `${section.title} ${int(1, 99)}`;
      break;
    case 9:
      if (item !== undefined && 'text' in item) item.text = `Say ${int(1, 99)}.`;
      break;
    case 10:
      if (item !== undefined && 'text' in item && other !== undefined) item.text = `Of {${other.name}}?`;
      break;
    default:
      sections.push(...sections.splice(sections.indexOf(section), 1));
  }
  const read = readDocument(copy);
  return read.ok ? read.document : document;
}

/** All that is said of a questionnaire, as far as it does not take too long to say. */
function said(plan: Plan, analysis: Analysis, cache: AnalysisCache | null): object {
  const { routes, exact, endings, items, shortest, longest } = analysis;
  const numbers = Array.from({ length: 12 }, (_, n) => 1n + (routes * BigInt(n)) / 12n);
  const some = numbers.map((number) => analysis.outline(number));
  return {
    counts: { routes, exact, endings, items: [...items], shortest, longest },
    some,
    again: some.map((route) => route && analysis.numberOf(route.items, route.ending)),
    witnesses: numbers.map((number) => analysis.route(number)?.items),
    left: [...items.keys()].map((name) => analysis.filtered({ avoid: [name] }).total),
    snags: routedSnagsOf(plan, analysis, cache).map(({ rule, at, message }) => ({ rule, at, message })),
  };
}

describe('after every edit', () => {
  for (const make of [randomDocument, randomChain])
    it(`${make.name}: the same is said as anew, on ${SEEDS.words}`, () => {
      for (const seed of SEEDS.all) {
        const random = xoroshiro128plus(seed);
        const cache = new AnalysisCache();
        let document = make(seed);
        for (let edit = 0; edit <= EDITS; edit += 1) {
          const about = `seed ${seed}, after ${edit} edits`;
          const plan = planFor(document);
          const analysis = analyse(plan, DEFAULT_CAPS, cache);
          assert.deepEqual(said(plan, analysis, cache), said(plan, analyse(plan), null), about);
          // Of conditions that are as short the one or the other may be found.
          const all = caseOf(plan, about, 3000);
          if (all !== null) JUDGES['who is asked']({ ...all, analysis });
          document = edited(document, (from, to) => uniformInt(random, from, to));
        }
      }
    });
});
