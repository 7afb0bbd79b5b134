/**
 * What a line of a script can be, written once for both directions: a property that is switched on, a text, a number, a
 * list of names, a part with lines of its own. `grammar.ts` puts the questionnaire together from these.
 */
import { readText, type LineToWrite, type ScriptLine } from './lines';

export type Held = Record<string, unknown>;

/** Told what is wrong with a line; where a property came from, for problems that are found later. */
export interface Reading {
  /** So much is wrong already that the rest need not be read. */
  readonly isFull: boolean;
  refuse(line: ScriptLine, what: string): void;
  made(object: object, property: string | null, line: ScriptLine): void;
}

/** How one property of a part is written and read. */
export interface Slot {
  /** As it is told where a line is not understood: “required”, “label: …”. */
  readonly looks: string;
  /** The parts that can stand here, of which each has lines of its own. */
  readonly shapes?: readonly Shape[];
  /** The lines for the part; none where it has no such property. */
  write(part: Held): LineToWrite[];
  /** Whether the line is one of this property: then it is in `part`, or was refused. */
  read(line: ScriptLine, part: Held, reading: Reading): boolean;
}

/** A part with lines of its own. */
export interface Shape {
  readonly looks: string;
  /** The words of its first line, with the text behind its colon. */
  head(part: Held): LineToWrite;
  /** Null where the line is not the first of such a part. */
  open(line: ScriptLine, reading: Reading): Held | null;
  /** What can stand under it. */
  slots(part: Held): readonly Slot[];
  /** Whether a part is of this shape, where several can stand in one place. */
  is(part: Held): boolean;
}

const once = (part: Held, property: string, value: unknown, line: ScriptLine, reading: Reading) => {
  if (property in part) reading.refuse(line, 'this was said already a few lines above: keep one of the two');
  part[property] = value;
  reading.made(part, property, line);
};

/** The text behind the colon of a line that begins with `words`; undefined where it is another line. */
function textAfter(line: ScriptLine, words: string, reading: Reading): string | undefined {
  if (line.words === `${words}:`) return line.block ?? '';
  if (!line.words.startsWith(`${words}: `)) return undefined;
  const text = readText(line.words.slice(words.length + 2));
  if (line.block !== null) reading.refuse(line, 'the text stands behind the colon or below, not both');
  if (text === null) reading.refuse(line, 'the quotes are not closed: end the text with "');
  return text ?? '';
}

const leaf = (line: ScriptLine, reading: Reading) => {
  const [below] = line.under;
  if (below !== undefined) reading.refuse(below, 'nothing can stand under this line: indent it less');
};

export function text(property: string, words: string): Slot {
  return {
    looks: `${words}: …`,
    write: (part) => (part[property] === undefined ? [] : [{ words, text: String(part[property]) }]),
    read(line, part, reading) {
      const found = textAfter(line, words, reading);
      if (found === undefined) return false;
      leaf(line, reading);
      once(part, property, found, line, reading);
      return true;
    },
  };
}

export function number(property: string, words: string): Slot {
  return {
    looks: `${words}: 1`,
    write: (part) => (part[property] === undefined ? [] : [{ words, text: String(part[property]) }]),
    read(line, part, reading) {
      const found = textAfter(line, words, reading);
      if (found === undefined) return false;
      const value = Number(found);
      if (found.trim() === '' || !Number.isFinite(value))
        reading.refuse(line, `a number is needed after “${words}:”`);
      leaf(line, reading);
      once(part, property, value, line, reading);
      return true;
    },
  };
}

/** Written where it is said at all, on or off. */
export function flag(property: string, on: string, off = `not ${on}`): Slot {
  return {
    looks: on,
    write: (part) => (part[property] === undefined ? [] : [{ words: part[property] === true ? on : off }]),
    read(line, part, reading) {
      if (line.words !== on && line.words !== off) return false;
      leaf(line, reading);
      once(part, property, line.words === on, line, reading);
      return true;
    },
  };
}

/** Names or codes with commas between them; `no WORDS` for an empty list. */
export function listed(property: string, words: string, of: 'names' | 'codes'): Slot {
  return {
    looks: `${words}: ${of === 'names' ? 'name, name' : '1, 2'}`,
    write(part) {
      const list = part[property] as readonly unknown[] | undefined;
      if (list === undefined) return [];
      return [list.length === 0 ? { words: `no ${words}` } : { words, text: list.join(', ') }];
    },
    read(line, part, reading) {
      const found = line.words === `no ${words}` ? null : textAfter(line, words, reading);
      if (found === undefined) return false;
      leaf(line, reading);
      const entries = found === null ? [] : found.split(',').map((entry) => entry.trim());
      const codes = entries.map(Number);
      if (of === 'codes' && !codes.every(Number.isSafeInteger))
        reading.refuse(line, `codes are whole numbers with commas between them, like “${words}: 1, 2”`);
      once(part, property, of === 'names' ? entries : codes, line, reading);
      return true;
    },
  };
}

/** A key of a record: as it is where it is a word, else between quotes. */
const KEY = /^(?:"(?:[^"\\]|\\.)*"|[\w.-]+)/;
export const keyWritten = (key: string) => (/^[\w.-]+$/.test(key) ? key : JSON.stringify(key));

/** Numbers by key, a line each: `WORDS KEY: 1`; `no WORDS` for an empty record. */
export function numbersByKey(property: string, words: string, none: string): Slot {
  return {
    looks: `${words} …: 1`,
    write(part) {
      const record = part[property] as Readonly<Record<string, number>> | undefined;
      if (record === undefined) return [];
      const entries = Object.entries(record);
      if (entries.length === 0) return [{ words: none }];
      return entries.map(([key, value]) => ({ words: `${words} ${keyWritten(key)}`, text: String(value) }));
    },
    read(line, part, reading) {
      if (line.words === none) {
        once(part, property, {}, line, reading);
        return true;
      }
      if (!line.words.startsWith(`${words} `)) return false;
      const rest = line.words.slice(words.length + 1);
      const key = KEY.exec(rest)?.[0];
      if (key === undefined || !rest.slice(key.length).startsWith(': ')) return false;
      const value = Number(rest.slice(key.length + 2));
      if (!Number.isFinite(value)) reading.refuse(line, 'a number is needed behind the colon');
      const record = (part[property] ??= {}) as Record<string, number>;
      const name = readText(key) ?? key;
      if (Object.hasOwn(record, name))
        reading.refuse(line, 'this was said already a few lines above: keep one of the two');
      Object.defineProperty(record, name, { value, enumerable: true, configurable: true, writable: true });
      reading.made(part, property, line);
      return true;
    },
  };
}

/** One part of its own, of one shape or of another. */
export function part(property: string, ...shapes: readonly [Shape, ...Shape[]]): Slot {
  return {
    shapes,
    looks: shapes.map(({ looks }) => looks).join('; '),
    write(owner) {
      const held = owner[property] as Held | undefined;
      return held === undefined ? [] : [writtenPart(shapes, held)];
    },
    read(line, owner, reading) {
      for (const shape of shapes) {
        const held = readPart(shape, line, reading);
        if (held === null) continue;
        once(owner, property, held, line, reading);
        return true;
      }
      return false;
    },
  };
}

/** A list of parts, of one shape or of several, each under a line of its own; `none` for an empty list. */
export function parts(property: string, none: string, ...shapes: readonly [Shape, ...Shape[]]): Slot {
  return {
    shapes,
    looks: shapes.map(({ looks }) => looks).join('; '),
    write(owner) {
      const list = owner[property];
      if (!Array.isArray(list)) return [];
      if (list.length === 0) return [{ words: none }];
      return (list as Held[]).map((held) => writtenPart(shapes, held));
    },
    read(line, owner, reading) {
      if (line.words === none) {
        leaf(line, reading);
        once(owner, property, [], line, reading);
        return true;
      }
      for (const shape of shapes) {
        const held = readPart(shape, line, reading);
        if (held === null) continue;
        const list = owner[property];
        if (Array.isArray(list)) list.push(held);
        else once(owner, property, [held], line, reading);
        return true;
      }
      return false;
    },
  };
}

function writtenPart(shapes: readonly [Shape, ...Shape[]], held: Held): LineToWrite {
  const [first] = shapes;
  const shape = shapes.find((each) => each.is(held)) ?? first;
  return { ...shape.head(held), under: shape.slots(held).flatMap((slot) => slot.write(held)) };
}

function readPart(shape: Shape, line: ScriptLine, reading: Reading): Held | null {
  const held = shape.open(line, reading);
  if (held === null) return null;
  reading.made(held, null, line);
  readSlots(shape.slots(held), line.under, held, reading);
  return held;
}

/** Every line is one of the slots, or refused with what can stand there. */
export function readSlots(
  slots: readonly Slot[],
  lines: readonly ScriptLine[],
  held: Held,
  reading: Reading,
): void {
  for (const line of lines) {
    if (reading.isFull) return;
    if (!slots.some((slot) => slot.read(line, held, reading)))
      reading.refuse(
        line,
        slots.length === 0
          ? 'nothing can stand under the line above: indent it less'
          : `“${shortened(line.words)}” is not understood here. Here can stand: ${slots.map(({ looks }) => looks).join('; ')}`,
      );
  }
}

const shortened = (words: string) => (words.length > 60 ? `${words.slice(0, 57)}…` : words);

interface HeadProperties {
  /** The property that stands behind the word, and what it is. */
  readonly named?: readonly [property: string, of: 'name' | 'code'];
  /** The property behind the colon. */
  readonly text?: string;
  /** What every part of this shape has, and is not written. */
  readonly fixed?: Held;
  /** An empty line stands before it. */
  readonly apart?: boolean;
}

const NAMES = { name: '[A-Za-z]\\w*', code: '-?\\d+' };

/** A first line like `question NAME: TEXT`; without a word like `CODE: TEXT`. */
export function headed(
  word: string,
  { named, text: property, fixed = {}, apart = false }: HeadProperties,
  slots: readonly Slot[],
): Shape {
  const start = word === '' || named === undefined ? word : `${word} `;
  const form = new RegExp(
    `^${start}${named === undefined ? '' : `(${NAMES[named[1]]})`}${property === undefined ? '' : '(:.*)'}$`,
    's',
  );
  return {
    looks: `${start}${named === undefined ? '' : named[1] === 'code' ? '1' : 'NAME'}${property === undefined ? '' : ': …'}`,
    is: (held) =>
      Object.entries(fixed).every(([key, value]) => held[key] === value) &&
      (property === undefined || property in held),
    head: (held) => ({
      words: `${start}${named === undefined ? '' : String(held[named[0]])}`,
      ...(property === undefined ? {} : { text: String(held[property]) }),
      apart,
    }),
    open(line, reading) {
      const found = form.exec(line.words);
      if (found === null) return null;
      const held: Held = { ...fixed };
      const [, first = '', second = ''] = found;
      if (named !== undefined) held[named[0]] = named[1] === 'code' ? Number(first) : first;
      if (property !== undefined) {
        const behind = named === undefined ? first : second;
        held[property] = textAfter({ ...line, words: `_${behind}` }, '_', reading) ?? behind.slice(1);
      }
      return held;
    },
    slots: () => slots,
  };
}
