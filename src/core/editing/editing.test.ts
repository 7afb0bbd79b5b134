/** Changes: undone exactly, and carried through to everything that refers to what was changed. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, say, section } from '../../../tests/support/questionnaire';
import { readDocument } from '../document/read';
import { ANSWER_TYPES, type Answer, type Question } from '../document/types';
import { applyAll, applyChange, mergeSteps } from './change';
import { lossesOf } from './losses';
import { renameVariable } from './rename';
import {
  answerOfType,
  editSection,
  moveItem,
  moveSection,
  removeItem,
  removeSection,
  takenNames,
} from './structure';
import { nameSectionByTitle, retitleSection } from './titles';

const document = questionnaire(
  [
    section('a', [
      ask('tenure', 3, { skips: [{ if: 'Tenure = 1', to: { item: 'say_so' } }] }),
      ask('rent', 2, { askIf: 'tenure in (2, 3)' }),
    ]),
    section('section', [
      say('say_so', { text: 'You said {tenure}, and {{tenure}} stays.' }),
      ask('table', {
        type: 'grid',
        rows: [{ name: 'row_one', label: '{tenure}', askIf: 'not tenure = 2' }],
        options: [{ code: 1, label: 'Yes', askIf: 'tenure answered' }],
      }),
    ]),
    section('b', [ask('last', 2, { skips: [{ to: { ending: 'out' } }] })], {
      askIf: 'tenure <> 1 and row_one = 1',
    }),
  ],
  {
    derived: [{ name: 'sum', label: 'Sum', value: 'tenure + rent' }],
    quotas: [{ id: 'q', label: 'Q', if: 'tenure = 2', target: 5, at: 'tenure', to: { section: 'section' } }],
  },
);

describe('changes', () => {
  it('are undone and redone exactly, also when two were joined', () => {
    const first = applyChange(document, moveItem(document, { section: 0, item: 1 }, { section: 1, item: 0 }));
    const second = applyChange(first.document, removeSection(first.document, 0));
    const joined = mergeSteps(first.step, second.step);
    assert.deepEqual(applyAll(second.document, joined.backward), document);
    assert.deepEqual(applyAll(document, joined.forward), second.document);
    // Steps are kept as JSON.
    assert.deepEqual(applyAll(second.document, JSON.parse(JSON.stringify(joined)).backward), document);
  });

  it('leave alone what they do not touch', () => {
    const { document: moved } = applyChange(document, moveSection(document, 2, 0));
    assert.deepEqual(
      moved.sections.map(({ id }) => id),
      ['b', 'a', 'section'],
    );
    assert.equal(moved.sections[1], document.sections[0]);
    const { document: fewer } = applyChange(document, removeItem(document, { section: 0, item: 0 }));
    assert.equal(fewer.sections[1], document.sections[1]);
  });
});

describe('renaming a variable', () => {
  const { document: renamed } = applyChange(document, renameVariable('tenure', 'home'));

  it('carries through conditions, targets, pipes, derived values, quotas and rows', () => {
    assert.deepEqual(planFor(document).problems, []);
    assert.deepEqual(planFor(renamed).problems, []);
    const text = JSON.stringify(renamed);
    assert.equal(text.match(/\{\{tenure\}\}/g)?.length, 1);
    assert.equal(
      text.replace('{{tenure}}', '').match(/tenure\?/g)?.length,
      1,
      'the words of a question stay',
    );
    assert.doesNotMatch(text.replace('{{tenure}}', '').replace('tenure?', ''), /tenure/i);
  });

  it('and back again gives the same document', () => {
    const back = applyChange(renamed, renameVariable('home', 'tenure')).document;
    // A condition typed `Tenure` comes back in the variable's own spelling.
    assert.deepEqual(back, JSON.parse(JSON.stringify(document).replace('Tenure = 1', 'tenure = 1')));
  });
});

describe('another type of answer', () => {
  it('says what it has no place for', () => {
    const taken = new Set<string>();
    const from: Answer = {
      type: 'multiple',
      options: [
        { code: 1, label: 'One' },
        { code: 98, label: 'Don’t know', missing: 'dont_know' },
      ],
      maxPicks: 1,
    };
    const to = (type: 'single' | 'number' | 'text') => lossesOf(from, answerOfType(type, from, 'q', taken));
    assert.deepEqual(to('single'), ['numbers of picks']);
    assert.deepEqual(to('number'), ['1 answer', 'numbers of picks']);
    assert.deepEqual(to('text'), ['2 answers', 'numbers of picks']);
  });
});

describe('titles of sections', () => {
  it('suggest the kind until one is chosen', () => {
    const titled = applyChange(document, retitleSection(document, 1, 'Screening questions')).document;
    assert.equal(titled.sections[1]?.kind, 'screening');
    const chosen = applyChange(
      titled,
      editSection(1, 'kind', 'Kind', (draft) => {
        draft.kind = 'closing';
      }),
    ).document;
    assert.equal(
      applyChange(chosen, retitleSection(chosen, 1, 'About you')).document.sections[1]?.kind,
      'closing',
    );
  });

  it('name the section, with what aims at it', () => {
    const titled = applyChange(document, retitleSection(document, 1, 'Heat & light')).document;
    const change = nameSectionByTitle(titled, 1);
    assert.equal(change?.id, 'heat_light');
    const named = applyChange(titled, change).document;
    assert.deepEqual(named.quotas?.[0]?.to, { section: 'heat_light' });
    assert.deepEqual(planFor(named).problems, []);
    assert.equal(nameSectionByTitle(named, 1), null);
  });
});

describe('changing the answer type', () => {
  it('gives a sound document from every type to every other, and keeps the options', () => {
    const taken = takenNames(document);
    for (const from of ANSWER_TYPES) {
      for (const to of ANSWER_TYPES) {
        const start = answerOfType(
          from,
          (document.sections[0]?.items[0] as Question).answer,
          'tenure',
          taken,
        );
        const answer = answerOfType(to, start, 'tenure', taken);
        const read = readDocument(
          JSON.parse(JSON.stringify(questionnaire([section('a', [ask('tenure', answer)])]))),
        );
        assert.ok(read.ok, `${from} to ${to}`);
      }
    }
    const options = (document.sections[0]?.items[0] as Question).answer;
    const there = answerOfType('multiple', options, 'tenure', taken);
    assert.deepEqual(answerOfType('single', there, 'tenure', taken), options);
  });
});
