/** An audit of a file in the browser: its figures, its problems page by page, and the files it gives. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { AuditTask } from './audit-task';
import { openFile, type RowSource } from './read-file';

const plan = planFor(
  questionnaire([
    section('a', [ask('own', 2, { required: true }), ask('rent', 2, { required: true, askIf: 'own = 2' })]),
  ]),
);

async function taskOf(text: string): Promise<AuditTask> {
  const opening = await openFile(new File([text], 'rows.csv'), null);
  assert.ok(opening.ok);
  const task = await AuditTask.open(opening.source);
  assert.ok(task instanceof AuditTask, String(task));
  return task;
}
const audit = (task: AuditTask) => task.audit(plan, {}, {}, null, () => undefined);

const ROWS = 'own,rent,ending\n1,,done\n2,1,done\n2,,done\n7,1,done\nAnswer 1,,\n';

describe('the audit of a file', () => {
  it('counts rows by what became of them, and problems by kind and column', async () => {
    const outcome = await audit(await taskOf(ROWS));
    assert.ok(outcome.ok);
    const { summary } = outcome;
    assert.deepEqual(
      [summary.rows, summary.clean, summary.problems, summary.listed, summary.rowsWithProblems],
      [5, 3, 2, 2, 2],
    );
    assert.deepEqual(
      new Map(summary.byProblem),
      new Map([
        ['missing-answer', 1],
        ['unknown-code', 1],
      ]),
    );
    assert.deepEqual(
      new Map(summary.byColumn.map(({ column, total }) => [column, total])),
      new Map([
        ['rent', 1],
        ['own', 1],
      ]),
    );
    assert.deepEqual(new Map(summary.byEnding), new Map([['done', 5]]));
  });

  it('lists its problems page by page, and finds who a row is', async () => {
    const task = await taskOf(ROWS);
    assert.equal(await task.walked(1), null);
    await audit(task);
    assert.equal(task.listed({}, 0, 1).problems.length, 1);
    assert.deepEqual(
      task.listed({}, 1, 5).problems.map(({ row }) => row),
      [4],
    );
    assert.deepEqual(
      [
        { column: 'rent' },
        { row: 3 },
        { row: 4 },
        { problem: 'unknown-code' },
        { problem: 'unknown-code', row: 3 },
      ].map((of) =>
        task.listed(of as Parameters<typeof task.listed>[0], 0, 5).problems.map(({ row }) => row),
      ),
      [[3], [3], [4], [4], []],
    );
    assert.deepEqual((await task.walked(2))?.answers, { own: 2, rent: 1 });
    // A row without a problem is read from the file again; a row that is not there is nobody.
    assert.equal((await task.walked(5))?.answers.own, 1);
    assert.equal(await task.walked(6), null);
  });

  it('shows the first rows of a file, however they stream in, and finds a row in any of its pieces', async () => {
    const rows = Array.from({ length: 10 }, (_, n) => [String(1 + (n % 2)), '', 'done']);
    const all = [['own', 'rent', 'ending'], ...rows];
    for (const size of [1, 2, 3, 20]) {
      const source: RowSource = {
        readAs: 'pieces',
        format: { delimiter: ',', quote: '"' },
        encoding: null,
        size: all.length,
        pieces: async function* () {
          for (let at = 0; at < all.length; at += size) {
            const share = Math.min(1, (at + size) / all.length);
            yield await Promise.resolve({ piece: all.slice(at, at + size), newline: undefined, share });
          }
        },
      };
      const task = await AuditTask.open(source);
      assert.ok(task instanceof AuditTask);
      assert.deepEqual(task.opened.samples, [
        ['1', '2', '1'],
        ['', '', ''],
        ['done', 'done', 'done'],
      ]);
      const shares: number[] = [];
      await task.audit(plan, {}, {}, null, (share) => shares.push(share));
      assert.equal(shares.at(-1), 1);
      assert.deepEqual(
        shares,
        shares.toSorted((a, b) => a - b),
      );
      assert.deepEqual(
        await Promise.all([1, 5, 10].map(async (row) => (await task.walked(row))?.answers.own)),
        [1, 1, 2],
      );
      assert.equal(await task.walked(11), null);
      assert.equal(task.tabulated()?.[0]?.ids.length, 10);
    }
  });

  it('gives the coded rows as a workbook, numbers as numbers', async () => {
    const task = await taskOf(ROWS);
    await audit(task);
    const { default: ExcelJS } = await import('exceljs');
    const book = new ExcelJS.Workbook();
    await book.xlsx.load(await (await task.file('coded-xlsx')).arrayBuffer());
    const sheet = book.worksheets[0];
    assert.equal(sheet?.name, 'Coded');
    assert.deepEqual((sheet.getRow(1).values as unknown[]).slice(1), ['own', 'rent', 'ending']);
    assert.deepEqual((sheet.getRow(2).values as unknown[]).slice(1), [1, -1, 'done']);
    assert.equal(sheet.rowCount, 6);
  });

  it('gives the coded rows, the changes and the problems as files', async () => {
    const task = await taskOf(ROWS);
    await audit(task);
    const text = async (which: 'coded-csv' | 'changes' | 'problems') =>
      (await (await task.file(which)).text()).split('\r\n');
    assert.deepEqual(await text('coded-csv'), [
      'own,rent,ending',
      '1,-1,done',
      '2,1,done',
      '2,,done',
      '7,1,done',
      '1,-1,done',
      '',
    ]);
    const changes = await text('changes');
    assert.equal(changes[0], 'row,column,from,to,why');
    assert.deepEqual(
      changes.slice(1, -1).map((line) => line.split(',').slice(0, 4).join()),
      ['1,rent,,-1', '5,rent,,-1', '5,ending,,done', '5,own,Answer 1,1'],
    );
    const problems = await text('problems');
    assert.deepEqual(
      problems.slice(1, -1).map((line) => line.split(',').slice(0, 4).join()),
      ['3,rent,missing-answer,', '4,own,unknown-code,7'],
    );
  });

  it('refuses what cannot be rows, and stops where a row has more cells than the head', async () => {
    for (const [text, words] of [
      ['own,rent\n', /no row of answers/],
      ['own,own\n1,2\n', /own/],
    ] as const) {
      const opening = await openFile(new File([text], 'rows.csv'), null);
      assert.ok(opening.ok);
      assert.match(String(await AuditTask.open(opening.source)), words);
    }
    const outcome = await audit(await taskOf('own,rent,ending\n1,,done\n1,2,done,4\n'));
    assert.match(outcome.ok ? '' : outcome.problem, /Nothing was changed/);
  });
});
