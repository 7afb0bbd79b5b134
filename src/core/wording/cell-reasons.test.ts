/** Every reason for which a cell holds no answer, as the person who looks at a row is told it. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section, walked } from '../../../tests/support/questionnaire';
import { columnsOf } from '../coding/columns';
import { codedCells } from '../coding/row';
import type { Answers } from '../document/types';
import type { WalkInput } from '../routing/walk';
import { cellReason } from './cell-reasons';

const options = [1, 2, 3].map((code) => ({ code, label: `Answer ${code}` }));
const plan = planFor(
  questionnaire(
    [
      section('a', [
        ask('rents', 2),
        ask('landlord', 2, { askIf: 'rents = 1' }),
        ask('likes', { type: 'rank', options, top: 2 }),
        ask('rooms', { type: 'number', min: 0, max: 3 }),
        ask('views', {
          type: 'grid',
          options,
          rows: [
            { name: 'cost', label: 'Cost' },
            { name: 'noise', label: 'Noise', askIf: 'rents = 1' },
          ],
        }),
      ]),
      section('r', [ask('warm', 2)], { repeat: { times: 'rooms', max: 3 } }),
      section('z', [ask('last', 2)]),
    ],
    {
      given: [{ name: 'region', label: 'Region', answer: { type: 'single', options } }],
      derived: [{ name: 'sum', label: 'Sum', value: 'landlord + 1' }],
    },
  ),
);
const columns = columnsOf(plan);
/** The reasons of some cells of a walk, by their columns. */
function reasons(input: Partial<WalkInput> & { answers: Answers }, ...names: readonly string[]): string[] {
  const walk = walked(plan, { given: { region: 2 }, ...input });
  const cells = codedCells(plan, walk, input.answers, columns);
  return names.map((name) => {
    const at = columns.findIndex((column) => column.name === name);
    const [column, cell] = [columns[at], cells[at]];
    assert.ok(column && cell, `no column ${name}`);
    return cellReason(walk, column, cell);
  });
}

describe('a cell without an answer', () => {
  const answers = { rents: 2, likes: [3], rooms: 1, cost: 1, 'warm#1': 1, last: 1 };

  it('is blank, left open, or passed over for a reason that is told', () => {
    assert.deepEqual(
      reasons({ answers: { ...answers, last: null } }, 'rents', 'last', 'likes_rank1', 'likes_rank2'),
      ['', 'asked, and left blank', '', 'asked, and this place left open'],
    );
    assert.match(reasons({ answers }, 'landlord')[0] ?? '', /rents|Answer 2/);
    assert.match(reasons({ answers }, 'noise')[0] ?? '', /^this row is shown only if /);
  });

  it('belongs to a pass that did not run, with how many did', () => {
    const two = { ...answers, rooms: 2, 'warm#2': 1 };
    assert.deepEqual(reasons({ answers }, 'warm_2', 'warm_3'), [
      'no pass 2: there was 1',
      'no pass 3: there was 1',
    ]);
    assert.deepEqual(reasons({ answers: two }, 'warm_2', 'warm_3'), ['', 'no pass 3: there were 2']);
  });

  it('of what is worked out says what that hangs on', () => {
    assert.deepEqual(reasons({ answers }, 'sum'), ['nothing that it is worked out from was asked']);
    assert.deepEqual(reasons({ answers: { ...answers, rents: 1, landlord: null } }, 'sum'), [
      'what it is worked out from gives it no value',
    ]);
  });

  it('lies behind the place where somebody stopped', () => {
    const [ending, sum] = reasons({ answers: { rents: 1 }, stoppedAt: 'rents' }, 'ending', 'sum');
    assert.equal(ending, 'stopped at rents');
    assert.equal(sum, 'not all that it is worked out from was reached; stopped at rents');
  });
});
