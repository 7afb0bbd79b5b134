/** Writing the rows of a grid: by hand, or several pasted at once. */
import { original, type Draft } from 'immer';
import { hasRows } from '../document/answer-types';
import { freshName } from '../document/names';
import type { Answer, Questionnaire } from '../document/types';
import type { Change } from './change';
import { editQuestion, takenNames, type ItemPlace } from './structure';
import { isSuggested } from './suggested';

type DraftRow = Extract<Draft<Answer>, { type: 'grid' }>['rows'][number];

/** Writes the words of a row; the first that is written in place of suggested rows replaces all of them. */
export function writeRow(place: ItemPlace, at: number, text: string): Change {
  return editQuestion(place, `row ${at}`, 'Write a row', ({ answer }) => {
    if (!hasRows(answer)) return;
    const row = answer.rows[at];
    if (row === undefined) return;
    const replaces = at === 0 && isSuggested(original(answer.rows) ?? []) && !text.startsWith(row.label);
    row.label = text;
    if (replaces) answer.rows.splice(1);
  });
}

/** Pastes rows behind the one at `at`, or in its place where that is blank; suggested rows go as a whole. */
export function pasteRows(
  document: Questionnaire,
  place: ItemPlace,
  at: number,
  labels: readonly string[],
): Change {
  return editQuestion(place, null, `Paste ${labels.length} rows`, ({ name, answer }) => {
    if (!hasRows(answer)) return;
    const { rows } = answer;
    const suggested = isSuggested(original(rows) ?? []);
    const blank = suggested || rows[at]?.label === '';
    const taken = takenNames(document);
    const own = blank ? rows.splice(suggested ? 0 : at, suggested ? rows.length : 1) : [];
    const start = suggested ? 0 : blank ? at : at + 1;
    const made = labels.map((label, n): DraftRow => {
      const known = own[n]?.name ?? freshName(`${name}_${start + n + 1}`, taken);
      taken.add(known.toLowerCase());
      return { name: known, label };
    });
    rows.splice(start, 0, ...made);
  });
}
