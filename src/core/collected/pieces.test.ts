/** A file audited in pieces, by one or by several at once, is the file audited as a whole. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { likelyCaseColumn } from '../audit/matching';
import { AuditRun, type AuditCounts } from '../audit/run';
import { CsvPieces, rowsInPiece, type RowsPiece } from '../exchange/csv';
import { takeHeader, type FilePiece } from '../exchange/pieces';
import { CellTable, rowsOfColumns } from '../tables/cell-columns';
import { problemAt } from '../wording/audit';
import { auditedInOrder } from './in-order';
import { auditorHere, PieceAudit, type AuditSetting, type PieceAuditor, type RowFound } from './piece';
import { auditorThrough, pieceApi } from './piece-through';
import { AuditTotals } from './totals';

const plan = planFor(
  questionnaire([
    section('a', [
      ask('own', 2, { required: true }),
      ask('rent', { type: 'number', min: 0, max: 900 }, { required: true, askIf: 'own = 2' }),
      ask('words', { type: 'text' }),
    ]),
  ]),
);
const FORMAT = { delimiter: ',', quote: '"' };

/** As another thread does it: call after call, each after a while that depends on what was given. */
function elsewhere(setting: AuditSetting): PieceAuditor {
  const api = pieceApi();
  let before: Promise<unknown> = Promise.resolve();
  const across =
    <Given extends unknown[], Result>(call: (...given: Given) => Result) =>
    (...given: Given): Promise<Result> => {
      const answer = before.then(async () => {
        await new Promise((done) => setTimeout(done, JSON.stringify(given).length % 3));
        return structuredClone(call(...structuredClone(given)));
      });
      before = answer;
      return answer;
    };
  return auditorThrough(
    {
      open: across((document, given) => api.open(document, given)),
      audit: across((piece) => api.audit(piece)),
    },
    plan.document,
    setting,
    new Promise<never>(() => undefined),
    () => undefined,
  );
}

interface Whole {
  readonly text: string;
  readonly counts: AuditCounts;
  readonly problems: readonly RowFound[];
  readonly kept: readonly (readonly string[])[];
  /** As they are tabulated. */
  readonly coded: readonly (readonly string[])[];
  readonly refused: string | null;
  readonly rowsWithProblems: number;
}

/** `cuts`: lengths of the pieces; the rest is the last. */
async function auditOf(
  text: string,
  {
    cuts = [],
    auditors = 0,
    caseColumn = null,
  }: { cuts?: number[]; auditors?: number; caseColumn?: string | null },
): Promise<Whole> {
  async function* pieces(): AsyncGenerator<FilePiece> {
    const cutter = new CsvPieces(FORMAT);
    let at = 0;
    for (const cut of cuts) {
      yield {
        piece: cutter.push(text.slice(at, at + cut)),
        newline: cutter.newline,
        share: at / text.length,
      };
      at += cut;
    }
    yield { piece: cutter.push(text.slice(at), true), newline: cutter.newline, share: 1 };
    await Promise.resolve();
  }
  const taken = await takeHeader(pieces(), FORMAT);
  assert.ok(taken);
  const { header, newline, rest } = taken;
  const setting = {
    header,
    options: {},
    said: {},
    caseColumn,
    format: FORMAT,
    newline,
    keepsRows: true,
    tabulates: true,
  };
  const run = new AuditRun(plan, header, {}, {}, caseColumn);
  const totals = new AuditTotals(header.length, run.caseColumn, run.columnProblems);
  const here = [auditorHere(plan, setting)];
  const all = auditors === 0 ? here : Array.from({ length: auditors }, () => elsewhere(setting));
  const problems: RowFound[] = [];
  const kept: (readonly string[])[] = [];
  const coded = new CellTable(run.columns.length);
  let written = '';
  let refused: string | null = null;
  for await (const { audited } of auditedInOrder(rest, all)) {
    const added = totals.add(audited);
    problems.push(...added.problems);
    kept.push(...audited.kept.map(({ cells }) => cells));
    coded.append(audited.columns ?? []);
    assert.ok(audited.written instanceof Uint8Array);
    written += new TextDecoder().decode(audited.written);
    refused ??= added.refused;
    if (refused !== null) break;
  }
  const { counts, rowsWithProblems } = totals;
  const rows = [...rowsOfColumns(coded.columns())];
  return { text: written, coded: rows, counts, problems, kept, refused, rowsWithProblems };
}

const row = fc.tuple(
  fc.constantFrom('1', '2', '7', '', 'Answer 2'),
  fc.constantFrom('', '450', '901'),
  fc.constantFrom('', 'warm', '"says ""no"""', '"two\r\nlines"', 'é'),
  fc.constantFrom('done', 'out', ''),
  fc.constantFrom('', 'a', 'b', ' c', '5'),
);
const HEADER = 'own,rent,words,ending,case';
const textOf = (rows: readonly (readonly string[])[], newline: string) =>
  [HEADER, ...rows.map((cells) => cells.join())].join(newline) + newline;

describe('a file in pieces', () => {
  it('is the file as a whole, wherever it is cut and by however many it is audited', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(row, { maxLength: 12 }),
        fc.constantFrom('\n', '\r\n'),
        fc.array(fc.nat(60), { maxLength: 8 }),
        fc.integer({ min: 1, max: 3 }),
        fc.constantFrom(null, 'case'),
        async (rows, newline, cuts, auditors, caseColumn) => {
          const text = textOf(rows, newline);
          const whole = await auditOf(text, { caseColumn });
          assert.equal(whole.counts.rows, rows.length);
          const again = rowsInPiece(whole.text, FORMAT, '\r\n');
          assert.deepEqual(
            whole.coded,
            again.map((cells) => cells.slice(0, 4)),
          );
          assert.deepEqual(await auditOf(text, { cuts, auditors, caseColumn }), whole);
        },
      ),
      { numRuns: 150 },
    );
  });
  it('tells of a case that comes twice, whichever pieces the two are in, with the row that had it first', async () => {
    assert.equal(likelyCaseColumn(HEADER.split(',')), 'case');
    const ids = ['7', '8', ' 7', '', '', '7'];
    const rows = ids.map((id, n) => ['2', '450', 'warm', n === 2 ? 'out' : 'done', id]);
    for (const cuts of [[], [50, 20, 20, 20]]) {
      const { problems, counts, rowsWithProblems } = await auditOf(textOf(rows, '\n'), {
        cuts,
        caseColumn: 'case',
      });
      assert.deepEqual(
        problems.map((problem) => `${problem.row} ${problem.value} ${problemAt(problem, (e) => e)}`),
        [
          '3 out wrong ending: they lead to done',
          '3 7 duplicate case: row 1 has it as well',
          '6 7 duplicate case: row 1 has it as well',
        ],
      );
      assert.equal(counts.byProblem.get('duplicate-case'), 2);
      assert.equal(counts.byColumn.get('case')?.get('duplicate-case'), 2);
      assert.deepEqual([counts.rows, counts.clean, counts.problems, rowsWithProblems], [6, 4, 3, 2]);
      assert.deepEqual(Object.fromEntries(counts.byEnding), { done: 6 });
    }
  });
  it('counts a problem of a column once, and what was filled in and written anew in every piece', async () => {
    const text = `own,rent,words,odd,ending\n${'1,,warm,x,done\nAnswer 1,,warm,y,done\n'.repeat(4)}`;
    for (const cuts of [[], [30, 20, 20]]) {
      const { counts, rowsWithProblems, problems } = await auditOf(text, { cuts });
      assert.deepEqual([...counts.byProblem], [['unknown-column', 1]]);
      assert.deepEqual([...(counts.byColumn.get('odd') ?? [])], [['unknown-column', 1]]);
      assert.deepEqual(
        [counts.problems, counts.rows, counts.clean, counts.recoded, problems.length, rowsWithProblems],
        [1, 8, 8, 4, 0, 0],
      );
      assert.equal(counts.filled, 8);
    }
  });
  it('keeps rows with problems where they are wanted, as they were read', async () => {
    const text = textOf(
      [
        ['1', '', 'warm', 'done', ''],
        ['Answer 2', '901', 'é', 'done', ''],
      ],
      '\n',
    );
    assert.deepEqual((await auditOf(text, {})).kept, [['Answer 2', '901', 'é', 'done', '']]);
    const audit = new PieceAudit(plan, { ...setting, keepsRows: false });
    assert.deepEqual(audit.audit([['2', '901', '', 'done', '']]).kept, []);
  });
  it('stops at a row that does not fit, and names it as it is counted in the file', async () => {
    const rows = Array.from({ length: 9 }, () => ['1', '', '', 'done', '']);
    const text = `${textOf(rows, '\n')}1,2,3\n1,,,done,\n`;
    for (const cuts of [[], [40, 30, 30, 30, 30]])
      assert.match((await auditOf(text, { cuts })).refused ?? '', /^Row 10 has 3 cells, and the first row 5/);
  });
  const piece: RowsPiece = [['1', '', 'warm', 'done', '']];
  async function* endless(asked: () => void) {
    for (;;) {
      asked();
      yield await Promise.resolve({ piece });
    }
  }
  const setting: AuditSetting = {
    header: HEADER.split(','),
    ...{
      options: {},
      said: {},
      caseColumn: null,
      format: FORMAT,
      newline: '\n',
      keepsRows: false,
      tabulates: false,
    },
  };
  it('is never held in more pieces than are in hand, however long it is', async () => {
    const auditors = [auditorHere(plan, setting), auditorHere(plan, setting)];
    let held = 0;
    let most = 0;
    let pieces = 0;
    for await (const { audited } of auditedInOrder(
      endless(() => (held += 1)),
      auditors,
    )) {
      assert.equal(audited.counts.rows, 1);
      most = Math.max(most, held);
      held -= 1;
      pieces += 1;
      if (pieces === 50) break;
    }
    assert.equal(most, 4);
  });
  it('fails with whoever audits it, and with what was not said in order', async () => {
    let calls = 0;
    const { audit } = auditorHere(plan, setting);
    const breaks: PieceAuditor = {
      audit: (given) => {
        calls += 1;
        return calls < 3 ? audit(given) : Promise.reject(new Error('a thread is gone'));
      },
      end: () => undefined,
    };
    const seen: number[] = [];
    await assert.rejects(async () => {
      for await (const { audited } of auditedInOrder(
        endless(() => undefined),
        [breaks],
      ))
        seen.push(audited.counts.rows);
    }, /a thread is gone/);
    assert.deepEqual(seen, [1, 1]);
    assert.throws(() => pieceApi().audit(piece), /no questionnaire/);
    const gone = Promise.reject(new Error('it broke down'));
    const waits = () => new Promise<never>(() => undefined);
    const lost = auditorThrough({ open: waits, audit: waits }, plan.document, setting, gone, () => undefined);
    await assert.rejects(lost.audit(piece), /it broke down/);
  });
});
