/** Cells of a spreadsheet as the text that a CSV file would hold, and back. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { cellText, spreadsheetValue } from './spreadsheet';

it('reads what a cell shows, whatever it holds', () => {
  const day = (text: string) => new Date(`${text}Z`);
  for (const [value, text] of [
    [null, ''],
    [undefined, ''],
    [7, '7'],
    [0.1, '0.1'],
    ['Peat', 'Peat'],
    [true, '1'],
    [false, '0'],
    [day('2024-03-01T00:00:00'), '2024-03-01'],
    [day('2024-03-01T14:05:00'), '2024-03-01T14:05'],
    [day('2024-03-01T14:05:09'), '2024-03-01T14:05:09'],
    // A time by itself is a moment of the day that spreadsheets count from.
    [day('1899-12-30T14:05:00'), '14:05'],
    [{ formula: 'A1+1', result: 4 }, '4'],
    [{ formula: 'A1', result: { error: '#REF!' } }, '#REF!'],
    [{ richText: [{ text: 'Peat ' }, { font: {}, text: 'or wood' }] }, 'Peat or wood'],
    [{ text: 'A page', hyperlink: 'https://example.org' }, 'A page'],
    [{ text: { richText: [{ text: 'A page' }] }, hyperlink: 'x' }, 'A page'],
    [{}, ''],
  ] as const)
    assert.equal(cellText(value), text, JSON.stringify(value));
});

it('writes as a number only what is written just as that number', () => {
  for (const [cell, value] of [
    ['7', 7],
    ['-1.5', -1.5],
    [7, 7],
    ['', ''],
    ['007', '007'],
    ['1e3', '1e3'],
    ['1.50', '1.50'],
    ['Infinity', 'Infinity'],
    ['NaN', 'NaN'],
    [' 7', ' 7'],
  ] as const)
    assert.equal(spreadsheetValue(cell), value, String(cell));
});
