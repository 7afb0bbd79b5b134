/**
 * Random questionnaires about answers with many values (numbers, decimals, dates, times, scales, texts, many picks), and
 * people who answer them with values that nothing but chance, or a step beside what a condition names, has chosen.
 */
import { optionsOf } from '../../src/core/document/shape';
import type {
  Answer,
  Item,
  Option,
  Question,
  Questionnaire,
  Section,
  Target,
  Value,
} from '../../src/core/document/types';
import { ask, questionnaire, section } from '../support/questionnaire';
import { intOf, type Int } from './changes';

const DATES = ['2020-02-28', '2020-02-29', '2020-03-01', '2020-09-30', '2021-01-01', '1999-12-31'];
const TIMES = ['06:00', '08:15', '08:15:30', '12:00', '17:30', '22:30'];
const MOMENTS = ['2020-02-29T23:59', '2020-03-01T00:00', '2020-03-01T00:00:01', '2020-12-31T08:15'];

interface Known {
  readonly name: string;
  readonly answer: Answer;
  readonly section: number;
}

export function wideDocument(seed: number): Questionnaire {
  const int = intOf(seed + 5_000_000);
  const known: Known[] = [];
  const sections: Section[] = [];
  const count = int(2, 4);
  let questions = 0;
  for (let s = 0; s < count; s += 1) {
    const before = [...known];
    const drivers = before.filter(
      (each) => !sections[each.section]?.repeat && (each.answer.type === 'multiple' || isCount(each.answer)),
    );
    const driver = drivers.length > 0 && int(0, 2) === 0 ? pick(int, drivers) : null;
    const repeat =
      driver === null
        ? {}
        : {
            repeat:
              driver.answer.type === 'multiple'
                ? { each: driver.name, max: 3 }
                : { times: driver.name, max: 3 },
          };
    const items: Item[] = [];
    const size = int(1, 3);
    for (let i = 0; i < size; i += 1) {
      questions += 1;
      const name = `v${questions}`;
      const own = {
        sections,
        home: s,
        repeats: driver !== null,
        each: driver?.answer.type === 'multiple' ? driver.answer : null,
      };
      const askIf = int(0, 1) === 0 ? { askIf: condition(int, known, own) } : {};
      const answer = anyAnswer(int);
      const required = int(0, 2) > 0 ? { required: true } : {};
      known.push({ name, answer, section: s });
      const skips =
        int(0, 4) === 0 ? { skips: [{ if: condition(int, known, own), to: targetIn(int, s, count) }] } : {};
      items.push(ask(name, answer, { ...askIf, ...required, ...skips }));
    }
    const outside = { sections, home: s, repeats: false, each: null };
    const gate = before.length > 0 && int(0, 3) === 0 ? { askIf: condition(int, before, outside) } : {};
    sections.push(section(`s${s}`, items, { ...gate, ...repeat }));
  }
  return questionnaire(sections);
}

function pick<T>(int: Int, from: readonly T[]): T {
  return from[int(0, from.length - 1)] as T;
}

function isCount(answer: Answer): boolean {
  return answer.type === 'number' && (answer.decimals ?? 0) === 0 && answer.max < 20;
}

function targetIn(int: Int, home: number, count: number): Target {
  return int(0, 1) === 0 || home + 1 === count ? { ending: 'out' } : { section: `s${home + 1}` };
}

function anyAnswer(int: Int): Answer {
  const special =
    int(0, 2) === 0 ? { specials: [{ code: 998, label: 'DK', missing: 'dont_know' as const }] } : {};
  switch (int(0, 9)) {
    case 0:
      return { type: 'number', min: 0, max: 120, ...special };
    case 1:
      return { type: 'number', min: 0, max: 10, decimals: 1, ...special };
    case 2:
      return { type: 'scale', min: -4, max: 8, step: pick(int, [1, 2]), ...special };
    case 3:
      return {
        type: 'date',
        ...(int(0, 1) === 0 ? { min: '2019-01-01', max: '2021-12-31' } : {}),
        ...special,
      };
    case 4:
      return { type: 'time', ...(int(0, 1) === 0 ? { min: '06:00', max: '22:30' } : {}), ...special };
    case 5:
      return { type: 'datetime', ...special };
    case 6:
      return { type: 'number', min: 0, max: 6 };
    case 7:
      return { type: 'text', lines: 'one' };
    case 8:
      return { type: 'single', options: options(int, 4) };
    default:
      return { type: 'multiple', options: options(int, 4) };
  }
}

function options(int: Int, count: number): Option[] {
  const plain = Array.from({ length: count }, (_, n) => ({ code: n + 1, label: `Option ${n + 1}` }));
  const last = int(0, 2);
  if (last === 0) return plain;
  const more = last === 1 ? { exclusive: true } : { missing: 'dont_know' as const };
  return [...plain, { code: 98, label: 'Other', ...more }];
}

interface Around {
  readonly sections: readonly Section[];
  readonly home: number;
  readonly repeats: boolean;
  readonly each: Extract<Answer, { type: 'multiple' }> | null;
}

function condition(int: Int, known: readonly Known[], around: Around): string {
  const one = test(int, known, around);
  switch (int(0, 5)) {
    case 0:
      return `${one} and ${test(int, known, around)}`;
    case 1:
      return `${one} or ${test(int, known, around)}`;
    case 2:
      return `not (${one})`;
    case 3:
      return `not (${one} or ${test(int, known, around)})`;
    default:
      return one;
  }
}

function test(int: Int, known: readonly Known[], around: Around): string {
  if (around.repeats && int(0, 4) === 0)
    return around.each !== null && int(0, 1) === 0
      ? `each ${pick(int, ['=', '<>'])} ${int(1, 4)}`
      : `pass ${pick(int, ['=', '<', '>'])} ${int(1, 3)}`;
  const seen = known.filter(
    (each) => around.sections[each.section]?.repeat === undefined || each.section === around.home,
  );
  const inner = known.filter((each) => !seen.includes(each));
  if (inner.length > 0 && int(0, 2) === 0)
    return `count(${plainTest(int, pick(int, inner))}) ${pick(int, ['>=', '=', '<', '<>'])} ${int(0, 2)}`;
  if (seen.length === 0) return 'always';
  const of = pick(int, seen);
  const like = seen.filter((each) => each !== of && each.answer.type === of.answer.type);
  const numbers = seen.filter((each) => each.answer.type === 'number' && (each.answer.decimals ?? 0) === 0);
  if (like.length > 0 && of.answer.type !== 'multiple' && int(0, 6) === 0)
    return `${of.name} ${pick(int, ['<', '<>', '>='])} ${pick(int, like).name}`;
  if (numbers.length > 1 && int(0, 8) === 0)
    return `${pick(int, numbers).name} + ${pick(int, numbers).name} > ${int(1, 60)}`;
  return plainTest(int, of);
}

function plainTest(int: Int, { name, answer }: Known): string {
  if (int(0, 5) === 0) return `${name} ${pick(int, ['answered', 'unanswered', 'asked', 'not asked'])}`;
  const operator = () => pick(int, ['=', '<>', '<', '<=', '>', '>=']);
  const literals = literalsFor(int, answer);
  const [a = '', b = a] = literals;
  switch (answer.type) {
    case 'single':
      return pick(int, [
        `${name} = ${a}`,
        `${name} <> ${a}`,
        `${name} in (${a}, ${b})`,
        `${name} not in (${a}, ${b})`,
      ]);
    case 'multiple':
      return pick(int, [
        `${name} has ${a}`,
        `${name} has any (${a}, ${b})`,
        `${name} has all (${a}, ${b})`,
        `${name} has none (${a}, ${b})`,
        `count(${name}) ${operator()} ${int(1, 3)}`,
      ]);
    case 'text':
      return pick(int, [`${name} = 'abc'`, `${name} <> 'abc'`, `${name} in ('abc', 'x')`]);
    default:
      return pick(int, [
        `${name} ${operator()} ${a}`,
        `${name} in (${a}..${b})`,
        `${name} not in (${a}..${b})`,
        `${name} in (${a}, ${b})`,
      ]);
  }
}

function literalsFor(int: Int, answer: Answer): string[] {
  const two = (from: readonly string[]) => [pick(int, from), pick(int, from)].sort();
  switch (answer.type) {
    case 'date':
      return two(DATES);
    case 'time':
      return two(TIMES);
    case 'datetime':
      return two(MOMENTS);
    case 'number':
    case 'scale': {
      const [from, to] = [answer.min - 1, Math.min(answer.max + 1, 70)];
      const half = int(0, 5) === 0 ? 0.5 : 0;
      const [a, b] = [int(from, to), int(from, to)].sort((x, y) => x - y);
      return [String((a ?? 0) + half), String(b ?? 0)];
    }
    case 'single':
    case 'multiple':
      return [String(int(1, 4)), String(int(1, 4))];
    default:
      return [];
  }
}

/** A value that is allowed, or a blank: beside what conditions name, at a limit, or any. */
export function wideValue(int: Int, question: Question): Value | null {
  const { answer } = question;
  if (question.required !== true && int(0, 4) === 0) return null;
  const special = optionsOf(answer).filter(({ missing }) => missing !== undefined);
  switch (answer.type) {
    case 'number': {
      if (special.length > 0 && int(0, 5) === 0) return special[0]?.code ?? null;
      const scale = 10 ** (answer.decimals ?? 0);
      return int(answer.min * scale, answer.max * scale) / scale;
    }
    case 'scale': {
      if (special.length > 0 && int(0, 5) === 0) return special[0]?.code ?? null;
      const step = answer.step ?? 1;
      return answer.min + step * int(0, Math.floor((answer.max - answer.min) / step));
    }
    case 'date':
    case 'time':
    case 'datetime': {
      if (special.length > 0 && int(0, 5) === 0) return special[0]?.code ?? null;
      const value = momentLike(int, answer.type);
      const fits =
        (answer.min === undefined || value >= answer.min) &&
        (answer.max === undefined || value <= answer.max);
      return fits ? value : (answer.min ?? value);
    }
    case 'text':
      return pick(int, ['abc', 'x', 'something else', 'Abc']);
    case 'single':
      return pick(int, answer.options).code;
    case 'multiple': {
      const alone = answer.options.filter((option) => option.exclusive || option.missing !== undefined);
      if (alone.length > 0 && int(0, 4) === 0) return [(alone[0] as Option).code];
      const some = answer.options.filter((option) => !alone.includes(option) && int(0, 1) === 0);
      return some.length > 0 ? some.map(({ code }) => code) : [1];
    }
    default:
      return null;
  }
}

function momentLike(int: Int, type: 'date' | 'time' | 'datetime'): string {
  const seconds = int(0, 2) === 0;
  const at = Date.UTC(
    int(2019, 2021),
    int(0, 11),
    int(1, 28),
    int(0, 23),
    int(0, 59),
    seconds ? int(0, 59) : 0,
  );
  const near = type === 'date' ? DATES : type === 'time' ? TIMES : MOMENTS;
  if (int(0, 1) === 0) {
    const text = pick(int, near);
    const parsed = Date.parse(
      type === 'time' ? `2020-01-01T${text}Z` : type === 'date' ? `${text}T00:00Z` : `${text}Z`,
    );
    const step = type === 'date' ? 86_400_000 : pick(int, [1000, 60_000]);
    return written(type, parsed + step * int(-1, 1));
  }
  return written(type, at);
}

function written(type: 'date' | 'time' | 'datetime', at: number): string {
  const iso = new Date(at).toISOString();
  return type === 'date' ? iso.slice(0, 10) : type === 'time' ? iso.slice(11, 19) : iso.slice(0, 19);
}
