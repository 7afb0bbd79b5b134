/** `convert` as others call it: what it writes, what it says is not taken over, and what it refuses. */
import assert from 'node:assert/strict';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { it } from 'node:test';
import { readDocumentText } from '../../core/document/read';
import { NO_WORK } from '../../core/exchange/work-file';
import { FORMATS } from '../../core/release/formats';
import { called, refused } from '../../../tests/support/command';

const DEMO = 'demo/winter-diary.fork.json';
const folder = mkdtempSync(path.join(tmpdir(), 'jolly-fork-convert-'));
const at = (name: string) => path.join(folder, name);

it('writes a questionnaire as it is always written, and the schema that it fits', () => {
  const loose = JSON.stringify(JSON.parse(readFileSync(DEMO, 'utf8')));
  writeFileSync(at('loose.json'), loose);
  const { status, stdout } = called(
    'convert',
    at('loose.json'),
    '--to',
    'document',
    '--out',
    at('a.fork.json'),
    '--json',
  );
  assert.equal(status, 0);
  assert.deepEqual(JSON.parse(stdout), { written: [at('a.fork.json')], losses: [] });
  const written = readFileSync(at('a.fork.json'), 'utf8');
  assert.deepEqual(JSON.parse(written), JSON.parse(loose));
  assert.equal(called('convert', DEMO, '--to', 'document', '--out', at('b.fork.json')).status, 0);
  assert.equal(readFileSync(at('b.fork.json'), 'utf8'), written);
  assert.equal(called('convert', DEMO, '--to', 'schema', '--out', at('s.schema.json')).status, 0);
  assert.equal(
    readFileSync(at('s.schema.json'), 'utf8'),
    readFileSync('docs/questionnaire.schema.json', 'utf8'),
  );
});

it('writes a script that reads back to the same file, and tells by line what cannot be read', () => {
  assert.equal(called('convert', DEMO, '--to', 'script', '--out', at('s.script.txt')).status, 0);
  assert.equal(called('convert', DEMO, '--to', 'document', '--out', at('d.fork.json')).status, 0);
  const back = called('convert', at('s.script.txt'), '--from', 'script', '--out', at('back.fork.json'));
  assert.equal(back.status, 0, back.stderr);
  assert.equal(readFileSync(at('back.fork.json'), 'utf8'), readFileSync(at('d.fork.json'), 'utf8'));
  writeFileSync(at('bad.script.txt'), 'Jolly Fork script, 1\ntitel: Diary\n');
  const refused = called('convert', at('bad.script.txt'), '--from', 'script', '--out', at('x'));
  assert.equal(refused.status, 2);
  assert.match(refused.stderr, /bad\.script\.txt: line 2: “titel: Diary” is not understood here/);
});

it('makes a questionnaire of a list, with the lines that nothing was made of', () => {
  writeFileSync(at('list.txt'), '1. Do you rent?\n- Yes (skip to Q9)\n- No\n2. Why?\n');
  const json = called('convert', at('list.txt'), '--from', 'list', '--out', at('l.fork.json'), '--json');
  assert.equal(json.status, 0, json.stderr);
  const { losses } = json.json() as { losses: { at: { line: number }; message: string }[] };
  assert.deepEqual(
    losses.map((loss) => loss.at.line),
    [2],
  );
  assert.equal(called('check', at('l.fork.json'), '--json').status, 0);
  const told = called('convert', at('list.txt'), '--from', 'list', '--out', at('l.fork.json'));
  assert.match(told.stdout, /^Wrote .*l\.fork\.json\.\nNot taken over:\n {2}line 2: /);
});

it('refuses in one line what it cannot do', async () => {
  for (const [args, said] of [
    [[DEMO, '--to', 'document'], /convert needs --out PATH/],
    [[DEMO, '--out', at('x')], /needs either --to FORMAT/],
    [[DEMO, '--to', 'document', '--from', 'list', '--out', at('x')], /needs either --to FORMAT/],
    [
      [DEMO, '--to', 'picture', '--out', at('x')],
      /no format "picture" to write to: document, script, items, schema, test-pack, paper/,
    ],
    [
      [DEMO, '--from', 'schema', '--out', at('x')],
      /no format "schema" to read from: document, script, items/,
    ],
    [[DEMO, '--to', 'paper', '--out', at('x')], /written as \.html, \.pdf, \.docx; let PATH end with one/],
    [[DEMO, '--to', 'paper', '--out', at('x.pdf'), '--csv'], /--csv is for --to items/],
    [[DEMO, '--to', 'parquet', '--out', at('x')], /needs rows: either --data rows\.csv, or --simulate N/],
    [
      [DEMO, '--to', 'parquet', '--out', at('x'), '--simulate', 'ten'],
      /--simulate takes a whole number from 1/,
    ],
    [
      [DEMO, '--to', 'script', '--out', at('x'), '--simulate', '9'],
      /for formats of data, which script is not/,
    ],
    [[DEMO, '--to', 'document', '--out', at('no/where.json')], /cannot be written \(ENOENT\)/],
    [[at('none.txt'), '--from', 'list', '--out', at('x')], /there is no such file/],
  ] as const) {
    const { status, stderr, stdout } = await refused('convert', ...args);
    assert.equal(status, 2, args.join(' '));
    assert.match(stderr, said);
    assert.deepEqual([stderr.trim().split('\n').length, stdout], [1, '']);
  }
});

it('writes data of made-up respondents, or of rows that fit, as several programs read them', () => {
  const { status } = called('simulate', DEMO, '-n', '40', '--seed', '5', '--out', at('rows.csv'));
  assert.equal(status, 0);
  for (const [to, files] of [
    ['csvw', ['data.csv', 'codes.csv', 'csv-metadata.json']],
    ['data-package', ['data.csv', 'datapackage.json']],
    ['r', ['data.csv', 'read-data.R']],
  ] as const) {
    const made = called(
      'convert',
      DEMO,
      '--to',
      to,
      '--out',
      at(to),
      '--simulate',
      '40',
      '--seed',
      '5',
      '--json',
    );
    assert.deepEqual(
      made.json(),
      { written: files.map((file) => path.join(at(to), file)), losses: [] },
      made.stderr,
    );
    const given = called('convert', DEMO, '--to', to, '--out', at(`${to}-given`), '--data', at('rows.csv'));
    assert.equal(given.status, 0, given.stderr);
    const rows = ['rows.csv', `${to}/data.csv`, `${to}-given/data.csv`].map((file) =>
      readFileSync(at(file), 'utf8'),
    );
    assert.deepEqual(rows, Array(3).fill(rows[0]));
  }
  writeFileSync(at('other.csv'), 'keep,mood\n1,2\n');
  const refused = called('convert', DEMO, '--to', 'r', '--out', at('x'), '--data', at('other.csv'));
  assert.equal(refused.status, 2);
  assert.match(
    refused.stderr,
    /other\.csv: It has no column heat_main.*and 4 more\. The questionnaire has no column mood/,
  );
});

it('writes the package in two threads, byte for byte as one would', async () => {
  const { status, stderr } = called('convert', DEMO, '--to', 'package', '--out', at('all.zip'));
  assert.equal(status, 0, stderr);
  const read = readDocumentText(readFileSync(DEMO, 'utf8'));
  assert.ok(read.ok);
  const one = await FORMATS.package.write({ document: read.document, work: NO_WORK });
  assert.deepEqual(new Uint8Array(readFileSync(at('all.zip'))), one);
});

it('writes a list of items as a workbook, or as CSV, and reads either', () => {
  assert.equal(called('convert', DEMO, '--to', 'items', '--out', at('items.xlsx')).status, 0);
  assert.equal(called('convert', DEMO, '--to', 'items', '--out', at('list.txt'), '--csv').status, 0);
  for (const name of ['items.xlsx', 'list.txt']) {
    const { status, stderr } = called(
      'convert',
      at(name),
      '--from',
      'items',
      '--out',
      at(`${name}.fork.json`),
    );
    assert.equal(status, 0, stderr);
  }
  const [one, other] = ['items.xlsx', 'list.txt'].map(
    (name) => JSON.parse(readFileSync(at(`${name}.fork.json`), 'utf8')) as { sections: unknown },
  );
  assert.deepEqual(one?.sections, other?.sections);
});
