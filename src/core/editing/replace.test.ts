/** Find and replace: words where they are shown, names with all that refers to them, and nothing else. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { findAll } from '../views/find';
import { applyChange } from './change';
import { replaceable, replaceAll, type Replacing } from './replace';

const document = questionnaire([
  section('heat', [
    ask('heat_main', 2, { text: 'What heats your heat-pump home?' }),
    ask('other', 2, { text: 'Why {heat_main}? Heat matters.', askIf: 'heat_main = 1' }),
  ]),
]);
const replacing: Replacing = { find: 'heat', by: 'warm', inWords: true, inNames: true, matchCase: false };

describe('replacing', () => {
  it('changes words and names, and what refers to the names', () => {
    const { document: next } = applyChange(document, replaceAll(document, replacing));
    const [first, second] = next.sections[0]?.items ?? [];
    assert.ok(first?.kind === 'question' && second?.kind === 'question');
    assert.equal(first.name, 'warm_main');
    assert.equal(first.text, 'What warms your warm-pump home?');
    assert.equal(second.text, 'Why {warm_main}? warm matters.');
    assert.equal(second.askIf, 'warm_main = 1');
    assert.deepEqual(planFor(next).problems, []);
  });

  it('tells beforehand what it would touch, and which names it cannot change', () => {
    assert.deepEqual(replaceable(document, replacing), {
      words: 4,
      names: [{ from: 'heat_main', to: 'warm_main' }],
      refused: [],
    });
    const taken = replaceable(document, { ...replacing, find: 'heat_main', by: 'other' });
    assert.deepEqual(taken.refused, [{ name: 'heat_main', why: '“other” is taken' }]);
  });

  it('leaves words alone where only names are meant, and minds the case where it is to', () => {
    const { document: next } = applyChange(
      document,
      replaceAll(document, { ...replacing, inNames: false, matchCase: true }),
    );
    assert.equal(
      next.sections[0]?.items[1]?.kind === 'question' && next.sections[0].items[1].text,
      'Why {heat_main}? Heat matters.',
    );
  });
});

describe('finding', () => {
  it('puts names before words and words before conditions', () => {
    const found = findAll(planFor(document), 'heat');
    assert.deepEqual(
      found.slice(0, 2).map(({ kind, name }) => [kind, name]),
      [
        ['question', 'heat_main'],
        ['section', 'A'],
      ],
    );
    assert.equal(found.at(-1)?.kind, 'condition');
    assert.deepEqual(findAll(planFor(document), '  '), []);
    assert.deepEqual(findAll(planFor(document), 'heat xyz'), []);
  });
});
