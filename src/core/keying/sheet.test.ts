/** A paper form as it is keyed: what is asked next, what is off the route, and the row it becomes. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import type { Answers } from '../document/types';
import { Keying } from './sheet';

const option = (code: number, rest: object = {}) => ({ code, label: `Answer ${code}`, ...rest });
const keying = new Keying(
  planFor(
    questionnaire([
      section('a', [
        ask('own', 2, { required: true, comment: 'Anything else?' }),
        ask('rent', { type: 'number', min: 0, max: 900 }, { askIf: 'own = 2' }),
        ask('fuels', {
          type: 'multiple',
          options: [option(1), option(2, { specify: true }), option(9, { missing: 'dont_know' })],
        }),
        ask('top', { type: 'rank', options: [option(1), option(2)] }),
      ]),
    ]),
  ),
);
const row = (answers: Answers) =>
  Object.fromEntries(keying.coded(answers).row.map((value, n) => [keying.columns[n]?.name ?? '', value]));
const next = (answers: Answers, after: string | null = null) =>
  keying.nextOpen(answers, keying.sheet(answers), after)?.key ?? null;

describe('a form', () => {
  it('asks for what the route presents and nothing else, in order', () => {
    assert.equal(next({}), 'own');
    assert.equal(next({ own: 2, own_comment: null }), 'rent');
    assert.equal(next({ own: 1, own_comment: null }), 'fuels');
    // From where somebody stands on, even if something before is still open.
    assert.equal(next({ own: 2 }, 'rent'), 'fuels');
    assert.equal(next({ own: 1, own_comment: null, fuels: [1], top: [2, 1] }), null);
  });

  it('keeps answers off the route out of its row until they are settled', () => {
    const answers = { own: 1, own_comment: null, rent: 450, fuels: [1], top: [2, 1] };
    assert.deepEqual(
      keying.flagged(answers, keying.sheet(answers)).map(({ key }) => key),
      ['rent'],
    );
    assert.equal(row(answers).rent, -1);
    assert.equal(row({ ...answers, own: 2 }).rent, '450');
  });

  it('codes every kind of column by what was written there', () => {
    const answers = {
      own: 2,
      own_comment: 'Damp',
      rent: null,
      fuels: [2],
      fuels_2_text: 'Peat',
      top: [2, 1],
    };
    assert.deepEqual(row(answers), {
      own: '2',
      own_comment: 'Damp',
      rent: '-3',
      fuels_1: '0',
      fuels_2: '1',
      fuels_9: '0',
      fuels_2_text: 'Peat',
      top_rank1: '2',
      top_rank2: '1',
      ending: 'done',
    });
    // Beside don't know, the other columns carry its code.
    const unsure = row({ ...answers, fuels: [9], fuels_2_text: null });
    assert.deepEqual([unsure.fuels_1, unsure.fuels_2, unsure.fuels_9], [9, 9, '1']);
  });

  it('tells what was not drawn in a pass from what does not apply in it', () => {
    const drawing = new Keying(
      planFor(
        questionnaire([
          section('a', [ask('n', { type: 'number', min: 0, max: 2 })]),
          section('b', [ask('x'), ask('y'), ask('z', 2, { askIf: 'n = 2' })], {
            repeat: { times: 'n', max: 2 },
          }),
          section('c', [ask('d1'), ask('d2')], { draw: 1 }),
        ]),
      ),
    );
    const of = (answers: Answers) => {
      const { states } = drawing.sheet(answers);
      return (key: string) => {
        const state = states[drawing.fields.findIndex((field) => field.key === key)];
        return state?.is === 'passed-over' ? [state.reason, state.code] : state?.is;
      };
    };
    const one = of({ n: 1, 'x#1': 1, 'y#1': 1, d2: 1 });
    assert.equal(one('x#1'), 'asked');
    assert.deepEqual(one('z#1'), ['not_applicable', -1]);
    assert.deepEqual(one('x#2'), ['not_applicable', -1]);
    assert.deepEqual(one('d1'), ['not_drawn', -2]);
    assert.equal(one('d2'), 'asked');
    assert.equal(of({ n: 2 })('z#2'), 'asked');
  });

  it('keyed part-way is of somebody who stopped there; a required blank is told', () => {
    const part = row({ own: 1, own_comment: null });
    assert.deepEqual([part.rent, part.fuels_1, part.ending], [-4, -4, -4]);
    const blank = { own: null };
    assert.deepEqual(
      keying.blanks(blank, keying.sheet(blank)).map(({ key }) => key),
      ['own'],
    );
  });
});
