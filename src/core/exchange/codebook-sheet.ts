/**
 * The codebook as a sheet to work on elsewhere, and back: labels, levels of measurement, codes and missing codes of every
 * question. What comes back is told change by change before anything is done.
 */
import type { Draft } from 'immer';
import { optionsOf } from '../document/shape';
import type { Question, Questionnaire } from '../document/types';
import type { Change } from '../editing/change';
import { recode, recodeProblem } from '../editing/recode';
import { editQuestion, type ItemPlace } from '../editing/structure';

export const SHEET_HEAD = ['variable', 'label', 'question', 'type', 'measure', 'codes', 'missing'] as const;

const MEASURES = ['nominal', 'ordinal', 'interval', 'ratio'] as const;

/** One row a question; codes as `1 = Yes | 2 = No`. */
export function codebookSheet(document: Questionnaire): string[][] {
  const rows = eachQuestion(document).map(({ question }) => [
    question.name,
    question.label ?? '',
    question.text,
    question.answer.type,
    question.measure ?? '',
    optionsOf(question.answer)
      .map(({ code, label }) => `${code} = ${label}`)
      .join(' | '),
    Object.entries(question.missingCodes ?? {})
      .map(([reason, code]) => `${reason} = ${code}`)
      .join(' | '),
  ]);
  return [[...SHEET_HEAD], ...rows];
}

export interface SheetChange {
  readonly variable: string;
  readonly what: 'label' | 'measure' | 'code' | 'answer' | 'missing code';
  readonly from: string;
  readonly to: string;
}

export interface SheetRead {
  readonly changes: readonly SheetChange[];
  /** What cannot be taken over, with the row of the sheet, from 1 with its head. */
  readonly problems: readonly { readonly row: number; readonly message: string }[];
  /** All of the changes as one; null where there is none. */
  readonly change: Change | null;
}

/** Cells of a sheet with a head; columns other than those of `SHEET_HEAD` are passed over, and those it lacks stay. */
export function readCodebookSheet(document: Questionnaire, cells: readonly (readonly string[])[]): SheetRead {
  const [head = [], ...rows] = cells;
  const at = new Map(head.map((name, n) => [name.trim().toLowerCase(), n]));
  const problems: { row: number; message: string }[] = [];
  if (!at.has('variable'))
    return {
      changes: [],
      change: null,
      problems: [
        { row: 1, message: 'There is no column “variable”: its cells say which question a row is about.' },
      ],
    };
  const changes: SheetChange[] = [];
  const made: Change[] = [];
  const questions = new Map(eachQuestion(document).map((each) => [each.question.name.toLowerCase(), each]));
  rows.forEach((cellsOf, n) => {
    const cell = (name: string) => (at.has(name) ? (cellsOf[at.get(name) ?? -1] ?? '').trim() : null);
    const report = (message: string) => problems.push({ row: n + 2, message });
    const name = cell('variable') ?? '';
    if (name === '') return;
    const found = questions.get(name.toLowerCase());
    if (found === undefined) {
      report(`There is no question “${name}”.`);
      return;
    }
    const { question, place } = found;
    const edit = (what: SheetChange['what'], from: string, to: string, change: Change) => {
      changes.push({ variable: question.name, what, from, to });
      made.push(change);
    };
    const row: RowRead = { document, question, place, edit, report };
    const label = cell('label');
    if (label !== null) readLabel(row, label);
    const measure = cell('measure');
    if (measure !== null) readMeasure(row, measure);
    const codes = cell('codes');
    if (codes !== null && codes !== '') readCodes(row, codes);
    const missing = cell('missing');
    if (missing !== null) readMissing(row, missing);
  });
  return {
    changes,
    problems,
    change:
      made.length === 0
        ? null
        : {
            label: 'Take over a codebook sheet',
            apply: (draft) => made.forEach((each) => void each.apply(draft)),
          },
  };
}

type ReportEdit = (what: SheetChange['what'], from: string, to: string, change: Change) => void;
type ReportWarning = (message: string) => void;

/** A row that is read: its question, and where to say what it changes or why it is passed over. */
interface RowRead {
  readonly document: Questionnaire;
  readonly question: Question;
  readonly place: ItemPlace;
  readonly edit: ReportEdit;
  readonly report: ReportWarning;
}

function readLabel({ question, place, edit }: RowRead, label: string): void {
  const before = question.label ?? '';
  if (label === before) return;
  edit(
    'label',
    before,
    label,
    set(place, (draft) => (label === '' ? void delete draft.label : void (draft.label = label))),
  );
}

function readMeasure({ question, place, edit, report }: RowRead, measure: string): void {
  const before = question.measure ?? '';
  if (measure === before) return;
  const known = MEASURES.find((each) => each === measure);
  if (known === undefined && measure !== '') {
    report(`“${measure}” is no level of measurement: use ${MEASURES.join(', ')}, or leave it empty.`);
    return;
  }
  edit(
    'measure',
    before,
    measure,
    set(place, (draft) => (known === undefined ? void delete draft.measure : void (draft.measure = known))),
  );
}

/** Told by code, an answer has new words; told by its words, it has a new code. */
function readCodes({ document, question, place, edit, report }: RowRead, text: string): void {
  const options = optionsOf(question.answer);
  const written = pairsIn(text);
  if (written === null) {
    report(`“${text}” is no list of codes: write 1 = Yes | 2 = No.`);
    return;
  }
  const recoding = new Map<number, number>();
  for (const [code, label] of written) {
    const number = Number(code);
    const byLabel = options.filter((option) => option.label === label);
    const byCode = options.find((option) => option.code === number);
    if (byCode?.label === label) continue;
    if (byLabel.length === 1 && byLabel[0] !== undefined && Number.isInteger(number)) {
      recoding.set(byLabel[0].code, number);
      continue;
    }
    if (byCode === undefined) {
      report(`${question.name} has no answer “${label}” and no code ${code}: add answers in the Script.`);
      continue;
    }
    edit(
      'answer',
      byCode.label,
      label,
      set(place, (draft) => {
        const option = draftOptions(draft).find((each) => each.code === number);
        if (option !== undefined) option.label = label;
      }),
    );
  }
  if (recoding.size === 0) return;
  const refused = recodeProblem(document, place, recoding);
  if (refused !== null) {
    report(`${question.name}: ${refused}`);
    return;
  }
  const words = (of: Iterable<number>) => [...of].join(', ');
  edit('code', words(recoding.keys()), words(recoding.values()), recode(document, place, recoding));
}

function readMissing({ document, question, place, edit, report }: RowRead, text: string): void {
  const before = question.missingCodes ?? {};
  const written = text === '' ? [] : pairsIn(text);
  if (written === null) {
    report(`“${text}” is no list of missing codes: write no_answer = -9 | not_applicable = -8.`);
    return;
  }
  const next: Record<string, number> = {};
  for (const [reason, code] of written) {
    // Written either way round, as people do.
    const [name, number] = /^-?\d+$/.test(reason) ? [code, Number(reason)] : [reason, Number(code)];
    if (!document.missing.some((entry) => entry.reason === name) || !Number.isInteger(number))
      report(
        `“${reason} = ${code}” is no missing code: the reasons are ${document.missing.map((entry) => entry.reason).join(', ')}.`,
      );
    else next[name] = number;
  }
  const words = (of: Readonly<Record<string, number>>) =>
    Object.entries(of)
      .map(([reason, code]) => `${reason} = ${code}`)
      .sort()
      .join(' | ');
  if (words(before) === words(next)) return;
  edit(
    'missing code',
    words(before),
    words(next),
    set(place, (draft) => {
      if (Object.keys(next).length === 0) delete draft.missingCodes;
      else draft.missingCodes = next;
    }),
  );
}

/** `a = b | c = d`, also with line breaks or semicolons between. */
function pairsIn(text: string): [string, string][] | null {
  const pairs = text
    .split(/\s*[|;\n]\s*/)
    .filter((part) => part !== '')
    .map((part): [string, string] | null => {
      const found = /^([^=]+?)\s*=\s*(.*)$/.exec(part);
      return found === null ? null : [(found[1] ?? '').trim(), (found[2] ?? '').trim()];
    });
  return pairs.some((pair) => pair === null) ? null : (pairs as [string, string][]);
}

function eachQuestion(document: Questionnaire): { question: Question; place: ItemPlace }[] {
  return document.sections.flatMap(({ items }, section) =>
    items.flatMap((item, at) =>
      item.kind === 'question' ? [{ question: item, place: { section, item: at } }] : [],
    ),
  );
}

function set(place: ItemPlace, edit: (question: Draft<Question>) => void): Change {
  return editQuestion(place, 'codebook', 'Change the codebook', edit);
}

function draftOptions(draft: Draft<Question>): { code: number; label: string }[] {
  const { answer } = draft;
  return 'options' in answer ? answer.options : 'specials' in answer ? (answer.specials ?? []) : [];
}
