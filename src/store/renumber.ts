/** Carries an edit of names and codes through the rows that are stored with a study. */
import { gzipSync } from 'node:zlib';
import { eq } from 'drizzle-orm';
import Papa from 'papaparse';
import { renumberRows, type RowRenumbering } from '../core/audit/renumber-rows';
import { renumberAnswers, renumberingBetween } from '../core/coding/renumbered';
import type { Questionnaire } from '../core/document/types';
import type { Walked } from '../core/document/walked';
import { csvLines } from '../core/exchange/csv';
import { planOf } from '../core/routing/planner';
import type { Store } from './open';
import { unpacked } from './packed';
import { cases, datasets, respondents, verdicts } from './schema';

type Transaction = Parameters<Parameters<Store['transaction']>[0]>[0];

export function renumberStored(
  db: Transaction,
  studyId: string,
  before: Questionnaire,
  after: Questionnaire,
): void {
  const renumbering = renumberingBetween(before, after);
  if (renumbering !== null) {
    const walkedNow = (walked: Walked): Walked => ({
      ...walked,
      answers: renumberAnswers(renumbering, walked.answers),
      ...(walked.draws === undefined ? {} : { draws: drawnNow(walked.draws, renumbering.names) }),
    });
    for (const { id, answers } of db.select().from(cases).where(eq(cases.studyId, studyId)).all())
      db.update(cases)
        .set({ answers: renumberAnswers(renumbering, answers) })
        .where(eq(cases.id, id))
        .run();
    for (const { id, walked } of db.select().from(respondents).where(eq(respondents.studyId, studyId)).all())
      db.update(respondents)
        .set({ walked: walkedNow(walked) })
        .where(eq(respondents.id, id))
        .run();
    for (const { id, walked } of db.select().from(verdicts).where(eq(verdicts.studyId, studyId)).all())
      if (walked !== null)
        db.update(verdicts)
          .set({ walked: walkedNow(walked) })
          .where(eq(verdicts.id, id))
          .run();
  }
  // Most saves change no code at all: then nothing that is stored is so much as read.
  if (renumbering === null && missingCodesOf(before) === missingCodesOf(after)) return;
  const kept = db.select().from(datasets).where(eq(datasets.studyId, studyId)).all();
  const people = db.select().from(respondents).where(eq(respondents.studyId, studyId)).all();
  if (kept.length === 0 && people.length === 0) return;
  const rows = renumberRows(planOf(before), planOf(after), renumbering);
  if (rows === null) return;
  for (const { id, row } of people) {
    const now = Object.fromEntries(
      Object.entries(row).map(([column, value]) => {
        const text = rows.cell(column, String(value));
        return [
          rows.names.get(column) ?? column,
          typeof value === 'number' && text !== '' ? Number(text) : text,
        ];
      }),
    );
    db.update(respondents).set({ row: now }).where(eq(respondents.id, id)).run();
  }
  for (const { id, body } of kept) {
    const now = renumbered(body, rows);
    // Rows that cannot be read stay as they are: what is wrong with them is said where they are opened.
    if (now !== null) db.update(datasets).set({ body: now }).where(eq(datasets.id, id)).run();
  }
}

function drawnNow(
  draws: Readonly<Record<string, readonly string[]>>,
  names: ReadonlyMap<string, string>,
): Record<string, string[]> {
  return Object.fromEntries(
    Object.entries(draws).map(([key, drawn]) => [key, drawn.map((name) => names.get(name) ?? name)]),
  );
}

/** A text; equal texts mean the same codes for what is missing, of the plan and of every question. */
function missingCodesOf({ missing, sections }: Questionnaire): string {
  const own = sections.flatMap(({ items }) =>
    items.flatMap((item) =>
      item.kind === 'question' && item.missingCodes !== undefined ? [[item.name, item.missingCodes]] : [],
    ),
  );
  return JSON.stringify([missing.map(({ reason, code }) => [reason, code]), own]);
}

/** Null where the rows cannot be read. */
function renumbered(body: Buffer, rows: RowRenumbering): Buffer | null {
  const text = unpacked(body);
  if (text === null) return null;
  const [header = [], ...cells] = Papa.parse<string[]>(text.trimEnd()).data;
  const now = [
    header.map((column) => rows.names.get(column) ?? column),
    ...cells.map((row) => row.map((text, n) => rows.cell(header[n] ?? '', text))),
  ];
  return gzipSync(csvLines(now));
}
