/** Tables as rows of cells, as they are pasted into a document. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import type { Cross } from '../tables/cross';
import type { Frequency } from '../tables/frequency';
import { crossFigures, crossMargins, crossSheet, frequencySheet } from './table-sheets';

const LINE = {
  label: 'Yes',
  code: 1,
  count: 3,
  ofAll: 30.04,
  ofAsked: 42.857,
  ofAnswered: 50,
  cumulative: 50,
};
const FREQUENCY = {
  rows: [LINE],
  missing: [{ ...LINE, label: 'Left blank', code: -3, ofAnswered: null, cumulative: null }],
  ...{ all: 10, asked: 7, answered: 6, several: false },
} as unknown as Frequency;

it('a frequency has its answers, its missing codes, and the bases of its percentages', () => {
  assert.deepEqual(frequencySheet('Owns', 'All', FREQUENCY), [
    ['Owns'],
    ['All'],
    ['code', 'label', 'count', '% of all', '% of those asked', '% of those who answered', 'cumulative %'],
    [1, 'Yes', 3, 30, 42.9, 50, 50],
    ['', 'Answered', 6],
    [-3, 'Left blank', 3, 30, 42.9, '', ''],
    ['', 'Asked', 7],
    ['', 'All', 10],
  ]);
  const several = frequencySheet('Fuels', '', { ...FREQUENCY, several: true });
  assert.deepEqual(several.slice(2, 5), [
    ['code', 'label', 'count', '% of all', '% of those asked', '% of those who answered'],
    [1, 'Yes', 3, 30, 42.9, 50],
    ['', 'Answered, with one pick or more', 6],
  ]);
});

it('a cross-table has counts, or percent along its rows or down its columns', () => {
  const cross = {
    rows: ['a', 'b', 'c'],
    columns: ['x', 'y'],
    counts: [
      [1, 2],
      [3, 0],
      [0, 0],
    ],
    rowCases: [3, 3, 0],
    columnCases: [4, 2],
    cases: 6,
  } as unknown as Cross;
  assert.deepEqual(crossFigures(cross, 'counts'), cross.counts);
  assert.deepEqual(crossSheet('T', 'All', cross, 'row'), [
    ['T'],
    ['All'],
    ['', 'x', 'y', 'cases'],
    ['a', 33.3, 66.7, 3],
    ['b', 100, 0, 3],
    ['c', '', '', 0],
    ['cases', 4, 2, 6],
  ]);
  assert.deepEqual(crossSheet('T', 'All', cross, 'column').slice(3, 6), [
    ['a', 25, 100, 3],
    ['b', 75, 0, 3],
    ['c', 0, 0, 0],
  ]);
  assert.deepEqual(crossMargins(cross, 'counts'), { below: [4, 2], beside: [3, 3, 0] });
  const below = [400 / 6, 200 / 6];
  assert.deepEqual(crossMargins(cross, 'row'), { below, beside: [3, 3, 0] });
  assert.deepEqual(crossMargins(cross, 'column'), { below: [4, 2], beside: [50, 50, 0] });
});
