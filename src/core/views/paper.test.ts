/** The printed script: numbers, go-to instructions, whom a question is asked of. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, say, section } from '../../../tests/support/questionnaire';
import { analyse } from '../analysis';
import { paperOf } from './paper';

const plan = planFor(
  questionnaire([
    section('a', [
      ask('own', 2, { label: 'Owns it', required: true, skips: [{ if: 'own = 1', to: { section: 'b' } }] }),
      ask('rent', { type: 'number', min: 0, max: 9 }, { skips: [{ if: 'rent > 5', to: { ending: 'out' } }] }),
    ]),
    section('b', [ask('warm', 2, { text: 'With {rent} rooms?' }), ask('cold', 2, { askIf: 'own = 2' })], {
      onward: [{ if: 'warm = 1', to: { section: 'd' } }],
    }),
    section('c', [ask('c1'), ask('c2'), ask('c3')], { draw: 2 }),
    section('d', [say('thanks'), ask('last')]),
  ]),
);
const paper = paperOf(plan, Object.fromEntries(analyse(plan).asked));
const items = paper.sections.flatMap((each) => each.items);
const item = (name: string) => items.find(({ planItem }) => planItem.item.name === name);

describe('the script on paper', () => {
  it('numbers questions by section, statements not', () => {
    assert.deepEqual(
      items.map(({ number }) => number),
      ['A1', 'A2', 'B1', 'B2', 'C1', 'C2', 'C3', null, 'D1'],
    );
  });

  it('says at the answers where to go', () => {
    assert.deepEqual(
      item('own')?.lines.map(({ label, code, goTo }) => [label, code, goTo]),
      [
        ['Answer 1', '1', 'go to B1'],
        ['Answer 2', '2', null],
      ],
    );
    assert.deepEqual(
      item('rent')?.lines.map(({ label, goTo }) => [label, goTo]),
      [
        ['0 to 9', null],
        ['rent is above 5', 'end: Screened out'],
      ],
    );
  });

  it('says whom a question is asked of, where that changes, and which answer is read out', () => {
    assert.equal(item('rent')?.askIf, 'Owns it is “Answer 2”');
    assert.equal(item('cold')?.askIf, 'Owns it is “Answer 2”');
    assert.equal(item('warm')?.text, 'With [A2] rooms?');
    assert.deepEqual(paper.sections[1]?.onward, ['If warm is “Answer 1”: go to section D']);
    assert.equal(paper.sections[2]?.runs, 'Ask 2 of these 3 questions, drawn at random.');
  });
});
