/** An audit of a file in the browser: its figures, its problems page by page, and the files it gives. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { auditorHere, PieceAudit, type PieceAudited } from '../../core/collected/piece';
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

/** Rows that come so many at a time. */
const inPieces = (all: readonly string[][], size: number): RowSource => ({
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
});
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

  it('tells first what there is most of', async () => {
    const text = ['own,rent,ending', '1,,done', ',,', '2,,done', '2,,done', '2,,done', '9,,done', '2,5,out'];
    const outcome = await audit(await taskOf(`${text.join('\n')}\n`));
    assert.ok(outcome.ok);
    const { summary } = outcome;
    const counts = [summary.byProblem, summary.byEnding].map((list) => list.map(([, count]) => count));
    for (const list of [...counts, ...summary.byColumn.map(({ kinds }) => kinds.map(([, count]) => count))])
      assert.deepEqual(
        list,
        list.toSorted((a, b) => b - a),
      );
    assert.equal(summary.byProblem[0]?.[0], 'missing-answer');
    assert.equal(summary.byColumn[0]?.column, 'rent');
    assert.deepEqual(
      summary.byColumn.map(({ total }) => total),
      summary.byColumn.map(({ kinds }) => kinds.reduce((sum, [, count]) => sum + count, 0)),
    );
    assert.ok((summary.byColumn[0]?.total ?? 0) > (summary.byColumn[1]?.total ?? 0));
    assert.deepEqual([summary.filled > 0, summary.recoded, summary.tabulated], [true, 0, 7]);
  });

  it('tells of a column that is there without its row, and of a case that comes twice', async () => {
    const task = await taskOf('own,rent,odd,ending,case\n1,,x,done,a\n1,,y,done,a\n');
    const outcome = await task.audit(plan, {}, {}, 'case', () => undefined);
    assert.ok(outcome.ok);
    const { problems } = task.listed({}, 0, 9);
    assert.deepEqual(
      problems.map(({ row, column, problem }) => `${row} ${column} ${problem}`),
      ['0 odd unknown-column', '2 case duplicate-case'],
    );
    assert.deepEqual([outcome.summary.problems, outcome.summary.listed], [2, 2]);
    const lines = (await (await task.file('problems')).text()).split('\r\n');
    assert.ok(lines[1]?.startsWith(',odd,unknown-column,'), lines[1]);
    assert.ok(lines[2]?.startsWith('2,case,duplicate-case,a,1,'), lines[2]);
  });

  it('lists, keeps and tabulates no more than it says, whatever is counted', async () => {
    const rows = 250_000;
    const setting = { header: ['own', 'rent', 'ending'], options: {}, said: {}, caseColumn: null };
    const audited = new PieceAudit(plan, {
      ...setting,
      ...{ format: { delimiter: ',', quote: '"' }, newline: '\n', keepsRows: true, tabulates: true },
    }).audit([['7', '', 'done']]);
    const [problem] = audited.problems;
    assert.ok(problem && audited.problems.length === 1);
    const many: PieceAudited = {
      ...audited,
      counts: { ...audited.counts, rows },
      problems: Array.from({ length: rows }, (_, n) => ({ ...problem, row: n + 1 })),
      kept: Array.from({ length: 15_000 }, (_, n) => ({ row: n + 1, cells: ['2', String(n % 2), 'done'] })),
    };
    let ended = 0;
    const all = Array.from({ length: 20_000 }, () => ['1', '', 'done']);
    const task = await AuditTask.open(inPieces([['own', 'rent', 'ending'], ...all], 10_001));
    assert.ok(task instanceof AuditTask);
    const outcome = await task.audit(
      plan,
      {},
      {},
      null,
      () => undefined,
      () => [{ audit: () => Promise.resolve(many), end: () => (ended += 1) }],
    );
    assert.ok(outcome.ok);
    assert.equal(ended, 1);
    assert.equal(outcome.summary.rows, 2 * rows);
    assert.equal(outcome.summary.listed, 200_000);
    assert.equal(task.listed({}, 0, 1).total, 200_000);
    // Kept rows are those of the audit; others are read from the file, where they are something else.
    const answers = async (row: number) => (await task.walked(row))?.answers;
    assert.deepEqual(await answers(2), { own: 2, rent: 1 });
    assert.deepEqual(await answers(rows + 4_999), { own: 2 });
    assert.deepEqual(await answers(15_001), { own: 1 });
    assert.equal(await task.walked(rows + 5_001), null);
  });

  it('ends who audits also where a row does not fit', async () => {
    let ended = 0;
    const task = await taskOf('own,rent,ending\n1,,done\n1,2,done,4\n');
    const outcome = await task.audit(
      plan,
      {},
      {},
      null,
      () => undefined,
      (of, setting) => [{ ...auditorHere(of, setting), end: () => (ended += 1) }],
    );
    assert.deepEqual([outcome.ok, ended], [false, 1]);
  });

  it('says of each change why it was made', async () => {
    const task = await taskOf(ROWS);
    await audit(task);
    const [, ...changes] = (await (await task.file('changes')).text()).trimEnd().split('\r\n');
    assert.deepEqual(
      new Set(changes.map((line) => line.split(',').slice(4).join())),
      new Set(['follows from the routing', 'label written as its code']),
    );
    const [head] = (await (await task.file('problems')).text()).split('\r\n');
    assert.equal(head, 'row,column,problem,value,instead,meaning');
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
      const source = inPieces(all, size);
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
