/** Changes of structure on random questionnaires: undone they leave nothing behind, and what refers goes on referring. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { analyse } from '../../src/core/analysis';
import { readDocument } from '../../src/core/document/read';
import type { Questionnaire } from '../../src/core/document/types';
import { applyAll, applyChange, type HistoryStep } from '../../src/core/editing/change';
import { renameVariable } from '../../src/core/editing/rename';
import {
  duplicateItems,
  duplicateSection,
  mergeProblem,
  mergeSections,
  splitProblem,
  splitSection,
} from '../../src/core/editing/restructure';
import { planOf } from '../../src/core/routing/planner';
import { planFor } from '../support/questionnaire';
import { anyChange, anyPlace, intOf, somePlaces } from './changes';
import { randomChain, randomDocument } from './documents';
import { seedsToTry } from './seeds';

const SEEDS = seedsToTry([], 80);
const MAKERS = [randomDocument, randomChain];

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
        const steps: HistoryStep[] = [];
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
