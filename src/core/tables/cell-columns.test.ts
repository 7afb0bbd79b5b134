/** Cells kept column by column come back as they were put in, in whatever pieces and however many there are. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import fc from 'fast-check';
import { CellTable, rowsOfColumns } from './cell-columns';

const PLACES = [1, 0, -1];
const cell = fc.oneof(
  fc.integer({ min: -120, max: 1100 }),
  fc.constantFrom('', '-1', '7', '07', 'words', 1.5, -0),
);
const rows = fc.array(fc.tuple(cell, cell), { maxLength: 40 });

const as = (table: CellTable) => [...rowsOfColumns(table.columns())];
const tableOf = (of: readonly (readonly (string | number)[])[]) => {
  const table = new CellTable(PLACES.length);
  for (const row of of) table.add(row, PLACES);
  return table;
};

it('rows come back in the order of the columns, and the same from pieces put one below the other', () => {
  fc.assert(
    fc.property(fc.array(rows, { maxLength: 5 }), (pieces) => {
      const all = pieces.flat();
      const expected = all.map(([a, b]) => [String(b), String(a), '']);
      assert.deepEqual(as(tableOf(all)), expected);
      const whole = new CellTable(PLACES.length);
      for (const piece of pieces) whole.append(tableOf(piece).columns());
      assert.equal(whole.count, all.length);
      assert.deepEqual(as(whole), expected);
    }),
  );
});

it('takes a byte a cell, and more only where a column has many different texts', () => {
  for (const [different, bytes] of [
    [256, 1],
    [257, 2],
    [65_536, 2],
    [65_537, 4],
  ] as const) {
    const table = tableOf(Array.from({ length: different }, (_, n) => [1, `t${n}`]));
    const [texts, ones] = table.columns();
    assert.deepEqual(
      [texts?.ids.BYTES_PER_ELEMENT, ones?.ids.BYTES_PER_ELEMENT],
      [bytes, 1],
      String(different),
    );
    assert.deepEqual(as(table).at(-1), [`t${different - 1}`, '1', '']);
    assert.deepEqual(as(table)[255], ['t255', '1', '']);
  }
});

it('widens where pieces that are narrow have more different texts together', () => {
  const piece = (from: number) =>
    tableOf(Array.from({ length: 200 }, (_, n) => [1, `t${from + n}`])).columns();
  const whole = new CellTable(PLACES.length);
  for (const from of [0, 200, 100]) whole.append(piece(from));
  assert.deepEqual(
    as(whole).map(([text]) => text),
    [...Array(400).keys(), ...Array.from({ length: 200 }, (_, n) => 100 + n)].map((n) => `t${n}`),
  );
});

it('keeps each different text once, of as many rows as there are', () => {
  const rows = Array.from({ length: 1030 }, (_, n) => [n % 3, `t${n % 7}`]);
  const table = tableOf(rows);
  assert.deepEqual(
    as(table),
    rows.map(([a, b]) => [b, String(a), '']),
  );
  assert.deepEqual(
    table.columns().map(({ texts }) => texts.length),
    [7, 3, 1],
  );
  table.append([]);
  table.append(tableOf([]).columns());
  assert.equal(table.count, 1030);
});
