/** One cell of a collected file, read by what its column can hold: an answer, a missing code, a label, or none of them. */
import type { Column, ValueColumn } from '../coding/columns';
import { missingCode } from '../coding/row';
import { isDated, isNumeric, isWritten } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import { MISSING_REASONS, type Answer, type Question, type Questionnaire } from '../document/types';
import { refusal } from '../routing/answers';
import type { Plan } from '../routing/plan';

export type CellReading =
  | { readonly kind: 'blank' }
  /** A code of the missing plan. */
  | { readonly kind: 'reason'; readonly reason: string }
  | {
      readonly kind: 'value';
      readonly value: number | string;
      /** The cell held a label, or a number written otherwise: this is how the codebook writes it. */
      readonly recoded: boolean;
    }
  | { readonly kind: 'wrong'; readonly problem: 'unknown-code' | 'out-of-limits' };

export const BLANK: CellReading = { kind: 'blank' };
const UNKNOWN: CellReading = { kind: 'wrong', problem: 'unknown-code' };
const BEYOND: CellReading = { kind: 'wrong', problem: 'out-of-limits' };

/** Readings of one column are kept by what the cell held, up to this many; of dates and numbers, which are short, up to more. */
const MOST_KEPT = 2000;
const MOST_SHORT_KEPT = 20_000;

export type CellReader = (text: string) => CellReading;

/** A reader for each column, which remembers what it read. */
export function readerOf(plan: Plan, column: Column): CellReader {
  const read = plainReader(plan, column);
  const known = new Map<string, CellReading>();
  const isShort =
    column.kind === 'value' && (isDated(column.source.answer) || isNumeric(column.source.answer));
  const most = isShort ? MOST_SHORT_KEPT : MOST_KEPT;
  return (text) => {
    if (text === '') return BLANK;
    let reading = known.get(text);
    if (reading === undefined) {
      reading = read(text);
      if (known.size < most) known.set(text, reading);
    }
    return reading;
  };
}

function plainReader(plan: Plan, column: Column): CellReader {
  const { document } = plan;
  switch (column.kind) {
    case 'ending': {
      const ids = new Map(document.endings.map(({ id }) => [id.toLowerCase(), id]));
      const stopped = missingCode(document, null, 'not_reached');
      return (text) => {
        const id = ids.get(text.trim().toLowerCase());
        if (id !== undefined) return value(id, id !== text);
        if (text.trim() === '') return BLANK;
        return numberIn(text) === stopped ? reason('not_reached') : UNKNOWN;
      };
    }
    case 'derived': {
      const { derived } = plan.derived[column.index] ?? {};
      const cases =
        derived !== undefined && 'cases' in derived
          ? [...derived.cases, ...(derived.else ? [derived.else] : [])]
          : [];
      const reasons = reasonsOf(document, null);
      return (text) => {
        const number = numberIn(text);
        if (number !== null) {
          const planned = reasons.get(number);
          const own = cases.some(({ code }) => code === number);
          return planned === undefined || own ? value(number, false) : reason(planned);
        }
        if (text.trim() === '') return BLANK;
        const named = byLabel(cases, text);
        return named === null ? UNKNOWN : value(named, true);
      };
    }
    case 'specify':
    case 'remark':
      return (text) => (text.trim() === '' ? BLANK : value(text, false));
    default:
      return answerReader(document, column);
  }
}

function answerReader(document: Questionnaire, column: ValueColumn): CellReader {
  const { source, kind, code } = column;
  const { answer } = source;
  const question: Question =
    source.of === 'item'
      ? source.question
      : { kind: 'question', name: source.given.name, text: '', answer: source.answer };
  const reasons = reasonsOf(document, source.of === 'item' ? source.question : null);
  const options = optionsOf(answer);
  if (kind === 'pick') {
    const own = options.find((option) => option.code === code)?.label ?? '';
    const carried = new Set(options.flatMap((o) => (o.missing === undefined ? [] : [o.code])));
    return (text) => {
      const number = numberIn(text);
      if (number === 0 || number === 1) return value(number, false);
      if (number !== null) {
        if (carried.has(number)) return value(number, false);
        const planned = reasons.get(number);
        return planned === undefined ? UNKNOWN : reason(planned);
      }
      const word = text.trim().toLowerCase();
      if (word === '') return BLANK;
      if (word === own.trim().toLowerCase() || word === 'yes') return value(1, true);
      return word === 'no' ? value(0, true) : UNKNOWN;
    };
  }
  if (kind === 'place') {
    return (text) => codeOrLabel(text, options, reasons);
  }
  const dated = isDated(answer);
  if (isWritten(answer) || dated) {
    return (text) => {
      if (text.trim() === '') return BLANK;
      const number = numberIn(text);
      if (number !== null && options.some((option) => option.code === number)) return value(number, false);
      const planned = number === null ? undefined : reasons.get(number);
      if (planned !== undefined) return reason(planned);
      const named = byLabel(options, text);
      if (named !== null) return value(named, true);
      return judged(question, answer, dated ? text.trim() : text, false);
    };
  }
  if (isNumeric(answer)) {
    const decimals = 'decimals' in answer ? (answer.decimals ?? 0) : 0;
    return (text) => {
      if (text.trim() === '') return BLANK;
      const plain = numberIn(text);
      // A comma before the decimals, as in many files with semicolons between the cells.
      const number = plain ?? (decimals > 0 ? numberIn(text.replace(',', '.')) : null);
      if (number === null) {
        const named = byLabel(options, text);
        return named === null ? UNKNOWN : value(named, true);
      }
      const read = judged(question, answer, number, plain === null);
      const planned = reasons.get(number);
      return read.kind === 'wrong' && planned !== undefined ? reason(planned) : read;
    };
  }
  return (text) => codeOrLabel(text, options, reasons);
}

function codeOrLabel(
  text: string,
  options: readonly { readonly code: number; readonly label: string }[],
  reasons: ReadonlyMap<number, string>,
): CellReading {
  const number = numberIn(text);
  if (number !== null && options.some((option) => option.code === number)) return value(number, false);
  const planned = number === null ? undefined : reasons.get(number);
  if (planned !== undefined) return reason(planned);
  if (text.trim() === '') return BLANK;
  const named = byLabel(options, text);
  return named === null ? UNKNOWN : value(named, true);
}

/** By all that can be shown; what is hidden for one respondent is judged with their walk. */
function judged(question: Question, answer: Answer, of: number | string, recoded: boolean): CellReading {
  const everything = { options: optionsOf(answer).map(() => true), rows: [] };
  const refused = refusal(question, answer, of, everything);
  if (refused === null) return value(of, recoded);
  return refused.reason === 'limit' ? BEYOND : UNKNOWN;
}

function value(of: number | string, recoded: boolean): CellReading {
  return { kind: 'value', value: of, recoded };
}

function reason(of: string): CellReading {
  return { kind: 'reason', reason: of };
}

/** Codes of the missing plan, with the variable's own exceptions. */
function reasonsOf(document: Questionnaire, question: Question | null): ReadonlyMap<number, string> {
  return new Map(
    document.missing.map(({ reason: of, code }) => {
      const planned = MISSING_REASONS.find((each) => each === of);
      const own = question?.missingCodes?.[of];
      return [own ?? (planned === undefined ? code : missingCode(document, question, planned)), of];
    }),
  );
}

function byLabel(
  options: readonly { readonly code: number; readonly label: string }[],
  text: string,
): number | null {
  const wanted = text.trim().toLowerCase();
  return options.find(({ label }) => label.trim().toLowerCase() === wanted)?.code ?? null;
}

const NUMBER = /^\s*[-+]?(\d+(\.\d*)?|\.\d+)\s*$/;

/** Null where the text is no number. */
function numberIn(text: string): number | null {
  return NUMBER.test(text) ? Number(text) : null;
}
