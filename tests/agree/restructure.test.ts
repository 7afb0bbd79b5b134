/** Changes of structure on random questionnaires: undone they leave nothing behind, and what refers goes on referring. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { analyse } from '../../src/core/analysis';
import { readDocument } from '../../src/core/document/read';
import type { Questionnaire } from '../../src/core/document/types';
import {
  addDerived,
  addGiven,
  addQuota,
  moveAround,
  quotaProblem,
  removeAround,
} from '../../src/core/editing/around';
import { applyAll, applyChange, type Change, type Step } from '../../src/core/editing/change';
import { renameVariable } from '../../src/core/editing/rename';
import {
  addSections,
  duplicateItems,
  duplicateSection,
  mergeProblem,
  mergeSections,
  moveItems,
  removeItems,
  splitProblem,
  splitSection,
} from '../../src/core/editing/restructure';
import { moveSection, removeSection, type ItemPlace } from '../../src/core/editing/structure';
import { planOf } from '../../src/core/routing/planner';
import { planFor } from '../support/questionnaire';
import { randomChain, randomDocument } from './documents';
import { seedsToTry } from './seeds';

const SEEDS = seedsToTry([], 150);
const MAKERS = [randomDocument, randomChain];

type Int = (from: number, to: number) => number;

function intOf(seed: number): Int {
  const random = xoroshiro128plus(seed);
  return (from, to) => uniformInt(random, from, to);
}

function anyPlace({ sections }: Questionnaire, int: Int): ItemPlace {
  const section = int(0, sections.length - 1);
  return { section, item: int(0, Math.max(0, (sections[section]?.items.length ?? 0) - 1)) };
}

function somePlaces(document: Questionnaire, int: Int): ItemPlace[] {
  const all = document.sections.flatMap(({ items }, section) => items.map((_, item) => ({ section, item })));
  const from = int(0, Math.max(0, all.length - 1));
  return all.slice(from, from + int(1, 3));
}

function anyChange(document: Questionnaire, int: Int): Change | null {
  const { sections } = document;
  const at = int(0, sections.length - 1);
  const place = anyPlace(document, int);
  const some = somePlaces(document, int);
  const names = [...planOf(document).variables.values()].map(({ name }) => name);
  switch (int(0, 13)) {
    case 0:
      return addSections(document, at, ['One', 'Two']);
    case 1:
      return duplicateSection(document, at);
    case 2:
      return splitProblem(document, place) === null ? splitSection(document, place) : null;
    case 3:
      return mergeProblem(document, at) === null ? mergeSections(document, at) : null;
    case 4:
      return some.length > 0 ? duplicateItems(document, some) : null;
    case 5:
      return removeItems(document, some);
    case 6:
      return moveItems(document, some, place);
    case 7:
      return moveSection(document, at, int(0, sections.length - 1));
    case 8:
      return sections.length > 1 ? removeSection(document, at) : null;
    case 9:
      return addGiven(document, int(0, 1) === 1);
    case 10:
      return quotaProblem(document) === null ? addQuota(document) : null;
    case 11:
      return addDerived(document, int(0, 1) === 1 ? 'cases' : 'value');
    case 12:
      return (document.derived?.length ?? 0) > 1
        ? moveAround('derived', 0, 1)
        : removeAround(document, 'given', 0);
    default:
      return names[0] === undefined ? null : renameVariable(names[0], `renamed${int(1, 999)}`);
  }
}

/** What refers to nothing. */
function dangling(document: Questionnaire): number {
  const lost = ['unknown-name', 'unknown-target', 'duplicate-name'];
  return planOf(document).problems.filter(({ rule }) => lost.includes(rule)).length;
}

/** Every route, as far as it is one of the first few hundred. */
function routesOf(document: Questionnaire): unknown {
  const analysis = analyse(planFor(document));
  const count = analysis.routes < 300n ? Number(analysis.routes) : 300;
  const outlines = Array.from({ length: count }, (_, n) => analysis.outline(BigInt(n + 1)));
  return [analysis.routes, analysis.endings, outlines.map((route) => [route?.items, route?.ending])];
}

describe('changes of structure', () => {
  it(`are undone without a trace, any number of them, on ${SEEDS.words}`, () => {
    for (const make of MAKERS)
      for (const seed of SEEDS.all) {
        const int = intOf(seed);
        const original = planFor(make(seed)).document;
        let document = original;
        const steps: Step[] = [];
        for (let n = 0; n < 12; n += 1) {
          const change = anyChange(document, int);
          if (change === null) continue;
          const made = applyChange(document, change);
          // What is not a questionnaire any more (the last question of a draw gone) is refused by the store.
          if (!readDocument(made.document).ok) continue;
          steps.push(made.step);
          document = made.document;
        }
        const back = [...steps].reverse().reduce((now, { backward }) => applyAll(now, backward), document);
        assert.deepEqual(back, original, `${make.name} ${seed}`);
        const again = steps.reduce((now, { forward }) => applyAll(now, forward), back);
        assert.deepEqual(again, document, `${make.name} ${seed}`);
      }
  });

  it(`leave no reference dangling where nothing is deleted, on ${SEEDS.words}`, () => {
    for (const make of MAKERS)
      for (const seed of SEEDS.all) {
        const int = intOf(seed);
        const { document } = planFor(make(seed));
        const lost = dangling(document);
        const place = anyPlace(document, int);
        const changes = [
          duplicateSection(document, place.section),
          ...(splitProblem(document, place) === null ? [splitSection(document, place)] : []),
          ...(mergeProblem(document, place.section) === null ? [mergeSections(document, place.section)] : []),
          duplicateItems(document, somePlaces(document, int)),
          renameVariable(document.sections[0]?.id ?? '', 'other'),
        ];
        for (const change of changes) {
          const { document: next } = applyChange(document, change);
          // The items of one section may be none of another, that draws: such a copy is refused.
          if (!readDocument(next).ok && /^Copy \d+ items$/.test(change.label)) continue;
          const copies = change.label.startsWith('Copy');
          const now = dangling(next);
          // A copy may carry along what was broken before.
          assert.ok(copies ? now <= 2 * lost : now === lost, `${make.name} ${seed}, ${change.label}`);
          assert.ok(readDocument(next).ok, `${make.name} ${seed}, ${change.label}`);
        }
      }
  });

  it(`keep every route where a section is split or two are merged, on ${SEEDS.words}`, () => {
    let compared = 0;
    for (const make of MAKERS)
      for (const seed of SEEDS.all) {
        const { document } = planFor(make(seed));
        if (planOf(document).problems.length > 0) continue;
        const places = document.sections.flatMap(({ items }, section) =>
          items.map((_, item) => ({ section, item })),
        );
        for (const change of [
          ...places.flatMap((place) =>
            splitProblem(document, place) === null ? [splitSection(document, place)] : [],
          ),
          ...document.sections.flatMap((_, at) =>
            mergeProblem(document, at) === null ? [mergeSections(document, at)] : [],
          ),
        ]) {
          compared += 1;
          const { document: next } = applyChange(document, change);
          assert.deepEqual(routesOf(next), routesOf(document), `${make.name} ${seed}, ${change.label}`);
        }
      }
    assert.ok(compared > SEEDS.count * 0.3, `only ${compared} could be compared`);
  });
});
