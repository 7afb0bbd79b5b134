/** Lines of a script that say several things at once: where somebody is led, how a section repeats, the type of an answer. */
import { ANSWER_TYPES, type AnswerType } from '../../document/types';
import { plainOrQuoted, readText, type ScriptLine } from './lines';
import type { Held, Reading, Shape, Slot } from './slots';

type Target = Readonly<Record<string, unknown>>;

function targetWritten(target: Target): string {
  if ('nextPass' in target) return 'the next pass';
  const [[kind, name] = ['', '']] = Object.entries(target);
  return `${kind} ${String(name)}`;
}

/** A target at the start of a text, and what stands behind it; null where there is none. */
function readTarget(words: string): { readonly target: Held; readonly rest: string } | null {
  const next = /^the next pass(?= |$)/.exec(words);
  if (next !== null) return { target: { nextPass: true }, rest: words.slice(next[0].length) };
  const found = /^(item|section|ending) ([A-Za-z]\w*)(?= |$)/.exec(words);
  if (found === null) return null;
  const [all, kind = '', name = ''] = found;
  return { target: { [kind]: name }, rest: words.slice(all.length) };
}

const TARGETS = 'item NAME, section ID, ending ID or the next pass';

/** `START TARGET`, and `if CONDITION` where it does not hold for everybody. */
function ruleWritten(start: string, rule: Held): string {
  const condition = rule.if === undefined ? '' : ` if ${plainOrQuoted(String(rule.if))}`;
  return `${start} ${targetWritten(rule.to as Target)}${condition}`;
}

function readRule(start: string, line: ScriptLine, reading: Reading): Held | null {
  if (!line.words.startsWith(`${start} `)) return null;
  const found = readTarget(line.words.slice(start.length + 1));
  if (found === null) {
    reading.refuse(line, `after “${start}” stands where to: ${TARGETS}`);
    return { to: { item: 'nowhere' } };
  }
  const { target, rest } = found;
  if (rest === '') return { to: target };
  const condition = rest.startsWith(' if ') ? readText(rest.slice(4)) : null;
  if (condition === null)
    reading.refuse(line, `after ${targetWritten(target)} stands nothing more, or “if” and a condition`);
  return { if: condition ?? '', to: target };
}

export const skipShape: Shape = {
  looks: 'skip to item NAME if …',
  head: (rule) => ({ words: ruleWritten('skip to', rule) }),
  open: (line, reading) => readRule('skip to', line, reading),
  slots: () => [],
  is: () => true,
};

export function targetSlot(property: string, words: string): Slot {
  return {
    looks: `${words}: to item NAME`,
    write: (part) =>
      part[property] === undefined ? [] : [{ words, text: `to ${targetWritten(part[property] as Target)}` }],
    read(line, part, reading) {
      if (!line.words.startsWith(`${words}: to `)) return false;
      const found = readTarget(line.words.slice(words.length + 5));
      if (found === null || found.rest !== '')
        reading.refuse(line, `after “${words}: to” stands where to: ${TARGETS}`);
      part[property] = found?.target ?? { item: 'nowhere' };
      reading.made(part, property, line);
      return true;
    },
  };
}

/** Where a section's end leads: one place for everybody, or a list that is tried in order. */
export const onwardSlot: Slot = {
  looks: 'onward to section ID if …; everybody onward to section ID',
  write({ onward }) {
    if (onward === undefined) return [];
    if (!Array.isArray(onward)) return [{ words: `everybody onward to ${targetWritten(onward as Target)}` }];
    if (onward.length === 0) return [{ words: 'no onward' }];
    return (onward as Held[]).map((rule) => ({ words: ruleWritten('onward to', rule) }));
  },
  read(line, part, reading) {
    const whole = 'everybody onward to ';
    if (line.words === 'no onward') part.onward = [];
    else if (line.words.startsWith(whole)) {
      const found = readTarget(line.words.slice(whole.length));
      if (found === null || found.rest !== '' || part.onward !== undefined)
        reading.refuse(line, `after “everybody onward to” stands one place for all: ${TARGETS}`);
      part.onward = found?.target ?? { item: 'nowhere' };
    } else {
      const rule = readRule('onward to', line, reading);
      if (rule === null) return false;
      if (part.onward !== undefined && !Array.isArray(part.onward))
        reading.refuse(line, 'everybody is led onward above already: keep one of the two');
      reading.made(rule, null, line);
      if (Array.isArray(part.onward)) part.onward.push(rule);
      else part.onward = [rule];
    }
    reading.made(part, 'onward', line);
    return true;
  },
};

export const repeatSlot: Slot = {
  looks: 'repeat NAME times, at most 6; repeat for each NAME, at most 6',
  write({ repeat }) {
    if (repeat === undefined) return [];
    const { times, each, max } = repeat as Held;
    return [
      {
        words:
          each === undefined
            ? `repeat ${String(times)} times, at most ${String(max)}`
            : `repeat for each ${String(each)}, at most ${String(max)}`,
      },
    ];
  },
  read(line, part, reading) {
    if (!line.words.startsWith('repeat ')) return false;
    const found = /^repeat (?:(\w+) times|for each (\w+)), at most (\d+)$/.exec(line.words);
    if (found === null)
      reading.refuse(line, 'write “repeat NAME times, at most 6” or “repeat for each NAME, at most 6”');
    const [, times, each, max] = found ?? [];
    part.repeat = each === undefined ? { times: times ?? '', max: Number(max) } : { each, max: Number(max) };
    reading.made(part, 'repeat', line);
    return true;
  },
};

/** A bound of a range is a number or a text, and stays what it is. */
const boundWritten = (bound: unknown) =>
  typeof bound === 'string' &&
  !Number.isFinite(Number(bound)) &&
  /^\S+$/.test(bound) &&
  !bound.startsWith('"')
    ? bound
    : JSON.stringify(bound);
function readBound(written: string): unknown {
  try {
    return JSON.parse(written);
  } catch {
    return written;
  }
}
const BOUND = '("(?:[^"\\\\]|\\\\.)*"|\\S+)';
const RANGE = new RegExp(`^from ${BOUND} to ${BOUND}: (\\S+)$`);

export const rangeSlot: Slot = {
  looks: 'from 0 to 10: 0.5',
  write({ ranges }) {
    if (!Array.isArray(ranges)) return [];
    if (ranges.length === 0) return [{ words: 'no ranges' }];
    return (ranges as Held[]).map(({ from, to, share }) => ({
      words: `from ${boundWritten(from)} to ${boundWritten(to)}`,
      text: String(share),
    }));
  },
  read(line, part, reading) {
    if (line.words === 'no ranges') part.ranges = [];
    else {
      if (!line.words.startsWith('from ')) return false;
      const [, from = '', to = '', share] = RANGE.exec(line.words) ?? [];
      if (share === undefined || !Number.isFinite(Number(share)))
        reading.refuse(line, 'write a range as “from 0 to 10: 0.5”, with the share behind the colon');
      const range = { from: readBound(from), to: readBound(to), share: Number(share) };
      reading.made(range, null, line);
      if (Array.isArray(part.ranges)) part.ranges.push(range);
      else part.ranges = [range];
    }
    reading.made(part, 'ranges', line);
    return true;
  },
};

/** `answer: TYPE`, under which stands what that type can have. */
export function typedAnswer(slotsOf: Readonly<Record<AnswerType, readonly Slot[]>>): Shape {
  return {
    looks: 'answer: TYPE',
    is: () => true,
    head: ({ type }) => ({ words: 'answer', text: String(type) }),
    open(line, reading) {
      if (!line.words.startsWith('answer:')) return null;
      const type = line.words.slice('answer:'.length).trim();
      if (!isAnswerType(type))
        reading.refuse(line, `“${type}” is no type of answer: take ${ANSWER_TYPES.join(', ')}`);
      return { type };
    },
    slots: ({ type }) => (isAnswerType(String(type)) ? slotsOf[String(type) as AnswerType] : []),
  };
}

const isAnswerType = (type: string): type is AnswerType => (ANSWER_TYPES as readonly string[]).includes(type);
