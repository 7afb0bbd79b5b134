/** The form to be filled in: where to go is said once, and once only; passes stand as columns or blocks. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, say, section } from '../../../tests/support/questionnaire';
import { analyse } from '../analysis';
import { formOf, type Form, type FormItem, type FormOptions } from './form';

const plan = planFor(
  questionnaire([
    section('a', [
      ask('own', 2, { label: 'Owns it', required: true, skips: [{ if: 'own = 1', to: { item: 'rooms' } }] }),
      ask(
        'rent',
        { type: 'number', min: 0, max: 1500, decimals: 1 },
        { required: true, skips: [{ if: 'rent > 900', to: { ending: 'out' } }] },
      ),
      ask('why', 2, {
        required: true,
        skips: [
          { if: 'why = 2 and own = 2', to: { section: 'c' } },
          { if: 'why = 1', to: { section: 'c' } },
        ],
      }),
      ask('rooms', { type: 'number', min: 0, max: 3 }, { required: true }),
    ]),
    section(
      'b',
      [ask('use', 2, { text: 'What is room {pass} for?' }), ask('cold', 2, { askIf: 'use = 1' })],
      {
        repeat: { times: 'rooms', max: 3 },
      },
    ),
    section('c', [say('thanks'), ask('last', { type: 'scale', min: -1, max: 1, lowLabel: 'bad' })]),
  ]),
);
const asked = Object.fromEntries(analyse(plan).asked);
const form = (options: Partial<FormOptions>): Form =>
  formOf(plan, { reader: 'respondent', routing: 'answers', passes: 'columns', ...options }, asked);
const itemsIn = ({ sections }: Form): FormItem[] =>
  sections.flatMap(({ blocks }) => blocks.flatMap(({ items }) => items));
const named = (of: Form, name: string) => itemsIn(of).find((item) => item.name === name);
const goTos = (of: Form) =>
  itemsIn(of).flatMap(({ answer, rules }) => [
    ...(answer !== null && 'boxes' in answer ? answer.boxes.flatMap(({ goTo }) => goTo ?? []) : []),
    ...rules,
  ]);

describe('a form to be filled in', () => {
  it('says where to go at the answers, and by rules in their order where one answer does not decide', () => {
    const by = form({});
    assert.deepEqual(goTos(by), [
      'go to A4',
      'If A2 is above 900: go to End 2',
      'If A3 is “Answer 2”, and A1 is “Answer 2”: go to section C',
      'If A3 is “Answer 1”: go to section C',
    ]);
    // What a skip has said is not said again.
    assert.equal(named(by, 'rent')?.only, null);
    assert.equal(named(by, 'cold')?.only, 'Only if B1 is “Answer 1”');
  });

  it('or says of each question whom it is for, and nothing at the answers', () => {
    const by = form({ routing: 'questions' });
    assert.deepEqual(goTos(by), []);
    assert.deepEqual(
      itemsIn(by)
        .map(({ name, only }) => [name, only])
        .filter(([, only]) => only !== null),
      [
        ['rent', 'Only if A1 is “Answer 2”'],
        ['why', 'Only if A2 is at most 900'],
        ['rooms', 'Only if A2 was not asked'],
        ['cold', 'Only if B1 is “Answer 1”'],
      ],
    );
    assert.ok(by.sections.every(({ onward }) => onward.length === 0));
  });

  it('says so of what could not be worked out, and not of what is still to come', () => {
    const { rooms: _left, ...rest } = asked;
    const options = { reader: 'respondent', routing: 'questions', passes: 'columns' } as const;
    const lacking = formOf(plan, options, rest);
    assert.equal(lacking.unsaid, 1);
    assert.equal(named(lacking, 'rooms')?.only, 'Whom this is for could not be worked out');
    assert.equal(named(lacking, 'why')?.only, named(form(options), 'why')?.only);
    assert.equal(formOf(plan, options, null).unsaid, 0);
    assert.equal(formOf(plan, { ...options, routing: 'answers' }, rest).unsaid, 0);
  });

  it('has a column for each pass, or a block with its number in the words', () => {
    const [, columns] = form({}).sections;
    assert.deepEqual(columns?.columns, ['1', '2', '3']);
    assert.equal(columns?.blocks.length, 1);
    const [, blocks] = form({ passes: 'blocks' }).sections;
    assert.equal(blocks?.columns, null);
    assert.deepEqual(
      blocks?.blocks.map(({ items }) => items[0]?.text),
      ['What is room 1 for?', 'What is room 2 for?', 'What is room 3 for?'],
    );
  });

  it('gives as much room as the limits need', () => {
    assert.deepEqual(named(form({}), 'rent')?.answer, {
      as: 'digits',
      digits: '0000.0',
      unit: '',
      limits: '0 to 1500',
      boxes: [],
    });
    assert.deepEqual(named(form({}), 'last')?.answer, {
      as: 'scale',
      points: [-1, 0, 1],
      ends: ['bad', '', ''],
      boxes: [],
    });
  });
});
