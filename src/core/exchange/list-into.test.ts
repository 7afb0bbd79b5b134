/** A list put into a study that is open: where each part of it goes, and what it can speak of there. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { readDocument } from '../document/read';
import type { Questionnaire } from '../document/types';
import { applyChange } from '../editing/change';
import { addItem, emptyQuestionnaire, newQuestion } from '../editing/structure';
import { fromList } from './from-list';

const STUDY = fromList(
  'CONSENT\n1. Are you 18?\n- Yes\n- No (screen out)\n# Your home\n2. Do you rent?\n- Yes\n- No\n3. Since when? (date)\n# Closing\n4. Anything else?',
  'Study',
).document;

const put = (document: Questionnaire, source: string, at: { section: number; item: number | null } | null) =>
  fromList(source, '', new Map(), { document, at });
const outline = ({ sections }: Questionnaire) =>
  sections.map(
    ({ title, items }) =>
      `${title}: ${items.map((item) => (item.kind === 'page_break' ? '-' : item.name)).join(' ')}`,
  );

describe('a list in an open study', () => {
  it('stands behind the item it is pasted at, under names of its own', () => {
    const { document, first } = put(STUDY, '1. Who is your landlord?\nA council\n2. Why?', {
      section: 1,
      item: 0,
    });
    assert.deepEqual(outline(document), ['Consent: q1', 'Your home: q2 q5 q6 q3', 'Closing: q4']);
    assert.equal(first, 'q5');
  });

  it('fills the sections of its titles, makes others after what came before, and none after the closing', () => {
    const list = 'SECTION B: YOUR HOME\n1. Is it dry?\nDamp\n2. Where?\nCLOSING\n3. Shall we call again?';
    assert.deepEqual(outline(put(STUDY, list, null).document), [
      'Consent: q1',
      'Your home: q2 q3 q5 q6',
      'Closing: q4 q7',
    ]);
    assert.deepEqual(outline(put(STUDY, '# Damp\n1. Where?', null).document), [
      'Consent: q1',
      'Your home: q2 q3',
      'Damp: q5',
      'Closing: q4',
    ]);
    assert.deepEqual(
      outline(put(STUDY, '# Damp\n1. Where?', { section: 0, item: null }).document)[1],
      'Damp: q5',
    );
  });

  it('can speak of the questions, sections and endings of the study', () => {
    const list =
      '1. Is it dry?\n- Yes -> q3\n- No (screen out)\n(ask if Q2 = 1)\n2. Who rents it out?\nGo to Closing';
    const { document, lines } = put(STUDY, list, { section: 1, item: 0 });
    const [, dry, who] = document.sections[1]?.items ?? [];
    assert.deepEqual(dry?.kind === 'question' && dry.skips, [
      { if: 'q5 = 1', to: { item: 'q3' } },
      { if: 'q5 = 2', to: { ending: 'screened_out' } },
    ]);
    assert.deepEqual(who?.kind === 'question' && [who.askIf, who.skips], [
      'q2 = 1',
      [{ to: { section: 'closing' } }],
    ]);
    assert.deepEqual(
      lines.filter(({ kind }) => kind === 'trouble'),
      [],
    );
  });

  it('brings the ending it leads to, where the study has none of the kind', () => {
    const without = { ...STUDY, endings: STUDY.endings.filter(({ kind }) => kind !== 'complete') };
    const { document } = put(without, '# Damp\n1. Where?\nNowhere (end of survey)', null);
    assert.equal(document.endings.at(-1)?.kind, 'complete');
    assert.ok(readDocument(document).ok);
  });

  it('takes the room of a question that nobody has written in', () => {
    const blank = newQuestion(STUDY);
    const { document } = applyChange(STUDY, addItem({ section: 1, item: 2 }, blank));
    assert.deepEqual(
      outline(put(document, '1. Is it dry?', { section: 1, item: 2 }).document)[1],
      'Your home: q2 q3 q6',
    );
  });

  it('makes a section before the first of all where one follows, and room once only in a section', () => {
    const { document } = fromList('# Your home\n1. Do you rent?', 'Study');
    assert.deepEqual(outline(put(document, '# Damp\n1. Where?\n# Your home\n2. Why?', null).document), [
      'Damp: q2',
      'Your home: q1 q3',
    ]);
    const blank = applyChange(STUDY, addItem({ section: 1, item: 2 }, newQuestion(STUDY))).document;
    const pasted = put(
      blank,
      '# Your home\n1. Is it dry?\n# Closing\n2. Shall we call?\n# Your home\n3. Where?',
      null,
    );
    assert.deepEqual(outline(pasted.document).slice(1), ['Your home: q2 q3 q6 q8', 'Closing: q4 q7']);
    assert.equal(pasted.change?.label, 'Paste a list of 3 items');
  });

  it('leaves what is there as it was, in its order, whatever is pasted where', () => {
    const pieces = fc.constantFrom(
      '# Your home',
      '# Damp',
      '1. Is it dry?',
      'Yes (go to 2)',
      '- No (end)',
      '2. Rate each\na) walls\nb) roof\nGood / Fair / Poor',
      'Some words.',
      '(ask if q2 = 1)',
      'If no, go to Closing',
      '',
    );
    const places = fc.option(
      fc.record({ section: fc.nat(2), item: fc.option(fc.constant(0), { nil: null }) }),
      { nil: null },
    );
    fc.assert(
      fc.property(fc.array(pieces, { maxLength: 12 }), places, (lines, at) => {
        const { document, change } = put(STUDY, lines.join('\n'), at);
        const read = readDocument(document);
        assert.ok(read.ok, JSON.stringify(read));
        const items = document.sections.flatMap((section) => section.items);
        const old = STUDY.sections.flatMap((section) => section.items);
        assert.deepEqual(
          items.filter((item) => old.includes(item)),
          old,
        );
        assert.equal(
          new Set(items.map((item) => (item.kind === 'page_break' ? '' : item.name))).size,
          items.length,
        );
        if (change !== null) assert.deepEqual(applyChange(STUDY, change).document, document);
      }),
      { numRuns: 300 },
    );
  });

  it('is no change where nothing is written', () => {
    const empty = emptyQuestionnaire('Study');
    assert.equal(put(empty, '\n', null).change, null);
  });
});
