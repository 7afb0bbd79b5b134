/** A plan, and the snags that the text shows, made after an edit out of those before it, against ones made anew. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { readDocument, readEdited } from '../../src/core/document/read';
import type { Questionnaire } from '../../src/core/document/types';
import { applyChange, type DocumentDraft } from '../../src/core/editing/change';
import { planOf } from '../../src/core/routing/planner';
import { snagsOf } from '../../src/core/snags';
import { randomChain, randomDocument } from './documents';
import { seedsToTry } from './seeds';

const SEEDS = seedsToTry([], 150);
const EDITS = 12;

/** Words, conditions, limits and names, good ones and bad, each in one place. */
function retouch(draft: DocumentDraft, int: (from: number, to: number) => number): void {
  const section = draft.sections[int(0, draft.sections.length - 1)];
  const item = section?.items[int(0, Math.max(0, section.items.length - 1))];
  const conditions = draft.sections.flatMap(({ items }) =>
    items.flatMap((each) => (each.kind === 'page_break' ? [] : (each.askIf ?? []))),
  );
  if (section === undefined) return;
  if (item === undefined || item.kind === 'page_break' || int(0, 9) === 0) {
    section.title += ` {${item !== undefined && item.kind !== 'page_break' ? item.name : 'nothing'}}`;
    return;
  }
  switch (int(0, 7)) {
    case 0:
      item.text += ['', ' more', ' {pass}', ' {nobody}'][int(0, 3)] ?? '';
      break;
    case 1:
      item.askIf = conditions[int(0, Math.max(0, conditions.length - 1))] ?? 'nobody = 1';
      break;
    case 2:
      delete item.askIf;
      break;
    case 3:
      if (item.kind === 'question' && 'options' in item.answer && item.answer.options?.[0])
        item.answer.options[0].label += '!';
      break;
    case 4:
      if (item.kind === 'question' && 'options' in item.answer && item.answer.options?.[0])
        item.answer.options[0].code += int(1, 3);
      break;
    case 5:
      if (item.kind === 'question' && item.answer.type === 'number') item.answer.max -= int(0, 9);
      break;
    case 6:
      item.skips = [{ to: { ending: draft.endings[0]?.id ?? '' } }];
      break;
    default:
      item.name += 'x';
  }
}

describe('a plan made out of the one before', () => {
  for (const make of [randomDocument, randomChain])
    it(`${make.name}: is the plan made anew, on ${SEEDS.words}`, () => {
      for (const seed of SEEDS.all) {
        const random = xoroshiro128plus(seed);
        let document: Questionnaire = make(seed);
        let plan = planOf(document);
        for (let edit = 0; edit < EDITS; edit += 1) {
          const about = `seed ${seed}, edit ${edit}`;
          const next = applyChange(document, {
            label: 'retouch',
            apply: (draft) => retouch(draft, (from, to) => uniformInt(random, from, to)),
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
