/**
 * All routes of a small questionnaire by trying every answer to every question: slow, plain, and without any
 * idea of which answers matter.
 */
import { passKey } from '../../src/core/document/addresses';
import { optionsOf } from '../../src/core/document/shape';
import type { Answer, Value } from '../../src/core/document/types';
import type { Plan } from '../../src/core/routing/plan';
import { walk, type Walk, type WalkInput } from '../../src/core/routing/walk';

export interface PlainRoute {
  readonly items: readonly string[];
  readonly ending: string;
}

/** Thrown where trying everything would take too long. */
export class TooMany extends Error {}

/** In canonical order. `each` is told every walk that comes to an ending. */
export function allRoutes(
  plan: Plan,
  most = 30_000,
  each: (walk: Walk, input: WalkInput) => void = () => {},
): PlainRoute[] {
  const routes = new Map<string, PlainRoute>();
  let walks = 0;
  const explore = (input: WalkInput & { answers: Record<string, Value | null> }): void => {
    walks += 1;
    if (walks > most) throw new TooMany();
    const result = walk(plan, input);
    if (!result.ok) throw new Error(result.problem);
    for (const step of result.walk.steps) {
      const open = step.parts.find((part) => !(passKey(part.name, step.pass) in input.answers));
      if (open === undefined) {
        if (step.departure === null) return; // Stopped: an answer tried is not allowed, or a blank not accepted.
        continue;
      }
      for (const value of everyAnswer(open.answer)) {
        explore({ ...input, answers: { ...input.answers, [passKey(open.name, step.pass)]: value } });
      }
      return;
    }
    const { ending, steps } = result.walk;
    if (ending === null) return;
    each(result.walk, input);
    const items = steps.map(({ key }) => key);
    const id = plan.endings[ending]?.ending.id ?? '';
    routes.set(`${items.join(' ')} > ${id}`, { items, ending: id });
  };
  for (const draws of everyDraw(plan)) {
    for (const given of everyGiven(plan)) {
      for (const full of subsets((plan.document.quotas ?? []).map(({ id }) => id))) {
        explore({ answers: {}, draws, given, full });
      }
    }
  }
  return [...routes.values()].sort((a, b) => compareRoutes(plan, a, b));
}

export function everyAnswer(answer: Answer): (Value | null)[] {
  const specials = answer.type === 'grid' ? [] : optionsOf(answer).map(({ code }) => code);
  switch (answer.type) {
    case 'single':
      return [...specials, null];
    case 'multiple':
      // Larger sets are refused in any case.
      return [...subsetsUpTo(answer.maxPicks ?? Infinity, specials).filter((set) => set.length > 0), null];
    case 'rank':
      return [
        ...subsets(specials)
          .flatMap((set) => (set.length === 2 ? [set, [...set].reverse()] : [set]))
          .filter((set) => set.length > 0),
        null,
      ];
    case 'scale':
    case 'number':
      return [...marksOf(answer), ...specials, null];
    case 'text':
      return [...TEXTS[answer.pattern ?? 'none'], null];
    case 'date':
      return ['2023-12-31', '2024-01-01', '2024-01-02', '2024-01-03', ...specials, null];
    case 'time':
      return ['08:00', '09:00', '10:00', ...specials, null];
    case 'datetime':
      return ['2024-01-01T08:00', '2024-01-01T09:00', ...specials, null];
    default:
      throw new Error(`not generated: ${answer.type}`);
  }
}

const TEXTS = {
  none: ['a', 'b', 'words'],
  email: ['a@b.cc'],
  phone: ['01632 960 001'],
  url: ['http://b.cc'],
} as const;

function marksOf(answer: Extract<Answer, { type: 'number' | 'scale' }>): number[] {
  const step = answer.type === 'scale' ? (answer.step ?? 1) : 10 ** -(answer.decimals ?? 0);
  const count = Math.round((answer.max - answer.min) / step) + 1;
  return Array.from({ length: count }, (_, n) => Math.round((answer.min + n * step) * 1e6) / 1e6);
}

function subsetsUpTo<T>(most: number, of: readonly T[]): T[][] {
  return of.reduce<T[][]>(
    (sets, entry) => [...sets, ...sets.filter(({ length }) => length < most).map((set) => [...set, entry])],
    [[]],
  );
}

function subsets<T>(of: readonly T[]): T[][] {
  return of.reduce<T[][]>((sets, entry) => [...sets, ...sets.map((set) => [...set, entry])], [[]]);
}

export function everyDraw(plan: Plan): Record<string, string[]>[] {
  let all: Record<string, string[]>[] = [{}];
  for (const { section, items, repeat } of plan.sections) {
    if (section.draw === undefined) continue;
    const names = items.flatMap(({ item }) => (item.kind === 'question' ? [item.name] : []));
    const sets = subsets(names).filter((set) => set.length === section.draw);
    const passes = repeat === null ? [null] : Array.from({ length: repeat.max }, (_, p) => p + 1);
    for (const pass of passes) {
      all = all.flatMap((draws) => sets.map((set) => ({ ...draws, [passKey(section.id, pass)]: set })));
    }
  }
  return all;
}

function everyGiven(plan: Plan): Record<string, Value>[] {
  let all: Record<string, Value>[] = [{}];
  for (const { name, answer } of plan.document.given ?? []) {
    const values = everyAnswer(answer).filter((value) => value !== null);
    all = all.flatMap((given) => values.map((value) => ({ ...given, [name]: value })));
  }
  return all;
}

function compareRoutes(plan: Plan, a: PlainRoute, b: PlainRoute): number {
  const end = [Infinity, 0, 0] as const;
  for (let at = 0; ; at += 1) {
    const [x, y] = [placeOf(plan, a.items[at]) ?? end, placeOf(plan, b.items[at]) ?? end];
    const difference = compare(x[0], y[0]) || compare(x[1], y[1]) || compare(x[2], y[2]);
    if (difference !== 0) return difference;
    if (x === end) return endingIndex(plan, a.ending) - endingIndex(plan, b.ending);
  }
}

function compare(a: number, b: number): number {
  return a < b ? -1 : a > b ? 1 : 0;
}

function placeOf(
  plan: Plan,
  key: string | undefined,
): readonly [section: number, pass: number, item: number] | null {
  if (key === undefined) return null;
  const [name, pass = '1'] = key.split('#');
  for (const { index, items } of plan.sections) {
    const item = items.findIndex((entry) => entry.item.name === name);
    if (item >= 0) return [index, Number(pass), item];
  }
  return null;
}

function endingIndex(plan: Plan, id: string): number {
  return plan.endings.findIndex(({ ending }) => ending.id === id);
}
