/** What every family of made questionnaires is made with: a seeded die, and questions in few words. */
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import type { Answer, Item, Question, Questionnaire, Section, Skip } from '../../src/core/document/types';
import { emptyQuestionnaire } from '../../src/core/editing/structure';

/** The same questionnaire for a size and a seed. */
export type Family = (size: number, seed: number) => Questionnaire;

export class Die {
  private readonly random;

  constructor(seed: number) {
    this.random = xoroshiro128plus(seed);
  }

  /** A whole number, both ends included. */
  int(from: number, to: number): number {
    return uniformInt(this.random, from, to);
  }

  chance(share: number): boolean {
    return this.int(1, 1000) <= share * 1000;
  }

  of<Thing>(things: readonly Thing[]): Thing {
    if (things.length === 0) throw new Error('there is nothing to choose from');
    return things[this.int(0, things.length - 1)] as Thing;
  }

  /** So many of them, each once, in their own order. */
  some<Thing>(things: readonly Thing[], count: number): Thing[] {
    const left = things.map((_, n) => n);
    const taken = new Set<number>();
    while (taken.size < Math.min(count, things.length))
      taken.add(left.splice(this.int(0, left.length - 1), 1)[0] as number);
    return things.filter((_, n) => taken.has(n));
  }
}

const options = (count: number) =>
  Array.from({ length: count }, (_, n) => ({ code: n + 1, label: `Answer ${n + 1}` }));

export const single = (count: number): Answer => ({ type: 'single', options: options(count) });
export const multiple = (count: number): Answer => ({ type: 'multiple', options: options(count) });
export const number = (min: number, max: number): Answer => ({ type: 'number', min, max });

export function ask(name: string, answer: Answer, rest: Partial<Question> = {}): Question {
  return { kind: 'question', name, text: `What do you say about ${name}?`, answer, required: true, ...rest };
}

/** One that is asked if; without a condition, of everybody. */
export function askIf(name: string, answer: Answer, condition: string | null): Question {
  return ask(name, answer, condition === null ? {} : { askIf: condition });
}

export function topic(id: string, items: readonly Item[], rest: Partial<Section> = {}): Section {
  return { id, title: id, kind: 'topic', items, ...rest };
}

export function withSkips(item: Item, skips: readonly Skip[]): Item {
  return item.kind === 'question' ? { ...item, skips } : item;
}

/** Consent, then screening, then the rest. */
export function studyOf(
  title: string,
  screening: readonly Item[],
  topics: readonly Section[],
  rest: Partial<Questionnaire> = {},
): Questionnaire {
  const consent = ask('agree', single(2), { skips: [{ if: 'agree = 2', to: { ending: 'declined' } }] });
  return {
    ...emptyQuestionnaire(title),
    sections: [
      { id: 'consent', title: 'Consent', kind: 'consent', items: [consent] },
      { id: 'screen', title: 'Screening', kind: 'screening', items: screening },
      ...topics,
    ],
    ...rest,
  };
}
