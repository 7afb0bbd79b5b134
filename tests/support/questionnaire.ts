/** Short ways to write questionnaires in tests. */
import assert from 'node:assert/strict';
import { readDocument } from '../../src/core/document/read';
import {
  FORMAT,
  MISSING_REASONS,
  VERSION,
  type Answer,
  type Item,
  type Question,
  type Questionnaire,
  type Section,
  type Statement,
} from '../../src/core/document/types';
import type { Plan } from '../../src/core/routing/plan';
import { planOf } from '../../src/core/routing/planner';
import { walk, type Walk, type WalkInput } from '../../src/core/routing/walk';

export function questionnaire(
  sections: readonly Section[],
  rest: Partial<Questionnaire> = {},
): Questionnaire {
  return {
    format: FORMAT,
    version: VERSION,
    title: 'Test',
    language: 'en',
    missing: MISSING_REASONS.map((reason, index) => ({ reason, code: -1 - index, label: reason })),
    sections,
    endings: [
      { id: 'done', kind: 'complete', messages: [{ text: 'Thank you.' }] },
      { id: 'out', kind: 'screened_out', messages: [{ text: 'Goodbye.' }] },
    ],
    ...rest,
  };
}

export function section(id: string, items: readonly Item[], rest: Partial<Section> = {}): Section {
  return { id, title: id, kind: 'topic', items, ...rest };
}

/** A single with codes 1 to `codes`; `rest` may give another answer type. */
export function ask(name: string, codes: number | Answer = 2, rest: Partial<Question> = {}): Question {
  const answer: Answer =
    typeof codes === 'number'
      ? {
          type: 'single',
          options: Array.from({ length: codes }, (_, c) => ({ code: c + 1, label: `Answer ${c + 1}` })),
        }
      : codes;
  return { kind: 'question', name, text: `${name}?`, answer, ...rest };
}

export function say(name: string, rest: Partial<Statement> = {}): Statement {
  return { kind: 'statement', name, text: name, ...rest };
}

/** The plan of a document that must be of sound shape. */
export function planFor(document: Questionnaire): Plan {
  const read = readDocument(JSON.parse(JSON.stringify(document)));
  assert.ok(read.ok, JSON.stringify(read));
  return planOf(read.document);
}

export function walked(plan: Plan, input: WalkInput): Walk {
  const result = walk(plan, input);
  assert.ok(result.ok, JSON.stringify(result));
  return result.walk;
}

/** What a walk presented and where it ended, as one text: `a b c > done`. */
export function trail(plan: Plan, walk_: Walk): string {
  const ending = walk_.ending === null ? 'stopped' : (plan.endings[walk_.ending]?.ending.id ?? '');
  return `${walk_.steps.map(({ key }) => key).join(' ')} > ${ending}`;
}
