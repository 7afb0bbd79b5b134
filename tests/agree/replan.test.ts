/** A plan, and the snags that the text shows, made after an edit out of those before it, against ones made anew. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { readDocument, readEdited } from '../../src/core/document/read';
import type { Questionnaire } from '../../src/core/document/types';
import { applyChange } from '../../src/core/editing/change';
import { planOf } from '../../src/core/routing/planner';
import { snagsOf } from '../../src/core/snags';
import { intOf, retouch } from './changes';
import { randomChain, randomDocument } from './documents';
import { seedsToTry } from './seeds';

const SEEDS = seedsToTry([], 80);
const EDITS = 12;

describe('a plan made out of the one before', () => {
  for (const make of [randomDocument, randomChain])
    it(`${make.name}: is the plan made anew, on ${SEEDS.words}`, () => {
      for (const seed of SEEDS.all) {
        const int = intOf(seed);
        let document: Questionnaire = make(seed);
        let plan = planOf(document);
        for (let edit = 0; edit < EDITS; edit += 1) {
          const about = `seed ${seed}, edit ${edit}`;
          const next = applyChange(document, {
            label: 'retouch',
            apply: (draft) => retouch(draft, int),
          }).document;
          const read = readEdited(next);
          const anew = readDocument(structuredClone(next));
          assert.equal(read.ok, anew.ok, about);
          if (!read.ok || !anew.ok) {
            assert.deepEqual(read, anew, about);
            continue;
          }
          document = next;
          plan = planOf(document, plan);
          const fresh = planOf(anew.document);
          assert.deepEqual(plan, fresh, about);
          assert.deepEqual(snagsOf(plan), snagsOf(fresh), about);
        }
      }
    });
});
