/**
 * A frequency table that somebody pasted, as shares: a line for each answer, with its code or label and how many gave it, or how
 * many in a hundred. In front of them, where it is about several questions, the name of the variable.
 */
import { hasRows, isDated, isNumeric, picksMany } from '../../document/answer-types';
import { optionsOf } from '../../document/shape';
import type { Answer, AssumedShares, Questionnaire } from '../../document/types';
import { CsvRows, sniffFormat } from '../../exchange/csv';
import { gridRowAnswer } from '../../routing/answers';
import { lineOf, type LineAnswer } from '../../routing/assumed';
import { assumedAtQuestions } from '../sets';
import { chancesOf, type SeenShares } from './seen-shares';

export interface PastedRead {
  readonly shares: ReadonlyMap<string, SeenShares>;
  /** By line of the text, from 1. */
  readonly problems: readonly { readonly line: number; readonly message: string }[];
}

interface Line {
  readonly line: number;
  readonly answer: string;
  readonly number: number;
  readonly isPercent: boolean;
}

const TOTAL = new Set(['total', 'all', 'sum', 'base', 'asked', 'n']);
const BLANK = new Set(['blank', 'left blank', '(blank)', 'no answer', 'missing']);

/** `about`: the question that lines without a variable are about; null where each has to say. */
export function readPasted(document: Questionnaire, text: string, about: string | null): PastedRead {
  const questions = assumedAtQuestions(document);
  const byName = new Map([...questions.keys()].map((name) => [name.toLowerCase(), name]));
  const problems: { line: number; message: string }[] = [];
  const lines = new Map<string, Line[]>();
  let name = about;
  linesOf(text).forEach(({ line, cells }) => {
    const [first = '', ...rest] = cells;
    const named = byName.get(first.toLowerCase());
    if (named !== undefined && (rest.length > 1 || numberIn(rest[0] ?? '') === null)) {
      name = named;
      if (rest.length === 0) return;
    }
    const [answer = '', ...numbers] = named === undefined ? cells.filter(Boolean) : rest.filter(Boolean);
    const found = numbers.map(numberIn).find((number) => number !== null);
    // A head, or the title of a question.
    if (found === undefined || found === null) {
      if (numbers.length > 0 && lines.size > 0 && numbers.some((cell) => /\d/.test(cell)))
        problems.push({ line, message: `“${numbers.join(' ')}” is not a number` });
      return;
    }
    if (name === null) {
      const hint = 'write the name of its variable in front, or choose the question above';
      problems.push({ line, message: `it is not said which question “${answer}” is an answer of: ${hint}` });
      return;
    }
    lines.set(name, [...(lines.get(name) ?? []), { line, answer, ...found }]);
  });
  const shares = new Map<string, SeenShares>();
  for (const [of, table] of lines) {
    const answer = questions.get(of)?.answer;
    if (answer === undefined) continue;
    const read = tableOf(of, answer, table, problems);
    if (read !== null) shares.set(of, read);
  }
  if (shares.size === 0 && problems.length === 0)
    problems.push({ line: 1, message: 'there is no line with an answer and a number behind it' });
  return { shares, problems: problems.toSorted((a, b) => a.line - b.line) };
}

function linesOf(text: string): { readonly line: number; readonly cells: string[] }[] {
  const format = text.includes('\t') ? { delimiter: '\t', quote: '"' } : sniffFormat(text);
  return text.split(/\r\n|\r|\n/).flatMap((line, n) => {
    const [cells] = new CsvRows(format).push(`${line}\n`, true);
    return cells === undefined ? [] : [{ line: n + 1, cells: cells.map((cell) => cell.trim()) }];
  });
}

/** “312”, “1,240”, “12.5”, “12,5”, “12.5 %”. */
function numberIn(cell: string): { readonly number: number; readonly isPercent: boolean } | null {
  const isPercent = cell.endsWith('%');
  const plain = cell.replace(/%$/, '').replace(/[\s\u00a0']/g, '');
  const dotted = /^\d{1,3}(,\d{3})+(\.\d+)?$/.test(plain)
    ? plain.replaceAll(',', '')
    : plain.replace(',', '.');
  return /^\d+(\.\d+)?$|^\.\d+$/.test(dotted) ? { number: Number(dotted), isPercent } : null;
}

function tableOf(
  name: string,
  of: Answer,
  lines: readonly Line[],
  problems: { line: number; message: string }[],
): SeenShares | null {
  const answer = hasRows(of) ? gridRowAnswer(of) : of;
  const several = picksMany(answer);
  const totals: Line[] = [];
  const blanks: Line[] = [];
  const codes = new Map<number, number>();
  const ranges: { from: number | string; to: number | string; number: number }[] = [];
  const counted: Line[] = [];
  const before = problems.length;
  for (const line of lines) {
    const words = line.answer.toLowerCase();
    const found = answerIn(answer, line.answer);
    if (found === null && TOTAL.has(words)) totals.push(line);
    else if (found === null && BLANK.has(words)) blanks.push(line);
    else if (found === null) problems.push({ line: line.line, message: unknown(name, answer, line.answer) });
    else {
      counted.push(line);
      if ('code' in found) codes.set(found.code, (codes.get(found.code) ?? 0) + line.number);
      else ranges.push({ ...found, number: line.number });
    }
  }
  const [first] = counted;
  if (problems.length > before || first === undefined) return null;
  const blank = blanks.reduce((sum, { number }) => sum + number, 0);
  const sum = counted.reduce((all, { number }) => all + number, 0);
  const whole = wholeOf(lines, sum + blank, totals.at(-1)?.number ?? null, several);
  if (whole === null) {
    const message = `${name} takes several picks: add a line “base” with how many were asked, or write shares in per cent`;
    problems.push({ line: first.line, message });
    return null;
  }
  const answered = several ? whole.of - blank : sum;
  if (answered <= 0 || counted.some(({ number }) => several && number > answered)) {
    problems.push({ line: first.line, message: `more gave an answer of ${name} than were asked` });
    return null;
  }
  const shares = Object.fromEntries([...codes].map(([code, number]) => [String(code), number / answered]));
  const picked = several && codes.size > 0 ? chancesOf(answer, shares) : null;
  if (picked?.canBe === false) {
    problems.push({
      line: first.line,
      message: `nobody can have picked so at ${name}, where whoever answers picks something: count those who picked nothing as “blank”`,
    });
    return null;
  }
  return {
    base: whole.base,
    assume: {
      ...(codes.size > 0 ? (picked?.assume ?? { shares }) : {}),
      ...(ranges.length > 0
        ? { ranges: ranges.map(({ from, to, number }) => ({ from, to, share: number / answered })) }
        : {}),
      ...(blank > 0 ? { blank: blank / (several ? whole.of : sum + blank) } : {}),
    } satisfies AssumedShares,
  };
}

/** What the numbers are of, and how many people that is, 0 where it is not said. Null: it cannot be told. */
function wholeOf(
  lines: readonly Line[],
  sum: number,
  total: number | null,
  several: boolean,
): { readonly of: number; readonly base: number } | null {
  const isWhole = (number: number) => Number.isInteger(number);
  if (lines.some(({ isPercent }) => isPercent)) return { of: 100, base: baseIn(lines) };
  if (several) return total === null || total === 0 ? null : { of: total, base: total };
  if (Math.abs(sum - 1) < 0.02 && lines.some(({ number }) => !isWhole(number)))
    return { of: 1, base: total !== null && total > 1.02 ? total : 0 };
  // In a hundred, though they may not add up to it for rounding.
  if (Math.abs(sum - 100) < 1.5) return { of: 100, base: total !== null && total > 101.5 ? total : 0 };
  return { of: sum, base: Math.round(sum) };
}

/** Beside numbers in per cent, a line of how many were asked is none of them. */
function baseIn(lines: readonly Line[]): number {
  const base = lines.findLast(({ answer, isPercent }) => TOTAL.has(answer.toLowerCase()) && !isPercent);
  return base === undefined || base.number === 100 ? 0 : base.number;
}

/** By its code, its label, or as a stretch of a number or date; null where it is none. */
function answerIn(
  answer: Answer,
  text: string,
): { readonly code: number } | { readonly from: number | string; readonly to: number | string } | null {
  const words = text.trim().toLowerCase();
  const option = optionsOf(answer).find(
    ({ code, label }) => String(code) === words || label.trim().toLowerCase() === words,
  );
  if (option !== undefined) return { code: option.code };
  if (!isNumeric(answer) && !isDated(answer)) return null;
  return stretchIn(answer, words);
}

/** “18–24”, “18 to 24”, “85+”, “up to 17”, “3”. */
function stretchIn(
  answer: LineAnswer,
  words: string,
): { readonly from: number | string; readonly to: number | string } | null {
  const line = lineOf(answer);
  const value = (cell = ''): number | string | null => {
    const written = isNumeric(answer) ? Number(cell) : cell.toUpperCase();
    return cell !== '' && Number.isFinite(line.stepOf(written)) ? written : null;
  };
  const within = (from: number | string | null, to: number | string | null) =>
    from === null || to === null || line.stepOf(from) > line.stepOf(to) ? null : { from, to };
  const [least, most] = [line.at(line.first), line.at(line.last)];
  const between = isNumeric(answer)
    ? /^(-?[\d.]+)\s*(?:-|–|—|to|…)\s*(-?[\d.]+)$/.exec(words)
    : /^(\S+)\s+(?:to|–|—|-)\s+(\S+)$/.exec(words);
  if (between !== null) return within(value(between[1]), value(between[2]));
  const above = /^(\S+?)\s*(?:\+|and over|and more|or more|and later)$/.exec(words);
  if (above !== null) return within(value(above[1]), most);
  const below = /^(?:up to|until|≤)\s*(\S+)$/.exec(words);
  if (below !== null) return within(least, value(below[1]));
  return within(value(words), value(words));
}

function unknown(name: string, answer: Answer, text: string): string {
  const options = optionsOf(answer);
  const few = options.slice(0, 4).map(({ code, label }) => `${code} ${label}`);
  const more = options.length > few.length ? ' …' : '';
  const there =
    few.length > 0
      ? `its answers are ${few.join(', ')}${more}`
      : 'write a number, or from and to, as in 18–24';
  return `“${text}” is no answer of ${name}: ${there}`;
}
