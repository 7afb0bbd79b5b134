/** `jolly-fork audit` as it is called: files of all kinds, what is found, and what is written. */
import assert from 'node:assert/strict';
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { before, describe, it } from 'node:test';
import { fileURLToPath } from 'node:url';
import ExcelJS from 'exceljs';
import Papa from 'papaparse';
import { refused } from '../../../tests/support/command';

const root = path.join(path.dirname(fileURLToPath(import.meta.url)), '..', '..', '..');
const study = path.join(root, 'demo', 'tern-valley-home-heating.fork.json');
const folder = mkdtempSync(path.join(tmpdir(), 'jolly-fork-audit-'));
const full = (name: string) => path.join(folder, name);

function call(...args: readonly string[]) {
  const { status, stdout, stderr } = spawnSync('node', [path.join(root, 'bin', 'jolly-fork'), ...args], {
    encoding: 'utf8',
  });
  return { status, stderr, json: () => JSON.parse(stdout) as Report };
}

interface Report {
  readonly rows: number;
  readonly clean: number;
  readonly filled: number;
  readonly problems: readonly { row: number; column: string; problem: string; value: string }[];
}

const audit = (data: string, out: string, ...rest: readonly string[]) =>
  call('audit', study, '--data', full(data), '--out', full(out), '--json', ...rest);

/** The simulated rows, changed, in a file of their own. */
function withRows(name: string, change: (rows: string[][]) => void, delimiter = ','): void {
  const rows = coded();
  change(rows);
  writeFileSync(full(name), `${Papa.unparse(rows, { delimiter, newline: '\r\n' })}\r\n`);
}

const coded = () => Papa.parse<string[]>(readFileSync(full('rows.csv'), 'utf8').trimEnd()).data;

describe('jolly-fork audit', () => {
  before(() => void call('simulate', study, '-n', '40', '--seed', '5', '--out', full('rows.csv')));

  it('leaves coded rows as they are', () => {
    const { status, json } = audit('rows.csv', 'same.csv');
    assert.equal(status, 0);
    assert.deepEqual(
      { ...json(), readAs: '' },
      { rows: 40, clean: 40, filled: 0, recoded: 0, problems: [], readAs: '' },
    );
    assert.equal(readFileSync(full('same.csv'), 'utf8'), readFileSync(full('rows.csv'), 'utf8'));
  });

  it('fills blanks that the routing explains, from CSV with semicolons in another encoding and from XLSX', async () => {
    let blanks = 0;
    withRows(
      'blank.csv',
      (rows) => {
        for (const row of rows)
          row.forEach((cell, at) => (cell === '-1' || cell === '-2') && ((blanks += 1), (row[at] = '')));
      },
      ';',
    );
    const wide = Buffer.from(`\uFEFF${readFileSync(full('blank.csv'), 'utf8')}`, 'utf16le');
    writeFileSync(full('wide.csv'), wide);
    const workbook = new ExcelJS.Workbook();
    const sheet = workbook.addWorksheet('Rows');
    for (const row of Papa.parse<string[]>(readFileSync(full('blank.csv'), 'utf8').trimEnd()).data)
      sheet.addRow(row);
    await workbook.xlsx.writeFile(full('blank.xlsx'));
    for (const [data, out] of [
      ['blank.csv', 'a.csv'],
      ['wide.csv', 'b.csv'],
      ['blank.xlsx', 'c.csv'],
      ['blank.xlsx', 'd.xlsx'],
    ] as const) {
      const report = audit(data, out).json();
      assert.deepEqual([report.clean, report.filled], [40, blanks], data);
    }
    for (const out of ['a.csv', 'b.csv', 'c.csv'])
      assert.deepEqual(Papa.parse(readFileSync(full(out), 'utf8').trimEnd()).data, coded(), out);
    const back = new ExcelJS.Workbook();
    await back.xlsx.readFile(full('d.xlsx'));
    const cells = Array.from(back.worksheets[0]?.getRow(2).values as unknown[]);
    assert.deepEqual(
      cells.slice(1).map((cell) => String(cell ?? '')),
      coded()[1],
    );
  });

  it('audits a large file on threads, and writes its rows in order', () => {
    const [head = '', ...rows] = readFileSync(full('rows.csv'), 'utf8').trimEnd().split('\r\n');
    const times = Math.ceil(5_000_000 / rows.join('\r\n').length);
    // One row in each round ends elsewhere than its answers lead to.
    const wrong = rows.map((row, n) => (n === 7 ? row.replace(/[^,]*$/, 'elsewhere') : row));
    const body = `${wrong.join('\r\n')}\r\n`.repeat(times);
    writeFileSync(full('large.csv'), `${head}\r\n${body}`);
    const report = audit('large.csv', 'large-out.csv').json();
    assert.deepEqual([report.rows, report.clean], [40 * times, 39 * times]);
    assert.deepEqual(
      report.problems.map(({ row, value }) => [row, value]),
      Array.from({ length: times }, (_, n) => [40 * n + 8, 'elsewhere']),
    );
    assert.ok(readFileSync(full('large-out.csv'), 'utf8') === `${head}\r\n${body}`, 'written as it was read');
  });

  it('leaves nothing behind where it is stopped half-way', async () => {
    const args = ['audit', study, '--data', full('large.csv'), '--out', full('stopped.csv')];
    const child = spawn('node', [path.join(root, 'bin', 'jolly-fork'), ...args], { stdio: 'ignore' });
    const ended = new Promise((done) => child.once('exit', (code) => done(code)));
    while (!existsSync(full('stopped.csv.part')) && child.exitCode === null)
      await new Promise((done) => setTimeout(done, 5));
    child.kill('SIGINT');
    assert.equal(await ended, 130);
    assert.equal(existsSync(full('stopped.csv')) || existsSync(full('stopped.csv.part')), false);
  });

  it('tells of columns, keeps those it is told to, and never writes what a spreadsheet would run', () => {
    withRows('columns.csv', (rows) => {
      const [head = []] = rows;
      head[head.indexOf('tenure')] = 'house';
      head.push('case', 'note');
      rows.slice(1).forEach((row, n) => row.push(`c${n}`, '=2+2'));
    });
    const report = audit('columns.csv', 'columns-out.csv', '--keep', 'case,note').json();
    const about = report.problems.filter(({ row }) => row === 0);
    assert.deepEqual(
      about.map(({ column, problem }) => [column, problem]),
      [
        ['house', 'unknown-column'],
        ['tenure', 'missing-column'],
      ],
    );
    const [head = [], first = []] = Papa.parse<string[]>(readFileSync(full('columns-out.csv'), 'utf8')).data;
    assert.equal(first[head.indexOf('note')], "'=2+2");
    assert.equal(first[head.indexOf('case')], 'c0');
  });

  it('refuses what is no table of rows, in one line that says why, and leaves nothing behind', async () => {
    writeFileSync(full('empty.csv'), '');
    writeFileSync(full('twice.csv'), 'adult,adult\n1,1\n');
    writeFileSync(full('ragged.csv'), 'adult,agree\n1,1\n1\n');
    writeFileSync(full('broken.xlsx'), Buffer.from([0x50, 0x4b, 3, 4, 0, 0]));
    const picture = path.relative(folder, path.join(root, 'docs', 'screenshots', 'script.png'));
    const isRefused = async ([data, words]: readonly [string, RegExp]) => {
      const { status, stderr } = await refused(
        'audit',
        study,
        '--data',
        full(data),
        '--out',
        full('never.csv'),
      );
      assert.equal(status, 2, data);
      assert.match(stderr, words);
      assert.equal(stderr.trimEnd().split('\n').length, 1);
      assert.equal(existsSync(full('never.csv')) || existsSync(full('never.csv.part')), false);
    };
    const cases = [
      ['empty.csv', /the file is empty/],
      ['twice.csv', /Columns 1 and 2 are both called “adult”/],
      ['ragged.csv', /Row 2 has 1 cells, and the first row 2/],
      ['broken.xlsx', /cannot be read/],
      [picture, /a PNG picture/],
      ['nowhere.csv', /there is no such file/],
    ] as const;
    for (const each of cases) await isRefused(each);
  });
});
