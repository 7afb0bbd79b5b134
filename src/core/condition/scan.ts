/** Splits the text of a condition into tokens with their spans. */
import { isDateValue } from '../document/dates';
import type { TextSpan } from './syntax';

export type TokenKind = 'word' | 'number' | 'text' | 'date' | 'time' | 'datetime' | 'symbol' | 'end' | 'bad';

export interface Token {
  readonly kind: TokenKind;
  /** As typed; for a text the content with its doubled quotes undone. */
  readonly text: string;
  readonly span: TextSpan;
  /** For `bad`: what is wrong with it. */
  readonly problem?: string;
}

const WORD = /[A-Za-z][A-Za-z0-9_]*/y;
const DATETIME = /\d{4}-\d{2}-\d{2}(T\d{2}:\d{2}(:\d{2})?)?/y;
const TIME = /\d{2}:\d{2}(:\d{2})?/y;
const NUMBER = /\d+(\.\d+)?/y;
const SYMBOL = /<>|<=|>=|\.\.|[=<>(),+\-*]/y;

/** Tokens in order, closed by one `end` token. Never throws: what cannot be read becomes a `bad` token. */
export function scan(source: string): Token[] {
  const tokens: Token[] = [];
  let at = 0;
  const match = (pattern: RegExp): string | null => {
    pattern.lastIndex = at;
    return pattern.exec(source)?.[0] ?? null;
  };
  const push = (kind: TokenKind, length: number, text = source.slice(at, at + length), problem?: string) => {
    tokens.push({ kind, text, span: { from: at, to: at + length }, ...(problem ? { problem } : {}) });
    at += length;
  };
  const space = /\s*/y;
  while (at < source.length) {
    space.lastIndex = at;
    at += space.exec(source)?.[0].length ?? 0;
    if (at < source.length) scanToken();
  }
  tokens.push({ kind: 'end', text: '', span: { from: source.length, to: source.length } });
  return tokens;

  function scanToken(): void {
    const word = match(WORD);
    if (word !== null) return push('word', word.length);
    const date = match(DATETIME) ?? match(TIME);
    if (date !== null) return pushDate(date);
    const number = match(NUMBER);
    if (number !== null) return push('number', number.length);
    if (source[at] === "'") return scanText();
    const symbol = match(SYMBOL);
    if (symbol !== null) return push('symbol', symbol.length);
    const odd = String.fromCodePoint(source.codePointAt(at) ?? 0);
    push('bad', odd.length, odd, `"${odd}" has no meaning here${hintFor(odd)}`);
  }

  function pushDate(date: string): void {
    const kind = date.includes('T') ? 'datetime' : date.includes('-') ? 'date' : 'time';
    if (isDateValue(kind, date)) push(kind, date.length);
    else push('bad', date.length, date, `"${date}" is not a real ${kind}`);
  }

  function scanText(): void {
    let end = at + 1;
    let content = '';
    while (end < source.length) {
      if (source[end] !== "'") {
        content += source[end];
        end += 1;
      } else if (source[end + 1] === "'") {
        content += "'";
        end += 2;
      } else {
        push('text', end + 1 - at, content);
        return;
      }
    }
    push('bad', source.length - at, undefined, "this text has no closing quote: add '");
  }
}

function hintFor(odd: string): string {
  switch (odd) {
    case '"':
    case '‘':
    case '’':
    case '“':
    case '”':
      return ": write texts between straight single quotes, 'like this'";
    case '!':
      return ': write <> for "is not"';
    case '&':
      return ': write and';
    case '|':
      return ': write or';
    case '≤':
      return ': write <=';
    case '≥':
      return ': write >=';
    case '≠':
      return ': write <>';
    default:
      return '';
  }
}
