/** Rows judged at once are judged as those that are weighed, and no row that is in order has to be weighed. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import fc from 'fast-check';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { columnsOf } from '../coding/columns';
import { Auditor } from './auditor';
import type { RowJudgement } from './types';

const option = (code: number, rest: object = {}) => ({ code, label: `Answer ${code}`, ...rest });
const options = [option(1), option(2), option(3, { specify: true }), option(9, { missing: 'dont_know' })];
const plan = planFor(
  questionnaire(
    [
      section('a', [
        ask('one', { type: 'single', options }, { comment: 'More?' }),
        ask('many', { type: 'multiple', options, minPicks: 1, maxPicks: 2 }, { required: true }),
        ask('some', {
          type: 'multiple',
          options: [option(1), option(2, { askIf: 'one = 1' }), option(8, { exclusive: true })],
        }),
        ask('order', { type: 'rank', options: options.slice(0, 2), top: 2 }, { askIf: 'one <> 2' }),
      ]),
      section('b', [ask('d1'), ask('d2')], { draw: 1 }),
    ],
    { derived: [{ name: 'sum', label: 'Sum', value: 'one + d1' }] },
  ),
);
const columns = columnsOf(plan).map(({ name }) => name);

class Watched extends Auditor {
  weighed = 0;
  override weigh(texts: readonly string[]): RowJudgement {
    this.weighed += 1;
    return super.weigh(texts);
  }
}

const row = (cells: Readonly<Record<string, string>>) => columns.map((name) => cells[name] ?? '');
const ALL = {
  one: '1',
  many_1: '1',
  many_2: '0',
  many_3: '0',
  many_9: '0',
  some_1: '0',
  some_2: '1',
  some_8: '0',
};
const REST = { order_rank1: '2', order_rank2: '1', d1: '1', d2: '-2', sum: '2', ending: 'done' };
const PASSED_OVER = { order_rank1: '-1', order_rank2: '' };
const DONT_KNOW = { many_1: '9', many_2: '9', many_3: '9', many_9: '1' };
const IN_ORDER: readonly Readonly<Record<string, string>>[] = [
  { ...ALL, ...REST },
  { ...ALL, ...REST, d2: '', sum: '', ending: '' },
  { ...ALL, ...REST, d1: '', d2: '2', sum: '-3' },
  { ...ALL, ...REST, many_2: '1', order_rank2: '-3', one_comment: 'So it is.' },
  { ...ALL, ...REST, one: '3', one_3_text: 'Peat', some_1: '1', some_2: '0', sum: '4' },
  { ...ALL, ...REST, ...PASSED_OVER, one: '2', some_1: '1', some_2: '0', sum: '3' },
  { ...ALL, ...REST, ...PASSED_OVER, ...DONT_KNOW, one: '-3', some_2: '0', some_8: '1', sum: '-3' },
  {
    ...ALL,
    ...REST,
    ...PASSED_OVER,
    ...DONT_KNOW,
    many_1: '',
    one: '9',
    some_1: '1',
    some_2: '0',
    sum: '-3',
  },
];
const CELLS = ['', '0', '1', '2', '3', '9', '-1', '-2', '-3', '-4', '07', 'Answer 1', 'x'];

it('no row that is in order has to be weighed', () => {
  const auditor = new Watched(plan);
  for (const cells of IN_ORDER) {
    assert.deepEqual(auditor.judge(row(cells)).problems, [], JSON.stringify(cells));
    assert.equal(auditor.weighed, 0, JSON.stringify(cells));
  }
  // As a file may say that it writes things: blanks are coded, and a blank pick is none.
  const lenient = new Watched(plan, { codeBlanks: true, blankPicks: true });
  const blanks = { one: '', many_2: '', many_3: '', some_1: '1', some_2: '0', sum: '' };
  const { problems, filled } = lenient.judge(row({ ...ALL, ...REST, ...PASSED_OVER, ...blanks }));
  assert.deepEqual([problems, lenient.weighed], [[], 0]);
  assert.deepEqual(
    filled.map(({ column, value }) => [columns[column], value]),
    [
      ['one', -3],
      ['many_2', 0],
      ['many_3', 0],
      ['order_rank2', -1],
      ['sum', -3],
    ],
  );
});

it('whatever else stands in a row, both say the same', () => {
  const judges = [{}, { codeBlanks: true }, { blankPicks: true }].flatMap((given) =>
    [
      columns.map(() => true),
      columns.map((name) => !['many_2', 'order_rank2', 'd1', 'one'].includes(name)),
    ].map((isThere) => ({ isThere, auditor: new Auditor(plan, given, isThere) })),
  );
  const changes = fc.array(fc.tuple(fc.nat(columns.length - 1), fc.constantFrom(...CELLS)), { maxLength: 3 });
  fc.assert(
    fc.property(fc.constantFrom(...IN_ORDER), changes, (cells, changed) => {
      const texts = row(cells);
      for (const [at, text] of changed) texts[at] = text;
      for (const { isThere, auditor } of judges) {
        const own = texts.map((text, n) => (isThere[n] === true ? text : ''));
        assert.deepEqual(auditor.judge(own), auditor.weigh(own));
      }
    }),
    { numRuns: 800 },
  );
});
