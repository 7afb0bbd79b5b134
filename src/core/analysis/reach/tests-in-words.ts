/**
 * The shortest test of one driver that holds for wanted readings and for no other that is possible.
 *
 * Ways to say it are tried, shortest first, and each is checked on the readings themselves.
 */
import { holds, type Reading } from '../../condition/evaluate';
import { parseCondition } from '../../condition/parse';
import type { Option } from '../../document/types';
import { variableOptions, type Variable } from '../../document/variables';
import { variableAnswer } from '../../routing/answers';
import type { AnswerSymbol } from '../answers/answer-symbol';
import { optionsApart } from '../answers/candidates';
import { setsInWords } from './sets-in-words';
import { NumberLine } from './values-in-words';

/** What is to be said of a driver. */
export interface Meant {
  /** Parallel to its readings. */
  readonly wanted: readonly boolean[];
  /** Which readings are possible; parallel to them. */
  readonly may: readonly boolean[];
  /** The predicates the wanted readings were made from, which say it in any case where there are some. */
  readonly literals?: readonly (readonly [level: number, value: boolean])[];
  /** In a section that has a pass for each of its picks: the code of the pass in hand; parallel to the readings. */
  readonly each?: readonly (number | null)[];
}

/** A test in words, and for which readings it holds; empty where everything possible is wanted. */
export interface WordedTest {
  readonly text: string;
  /** Parallel to the readings. */
  readonly holds: readonly boolean[];
}

/**
 * In the condition language: the text with the fewest words that is true just of the readings wanted, among
 * those that may be.
 */
export function shortestTest(symbol: AnswerSymbol, meant: Meant): WordedTest {
  const { readings } = symbol;
  const { wanted, may, literals = [], each } = meant;
  const all = readings.map((_, n) => n);
  const inside = all.filter((n) => may[n] && wanted[n]);
  const outside = all.filter((n) => may[n] && !wanted[n]);
  if (outside.length === 0) return { text: '', holds: readings.map(() => true) };
  const test = (text: string) => {
    const parsed = parseCondition(text);
    if (!parsed.ok) return null;
    const { tree } = parsed;
    return (n: number) => {
      const reading = readings[n] as Reading;
      const code = each?.[n] ?? null;
      return holds(tree, { read: () => reading, pass: null, each: code, passesOver: () => [] });
    };
  };
  const says = (text: string) => {
    const is = test(text);
    return is !== null && inside.every(is) && !outside.some(is);
  };
  const fromLiterals = literals
    .map(([level, value]) => {
      const source = symbol.sourceOf(level);
      return value ? bracketed(source) : `not (${source})`;
    })
    .join(' and ');
  // What an author wrote of the pass in hand means nothing elsewhere.
  const sources =
    literals.length > 0 && (each !== undefined || !/\b(each|pass)\b/i.test(fromLiterals))
      ? [fromLiterals]
      : [];
  const tried = [
    ...(each === undefined ? [] : eachInWords(each, inside, outside)),
    ...waysToSay(symbol, meant, inside, outside),
    ...sources,
  ];
  // The shortest first, each once: most need not be tried.
  const shortest = [...new Set(tried)]
    .filter((text) => text !== '')
    .map((text) => ({ text, words: wordiness(text) }))
    .sort((a, b) => a.words - b.words)
    .find(({ text }) => says(text))?.text;
  const text = shortest ?? sources[0] ?? piecewise(symbol, inside, says) ?? fromLiterals;
  const is = test(text);
  // What cannot be tried on readings (a test of the pass) is what it was made from.
  const sure = shortest !== undefined && is !== null;
  return { text, holds: sure ? all.map(is) : wanted };
}

/** Its length; each further test counts for more, and so does a negation of a negation, which is read twice. */
export function wordiness(text: string): number {
  const doubled = text.match(/\bnot \(?(?:[^()]* )?(?:<>|not in|has none|not asked|unanswered|not )/gi) ?? [];
  const further = text.match(/ (?:and|or) /g) ?? [];
  return text.length + 14 * doubled.length + 5 * further.length;
}

function bracketed(source: string): string {
  return / or /.test(source) ? `(${source})` : source;
}

/** By the code of the pass in hand alone. */
function eachInWords(
  each: readonly (number | null)[],
  inside: readonly number[],
  outside: readonly number[],
): string[] {
  const codes = (of: readonly number[]) =>
    [...new Set(of.flatMap((n) => each[n] ?? []))].sort((a, b) => a - b);
  const [yes, no] = [codes(inside), codes(outside)];
  if (yes.some((code) => no.includes(code))) return [];
  const any = (of: readonly number[], operator: '=' | '<>', word: 'or' | 'and') =>
    of.map((code) => `each ${operator} ${code}`).join(` ${word} `);
  return [any(yes, '=', 'or'), any(no, '<>', 'and')];
}

function waysToSay(
  symbol: AnswerSymbol,
  { wanted, may }: Meant,
  inside: readonly number[],
  outside: readonly number[],
): string[] {
  const { variable } = symbol.driver;
  const { readings } = symbol;
  const { name } = variable;
  const states = [`${name} asked`, `${name} not asked`, `${name} answered`, `${name} unanswered`];
  const of = (some: readonly number[]) => some.map((n) => readings[n] as Reading);
  if (variable.kind === 'whole-grid') return states;
  if (variable.kind === 'set' || variable.kind === 'order')
    return [...states, ...setsInWords(name, toldApart(symbol), of(inside), of(outside))];
  const specials = (some: readonly number[]) => specialCodes(variable, of(some));
  const answer = variable.codes === null && variable.kind !== 'text' ? variableAnswer(variable) : null;
  const ways =
    answer === null
      ? listedWays(variable, of(inside), of(outside), writtenTexts(symbol))
      : lineWays(
          new NumberLine(name, symbol.driver, answer, readings, wanted, may),
          specials(inside),
          specials(outside),
        );
  const extra = [`${name} unanswered`, `${name} not asked`];
  return [
    ...states,
    ...ways.positive,
    ...ways.negative,
    ...ways.opposite.map((text) => (/ or | and /.test(text) ? `not (${text})` : `not ${text}`)),
    ...[...ways.positive, ...ways.negative].flatMap((text) => extra.map((state) => `${text} or ${state}`)),
    ...[...ways.positive, ...ways.negative].map((text) => `${text} or ${extra.join(' or ')}`),
    ...ways.opposite.flatMap((text) => {
      const denied = / or | and /.test(text) ? `not (${text})` : `not ${text}`;
      return [`${denied} and ${name} asked`, `${denied} and ${name} answered`];
    }),
    ...extra.map((state) => `not ${state}`),
  ];
}

/** Options that a reading tells whether they are picked; of the others it only tells how many are. */
function toldApart({ driver }: AnswerSymbol): Option[] {
  const options = variableOptions(driver.variable);
  const { told, alone } = optionsApart(driver, options);
  return options.filter((option) => told.includes(option) || alone.includes(option));
}

interface Wordings {
  /** Hold for the wanted values. */
  readonly positive: readonly string[];
  /** Hold for every value that is not unwanted. */
  readonly negative: readonly string[];
  /** Hold for the unwanted values, to be denied. */
  readonly opposite: readonly string[];
}

function lineWays(line: NumberLine, inside: readonly number[], outside: readonly number[]): Wordings {
  return {
    positive: line.positive(inside),
    negative: [...line.negative(outside), ...(outside.length > 0 ? line.negative([]) : [])],
    opposite: line.opposite(outside),
  };
}

/** Codes and texts, which are listed one by one. */
function listedWays(
  variable: Variable,
  inside: readonly Reading[],
  outside: readonly Reading[],
  written: ReadonlySet<unknown>,
): Wordings {
  const list = (of: readonly Reading[]) => listed(variable, of, written);
  const [yes, no] = [list(inside), list(outside)];
  return {
    positive: yes === '' ? [] : [yes],
    negative: no === '' ? [] : [no.replace(/ = /, ' <> ').replace(' in (', ' not in (')],
    opposite: no === '' ? [] : [no],
  };
}

function specialCodes(variable: Variable, some: readonly Reading[]): number[] {
  const special = new Set(
    variableOptions(variable)
      .filter(({ missing }) => missing !== undefined)
      .map(({ code }) => code),
  );
  return some.flatMap(({ value, missing }) =>
    missing && typeof value === 'number' && special.has(value) ? [value] : [],
  );
}

/** The values of readings as `= 1` or `in (1, 3)`; empty where there are none, or some have no name. */
function listed(variable: Variable, some: readonly Reading[], written: ReadonlySet<unknown>): string {
  const { name } = variable;
  const values = [
    ...new Set(
      some.flatMap(({ value, missing }) =>
        missing || value === null || typeof value === 'object' ? [] : [value],
      ),
    ),
  ].sort((a, b) => (a < b ? -1 : a > b ? 1 : 0));
  // A text that no condition names stands for all such texts.
  if (variable.kind === 'text' && !values.every((value) => written.has(value))) return '';
  const list = [
    ...values.map((value) => literal(variable, value)),
    ...specialCodes(variable, some).map(String),
  ];
  return list.length === 0
    ? ''
    : list.length === 1
      ? `${name} = ${list[0]}`
      : `${name} in (${list.join(', ')})`;
}

/** The texts that conditions compare the driver with. */
function writtenTexts({ driver }: AnswerSymbol): ReadonlySet<unknown> {
  const found = new Set<unknown>();
  for (const atom of driver.atoms) {
    const sides = atom.kind === 'compare' ? [atom.left, atom.right] : atom.kind === 'in' ? atom.members : [];
    for (const side of sides) if (side.kind === 'text') found.add(side.value);
  }
  return found;
}

function literal(variable: Variable, value: number | string): string {
  return variable.kind === 'text' ? `'${String(value).replaceAll("'", "''")}'` : String(value);
}

/** Value by value, where nothing shorter says it; null where that does not say it either. */
function piecewise(
  symbol: AnswerSymbol,
  inside: readonly number[],
  says: (text: string) => boolean,
): string | null {
  const { variable } = symbol.driver;
  const { name } = variable;
  const some = inside.map((n) => symbol.readings[n] as Reading);
  const parts = [
    ...(some.some(({ presented, value }) => presented && value === null) ? [`${name} unanswered`] : []),
    ...(some.some(({ presented }) => !presented) ? [`${name} not asked`] : []),
  ];
  const every = new Set<unknown>(some.map(({ value }) => value));
  const text = [listed(variable, some, every), ...parts].filter((part) => part !== '').join(' or ');
  return says(text) ? text : null;
}
