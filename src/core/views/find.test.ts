/** Finding by words: what is found where, and what stands first. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, planFor, questionnaire, say, section } from '../../../tests/support/questionnaire';
import { findAll } from './find';

const option = (code: number, label: string) => ({ code, label });
const plan = planFor(
  questionnaire(
    [
      section(
        'home',
        [
          say('hello', { text: 'About heating your home' }),
          ask(
            'heat',
            { type: 'single', options: [option(1, 'Gas heat'), option(2, 'A pump')] },
            { text: 'How is it warmed?' },
          ),
          ask('heats', 2, { text: 'Who preheats it?', askIf: 'heat = 2', note: 'Say who' }),
          ask('bills', {
            type: 'grid',
            rows: [{ name: 'gas_bill', label: 'Mains' }],
            options: [option(1, 'High')],
          }),
          ask('age', { type: 'number', min: 0, max: 9 }, { text: 'What heat is it in, at most?' }),
        ],
        { title: 'Heat at home' },
      ),
    ],
    { given: [{ name: 'area', label: 'Area of heat', answer: { type: 'number', min: 0, max: 9 } }] },
  ),
);
const found = (query: string) => findAll(plan, query).map(({ kind, name }) => `${kind} ${name}`);

it('finds nothing for nothing, and only what has every word', () => {
  assert.deepEqual(findAll(plan, '  '), []);
  assert.deepEqual(found('warmed IS how'), ['question heat']);
  assert.deepEqual(found('warmed gas'), []);
});

it('has first what is called so, then what begins so, words that begin so, and words it is in', () => {
  assert.deepEqual(
    found('heat').filter((each) => /^(question|statement|section|around)/.test(each)),
    ['question heat', 'question heats', 'around area', 'section A', 'statement hello', 'question age'],
  );
  // An answer or a condition comes after all of these, even where it fits better.
  const kinds = findAll(plan, 'heat').map(({ kind }) => kind);
  const least = Math.min(kinds.indexOf('answer'), kinds.indexOf('condition'));
  assert.ok(kinds.slice(least).every((kind) => kind === 'answer' || kind === 'condition'));
  assert.equal(found(' HEATS ')[0], 'question heats');
});

it('finds a question once, by the text that fits best, and its answers, rows and conditions by themselves', () => {
  assert.deepEqual(found('who'), ['question heats']);
  assert.deepEqual(found('gas'), ['answer gas_bill', 'answer heat 1']);
  assert.deepEqual(found('mains'), ['answer gas_bill']);
  assert.deepEqual(found('heat ='), ['condition heats']);
  assert.deepEqual(findAll(plan, 'pump')[0]?.selection, findAll(plan, 'warmed')[0]?.selection);
  assert.deepEqual(found('screened'), ['ending out']);
  assert.deepEqual(found('goodbye'), ['ending out']);
});
