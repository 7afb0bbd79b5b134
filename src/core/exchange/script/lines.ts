/**
 * The lines of a plain-text script: each stands under the line that is indented less, two spaces a step; lines that start
 * with a bar are a longer text of the line above them. What the lines say is in `grammar.ts`.
 */

export interface ScriptLine {
  /** From 1. */
  readonly number: number;
  /** Without its indentation. */
  readonly words: string;
  /** The longer text below it; null where there is none. */
  readonly block: string | null;
  readonly under: readonly ScriptLine[];
}

/** What is wrong in a line, as the end of a sentence that says how to mend it. */
export interface LineProblem {
  readonly line: number;
  readonly what: string;
}

export type ReadLines =
  | { readonly ok: true; readonly lines: readonly ScriptLine[] }
  | { readonly ok: false; readonly problem: LineProblem };

interface Growing {
  readonly number: number;
  readonly words: string;
  block: string[] | null;
  readonly under: Growing[];
}

/** Deeper than the grammar goes, and than any reader should. */
const DEEPEST = 12;

/** Empty lines and lines that start with `#` say nothing; within a longer text every line counts. */
export function readLines(text: string): ReadLines {
  const top: Growing = { number: 0, words: '', block: null, under: [] };
  /** By depth, the line that the next deeper one stands under. */
  const above: Growing[] = [top];
  const refuse = (line: number, what: string): ReadLines => ({ ok: false, problem: { line, what } });
  for (const [index, raw] of text.split(/\r\n|\r|\n/).entries()) {
    const number = index + 1;
    const spaces = /^ */.exec(raw)?.[0].length ?? 0;
    const words = raw.slice(spaces);
    if (words.startsWith('|')) {
      const owner = above.at(Math.ceil(spaces / 2));
      if (owner === undefined || owner === top)
        return refuse(number, 'a line with a bar belongs under a line of its own, two spaces further in');
      if (!owner.words.endsWith(':'))
        return refuse(number, 'a longer text stands under a line that ends with its colon');
      if (owner.under.length > 0)
        return refuse(number, 'a longer text stands right under its line, before anything else there');
      owner.block = [...(owner.block ?? []), words.replace(/^\| ?/, '')];
      continue;
    }
    if (/^(#|\s*$)/.test(words)) continue;
    if (words.startsWith('\t')) return refuse(number, 'indent with two spaces a step, not with tabs');
    if (spaces % 2 !== 0) return refuse(number, `indent with two spaces a step: here are ${spaces}`);
    const owner = above[spaces / 2];
    if (spaces > 2 * DEEPEST) return refuse(number, 'nothing in a script stands as deep as this');
    if (owner === undefined)
      return refuse(
        number,
        `this is indented by ${spaces} spaces, further than anything above it goes: take two spaces away`,
      );
    const line: Growing = { number, words: words.trimEnd(), block: null, under: [] };
    owner.under.push(line);
    above.splice(spaces / 2 + 1, Infinity, line);
  }
  return { ok: true, lines: top.under.map(grown) };
}

/** Deep only as far as the grammar goes. */
function grown({ number, words, block, under }: Growing): ScriptLine {
  return { number, words, block: block === null ? null : block.join('\n'), under: under.map(grown) };
}

/** A line to be written; `text` stands behind its words and a colon. */
export interface LineToWrite {
  readonly words: string;
  readonly text?: string;
  readonly under?: readonly LineToWrite[];
  /** An empty line before it. */
  readonly apart?: boolean;
}

export function writeLines(lines: readonly LineToWrite[], depth = 0): string {
  const indent = '  '.repeat(depth);
  return lines
    .map(({ words, text, under = [], apart }) => {
      const own = text === undefined ? words : `${words}:${textWritten(text, `${indent}  `)}`;
      return `${apart ? '\n' : ''}${indent}${own}\n${writeLines(under, depth + 1)}`;
    })
    .join('');
}

/** Behind the colon: as it is, between quotes where it would not come back so, or below as a longer text. */
function textWritten(text: string, indent: string): string {
  if (text.includes('\n') && !/[\r\u0000-\u0008\u000b-\u001f\u2028\u2029]/.test(text) && !isTorn(text))
    return `\n${text
      .split('\n')
      .map((line) => `${indent}|${line === '' ? '' : ` ${line}`}`)
      .join('\n')}`;
  return ` ${plainOrQuoted(text)}`;
}

/** Lines that would lose spaces at their start. */
const isTorn = (text: string) => text.split('\n').some((line) => line !== line.trimEnd());

/** A text on one line, between quotes where it would not come back as it is. */
export function plainOrQuoted(text: string): string {
  const isPlain =
    text !== '' && text === text.trim() && !text.startsWith('"') && !/[\p{Cc}\u2028\u2029]/u.test(text);
  return isPlain ? text : JSON.stringify(text);
}

/** What `plainOrQuoted` gave; null where quotes were opened and not closed as they should be. */
export function readText(written: string): string | null {
  const words = written.trim();
  if (!words.startsWith('"')) return words;
  try {
    const text: unknown = JSON.parse(words);
    return typeof text === 'string' ? text : null;
  } catch {
    return null;
  }
}
