/** Mutated files: questionnaires, saved work, rows as CSV and workbooks. Each is read, or refused in a sentence. */
import assert from 'node:assert/strict';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import ExcelJS from 'exceljs';
import { Misuse } from '../../src/cli/files';
import { openRows } from '../../src/cli/table-files';
import { headerProblem, raggedProblem } from '../../src/core/audit/matching';
import { AuditRun } from '../../src/core/audit/run';
import { columnsOf } from '../../src/core/coding/columns';
import { WHOLE_STUDY } from '../../src/core/document/addresses';
import { readDocument, readDocumentText, writeDocument } from '../../src/core/document/read';
import type { Questionnaire } from '../../src/core/document/types';
import { readCodebookSheet } from '../../src/core/exchange/codebook-sheet';
import { csvLines } from '../../src/core/exchange/csv';
import { fromList } from '../../src/core/exchange/from-list';
import { NO_WORK, readWork, writeWork } from '../../src/core/exchange/work-file';
import { planOf } from '../../src/core/routing/planner';
import { madeUpRespondents } from '../../src/core/simulate/respondents';
import { packedProblem } from '../../src/store/packed';
import { FEATURED } from '../agree/featured';
import { brokenBytes, intOf, type SeededPart } from './part';

const folder = mkdtempSync(path.join(tmpdir(), 'jolly-fork-broken-'));
const plan = planOf(FEATURED[0] as Questionnaire);
const header = columnsOf(plan).map(({ name }) => name);
const people = [...madeUpRespondents(plan, 12, 1)].map((person) => [...person.row()]);
const rowsText = csvLines([header, ...people]);
const listText = readFileSync(path.join('tests', 'lists', '02-q-marks-and-numbered-answers.txt'), 'utf8');

let workbook: Promise<Uint8Array> | null = null;
function sheet(): Promise<Uint8Array> {
  workbook ??= (async () => {
    const book = new ExcelJS.Workbook();
    book.addWorksheet('rows').addRows([header, ...people]);
    return new Uint8Array(await book.xlsx.writeBuffer());
  })();
  return workbook;
}

const text = (bytes: Uint8Array) => new TextDecoder().decode(bytes);
const bytes = (words: string) => new TextEncoder().encode(words);

/** Audits rows as the command does; a refusal in words is fine. */
async function audit(body: Uint8Array): Promise<void> {
  const file = path.join(folder, 'rows');
  writeFileSync(file, body);
  let run: AuditRun | null = null;
  try {
    for await (const bunch of (await openRows(file, undefined, 400)).rows)
      for (const cells of bunch) {
        if (run === null) {
          if (headerProblem(cells) !== null) return;
          run = new AuditRun(plan, cells);
        } else if (raggedProblem(run.counts.rows + 1, cells, run.matching.header.length) !== null) return;
        else run.row(cells);
      }
  } catch (error) {
    if (!(error instanceof Misuse)) throw error;
    assert.match(error.message, /\S/);
  }
}

const KINDS: readonly ((seed: number) => Promise<void> | void)[] = [
  (seed) => {
    const int = intOf(seed);
    const whole = FEATURED[int(0, FEATURED.length - 1)] as Questionnaire;
    const read = readDocumentText(text(brokenBytes(bytes(writeDocument(whole)), int)));
    if (read.ok) assert.ok(readDocument(JSON.parse(writeDocument(read.document))).ok);
    else assert.ok(read.problems.length > 0);
  },
  (seed) => {
    const int = intOf(seed);
    const whole = FEATURED[int(0, FEATURED.length - 1)] as Questionnaire;
    const comment = { place: WHOLE_STUDY, text: 'Hm', author: 'A', at: 1, settledBy: null, settledAt: null };
    const read = readWork(brokenBytes(writeWork(whole, { ...NO_WORK, comments: [comment] }), int));
    if (!read.ok) assert.match(read.problem, /\S/);
  },
  (seed) => audit(brokenBytes(bytes(rowsText), intOf(seed))),
  async (seed) => audit(brokenBytes(await sheet(), intOf(seed))),
  (seed) => {
    const int = intOf(seed);
    const cells = text(brokenBytes(bytes(rowsText), int))
      .split('\n')
      .map((line) => line.split(','));
    readCodebookSheet(FEATURED[int(0, FEATURED.length - 1)] as Questionnaire, cells);
  },
  (seed) => {
    fromList(text(brokenBytes(bytes(listText), intOf(seed))), 'A list');
  },
  async (seed) => {
    const problem = await packedProblem(Buffer.from(brokenBytes(gzipSync(rowsText), intOf(seed))));
    if (problem !== null) assert.match(problem, /\S/);
  },
];

export const files: SeededPart = {
  name: 'files',
  words: 'mutated files: questionnaires, saved work, CSV, workbooks, codebooks, lists, packed rows',
  one: (seed) => KINDS[seed % KINDS.length]?.(seed),
};
