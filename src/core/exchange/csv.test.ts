/** CSV as it is commonly met, in pieces of any size; and nothing written that a spreadsheet would run. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import Papa from 'papaparse';
import { csvLines, CsvRows, isDefused, sniffBytes, sniffFormat, Utf8Check } from './csv';

const bytes = (text: string) => new TextEncoder().encode(text);

describe('csv', () => {
  it('reads the same rows however the text is cut into pieces', () => {
    const cell = fc.string({ unit: fc.constantFrom('a', 'é', '"', ',', ';', '\n', '\r\n', "'", '1', ' ') });
    const table = fc
      .integer({ min: 1, max: 4 })
      .chain((width) =>
        fc.array(fc.array(cell, { minLength: width, maxLength: width }), { minLength: 1, maxLength: 6 }),
      );
    fc.assert(
      fc.property(
        table,
        fc.constantFrom(',', ';', '\t', '|'),
        fc.array(fc.nat(7)),
        (rows, delimiter, cuts) => {
          const kept = rows.filter((row) => row.length > 1 || row[0] !== '');
          const text = csvLines(rows, { delimiter, quote: '"' });
          const reader = new CsvRows({ delimiter, quote: '"' });
          const read: string[][] = [];
          let at = 0;
          for (const cut of cuts) {
            read.push(...reader.push(text.slice(at, at + cut)));
            at += cut;
          }
          read.push(...reader.push(text.slice(at), true));
          assert.deepEqual(
            read,
            kept.map((row) => row.map((each) => (isDefused(each) ? `'${each}` : each))),
          );
        },
      ),
      { numRuns: 400 },
    );
  });
  it('writes what the package writes, cell by cell', () => {
    const unit = fc.constantFrom(...'aZ09 .-_+=@é"\',;|\t\n\r\u{feff}😀');
    const cell = fc.oneof(
      fc.string({ unit, maxLength: 4 }),
      fc.integer({ min: -120, max: 1200 }),
      fc.double(),
    );
    fc.assert(
      fc.property(
        fc.array(fc.array(cell, { minLength: 1, maxLength: 4 }), { maxLength: 4 }),
        fc.constantFrom(',', ';', '\t', '|'),
        fc.constantFrom('"', "'"),
        (rows, delimiter, quote) => {
          const escapeFormulae = /^[=@\t\r\n]|^[+-](?!\d+([.,]\d+)?$|$)/;
          const config = { delimiter, quoteChar: quote, newline: '\r\n', escapeFormulae };
          const all = rows.map((row) => `${Papa.unparse([row], config)}\r\n`).join('');
          assert.equal(csvLines(rows, { delimiter, quote }), all);
        },
      ),
      { numRuns: 3000 },
    );
  });
  it('finds out the delimiter and the quote', () => {
    assert.deepEqual(sniffFormat('a;b;c\n1;2,5;3\n'), { delimiter: ';', quote: '"' });
    assert.deepEqual(sniffFormat('a\tb\n1\t2\n'), { delimiter: '\t', quote: '"' });
    assert.deepEqual(sniffFormat("'a','b'\n'x, y','2'\n"), { delimiter: ',', quote: "'" });
    assert.deepEqual(sniffFormat('only\n1\n2\n').quote, '"');
  });
  it('tells text from what is none, and its encoding', () => {
    assert.deepEqual(sniffBytes(bytes('a,b\n')), { is: 'text', encoding: 'utf-8', certain: false });
    assert.deepEqual(sniffBytes(new Uint8Array()), { is: 'empty' });
    // UTF-16 without a mark: every other byte of plain text is zero, the first or the second.
    const unmarked = (text: string, big: boolean) =>
      new Uint8Array(
        [...text].flatMap((letter) => (big ? [0, letter.charCodeAt(0)] : [letter.charCodeAt(0), 0])),
      );
    const utf16 = (encoding: string) => ({ is: 'text', encoding, certain: true });
    assert.deepEqual(sniffBytes(unmarked('a,b\n', false)), utf16('utf-16le'));
    assert.deepEqual(sniffBytes(unmarked('a,b\n', true)), utf16('utf-16be'));
    assert.equal(sniffBytes(new Uint8Array([97, 0, 0, 98, 99, 100])).is, 'other');
    assert.equal(sniffBytes(new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0])).is, 'other');
    assert.equal(sniffBytes(new Uint8Array([0x50, 0x4b, 3, 4])).is, 'xlsx');
    const wide = new Uint8Array([...bytes('a,b\n1,2\n')].flatMap((byte) => [byte, 0]));
    assert.deepEqual(sniffBytes(wide), { is: 'text', encoding: 'utf-16le', certain: true });
    const check = new Utf8Check();
    const [first, second] = [bytes('é').slice(0, 1), bytes('é').slice(1)];
    check.add(first);
    check.add(second);
    assert.equal(check.end(), true);
    const western = new Utf8Check();
    western.add(new Uint8Array([0x63, 0x61, 0x66, 0xe9]));
    assert.equal(western.end(), false);
  });
  it('writes nothing that a spreadsheet would run, and leaves numbers alone', () => {
    assert.equal(
      csvLines([['=1+1', '+44 1', '-1', -2, '@x', '-a', 'a=b', '+5']]),
      `"'=1+1","'+44 1",-1,-2,"'@x","'-a",a=b,+5\r\n`,
    );
    for (const before of ['\n', '\r', '\t']) assert.ok(isDefused(`${before}=1+1`), JSON.stringify(before));
  });
});
