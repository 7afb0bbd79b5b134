/**
 * Small random questionnaires that use every feature the routing depends on, the same one for a seed.
 *
 * Value ranges are kept tiny so that every combination of answers can be tried.
 */
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import type {
  Answer,
  Derived,
  Given,
  Item,
  Onward,
  Option,
  Question,
  Questionnaire,
  Quota,
  Section,
  Skip,
  Target,
} from '../../src/core/document/types';
import { ask, questionnaire, say, section } from '../support/questionnaire';

export function randomDocument(seed: number): Questionnaire {
  return new Generator(seed, false).document();
}

/** More sections with less in each, so that some have to do with each other and others have not. */
export function randomChain(seed: number): Questionnaire {
  return new Generator(seed, true).document();
}

interface Known {
  readonly name: string;
  readonly answer: Answer;
  /** Index of the repeated section it stands in; -1 elsewhere. */
  readonly repeated: number;
  readonly derived?: boolean;
}

class Generator {
  private readonly random;
  private known: Known[] = [];
  private count = 0;

  constructor(
    seed: number,
    private readonly chain: boolean,
  ) {
    this.random = xoroshiro128plus(seed);
  }

  document(): Questionnaire {
    const given: Given[] = this.chance(0.2)
      ? [{ name: 'given1', label: 'Given', answer: this.simpleAnswer(), random: this.chance(0.5) }]
      : [];
    for (const { name, answer } of given) this.known.push({ name, answer, repeated: -1 });
    const count = this.chain ? this.int(4, 7) : this.int(1, 3);
    const sections: Section[] = [];
    let derived: Derived[] = [];
    for (let s = 0; s < count; s += 1) {
      sections.push(this.section(s));
      if (s === 0 && this.chance(0.4)) derived = this.derived();
    }
    const laterTargets = this.addJumps(sections);
    const quotas = this.quota(laterTargets);
    const messages = this.chance(0.3)
      ? [{ if: this.condition(-1, 1), text: 'One.' }, ...(this.chance(0.5) ? [{ text: 'Other.' }] : [])]
      : [{ text: 'Thank you.' }];
    return questionnaire(laterTargets, {
      endings: [
        { id: 'done', kind: 'complete', messages },
        { id: 'out', kind: 'screened_out', messages: [{ text: 'Goodbye.' }] },
      ],
      ...(given.length > 0 ? { given } : {}),
      ...(derived.length > 0 ? { derived } : {}),
      ...(quotas.length > 0 ? { quotas } : {}),
    });
  }

  private int(from: number, to: number): number {
    return uniformInt(this.random, from, to);
  }

  private chance(share: number): boolean {
    return this.int(0, 999) < share * 1000;
  }

  private pick<T>(from: readonly T[]): T {
    return from[this.int(0, from.length - 1)] as T;
  }

  private options(count: number, rich: boolean): Option[] {
    return Array.from({ length: count }, (_, index) => ({
      code: index + 1,
      label: `Option ${index + 1}`,
      ...(rich && index === count - 1 && this.chance(0.3)
        ? this.chance(0.5)
          ? { exclusive: true }
          : { missing: 'dont_know' as const }
        : {}),
      ...(rich && this.chance(0.15) ? { askIf: this.condition(-1, 1) } : {}),
    }));
  }

  private simpleAnswer(): Answer {
    return this.chance(0.5)
      ? { type: 'single', options: this.options(2, false) }
      : { type: 'number', min: 0, max: 2 };
  }

  private answer(): Answer {
    if (this.chain && this.chance(0.8))
      return { type: 'single', options: this.options(this.chance(0.8) ? 2 : 3, false) };
    switch (this.int(0, 9)) {
      case 0:
      case 1:
        return {
          type: 'number',
          min: 0,
          max: 2,
          ...(this.chance(0.3)
            ? { specials: [{ code: 9, label: 'DK', missing: 'dont_know' as const }] }
            : {}),
        };
      case 2:
        return {
          type: 'multiple',
          options: this.options(this.int(2, 3), true),
          ...(this.chance(0.3) ? { minPicks: 2 } : {}),
          ...(this.chance(0.3) ? { maxPicks: 2 } : {}),
        };
      case 3:
        return { type: 'scale', min: 1, max: 3 };
      case 4:
        return { type: 'rank', options: this.options(2, false), top: this.int(1, 2) };
      case 5:
        return { type: 'text', maxLength: 1 };
      case 6:
        return { type: 'date', min: '2024-01-01', max: '2024-01-02' };
      case 7: {
        const row = (r: number) => ({
          name: `q${this.count}_r${r}`,
          label: 'Row',
          ...(this.chance(0.2) ? { askIf: this.condition(-1, 1) } : {}),
        });
        return {
          type: 'grid',
          rows: [row(1), row(2)],
          options: this.options(2, false),
          ...(this.chance(0.2) ? { pick: 'many' as const } : {}),
        };
      }
      default:
        return { type: 'single', options: this.options(this.int(2, 3), true) };
    }
  }

  private section(s: number): Section {
    const id = `s${s}`;
    const gate = this.chance(0.3) ? { askIf: this.condition(-1, 2) } : {};
    const kind = this.chance(0.25) ? 'draw' : this.chance(0.15) ? 'shuffle' : 'plain';
    const drivers = this.known.filter(
      ({ answer, repeated, derived }) =>
        !derived && repeated < 0 && (answer.type === 'multiple' || answer.type === 'number'),
    );
    const driver = drivers.length > 0 && this.chance(0.5) ? this.pick(drivers) : null;
    const repeat =
      driver === null
        ? undefined
        : driver.answer.type === 'multiple'
          ? { each: driver.name, max: 2 }
          : { times: driver.name, max: this.int(1, 2) };
    const home = repeat === undefined ? -1 : s;
    const before = [...this.known];
    const items: Item[] = [];
    const size = this.int(1, repeat !== undefined || this.chain ? 2 : 3);
    for (let i = 0; i < size; i += 1) {
      this.count += 1;
      const name = `q${this.count}`;
      if (kind === 'shuffle') this.known = [...before];
      const askIf =
        kind !== 'draw' && this.chance(this.chain ? 0.5 : 0.35) ? { askIf: this.condition(home, 2) } : {};
      if (this.chance(0.12)) {
        items.push(say(name, askIf));
        continue;
      }
      const answer = this.answer();
      const question: Question = {
        ...ask(name, answer),
        ...askIf,
        ...(this.chain || this.chance(0.6) ? { required: true } : {}),
      };
      if (answer.type === 'grid') {
        const row: Answer =
          answer.pick === 'many'
            ? { type: 'multiple', options: answer.options }
            : { type: 'single', options: answer.options };
        for (const { name: r } of answer.rows) this.known.push({ name: r, answer: row, repeated: home });
        this.known.push({ name, answer, repeated: home });
      } else {
        this.known.push({ name, answer, repeated: home });
      }
      const checks = this.chance(0.12)
        ? { checks: [{ if: this.test(home), kind: 'hard' as const, message: 'No.' }] }
        : {};
      items.push({ ...question, ...checks });
    }
    if (kind === 'shuffle') {
      this.known = [
        ...before,
        ...items.flatMap((item) =>
          item.kind === 'question' ? [{ name: item.name, answer: item.answer, repeated: home }] : [],
        ),
      ];
    }
    const questions = items.filter((item) => item.kind === 'question').length;
    return section(id, items, {
      ...gate,
      ...(repeat === undefined ? {} : { repeat }),
      ...(kind === 'draw' && questions > 0 ? { draw: this.int(1, questions) } : {}),
      ...(kind === 'shuffle' ? { shuffle: true } : {}),
    });
  }

  /** Skips and onwards, once all places are known. Some are refused as bad targets: that is walked too. */
  private addJumps(sections: readonly Section[]): Section[] {
    const names = sections.flatMap(({ items }) =>
      items.flatMap((item) => (item.kind === 'page_break' ? [] : [item.name])),
    );
    const target = (): Target => {
      const roll = this.int(0, 9);
      if (roll < 3) return { ending: this.pick(['done', 'out']) };
      if (roll < 6) return { section: this.pick(sections).id };
      return roll < 9 ? { item: this.pick(names) } : { nextPass: true };
    };
    const known = this.known;
    return sections.map((of, s) => {
      const home = of.repeat === undefined ? -1 : s;
      const upTo = (name: string) => known.slice(0, known.findIndex((k) => k.name === name) + 1);
      const items = of.items.map((item): Item => {
        if (
          item.kind === 'page_break' ||
          of.draw !== undefined ||
          of.shuffle ||
          !this.chance(this.chain ? 0.15 : 0.35)
        )
          return item;
        this.known = item.kind === 'question' ? upTo(item.name) : known;
        const skips: Skip[] = Array.from({ length: this.int(1, 2) }, () => ({
          ...(this.chance(0.9) ? { if: this.condition(home, 2) } : {}),
          to: target(),
        }));
        return { ...item, skips };
      });
      this.known = known;
      const onward: Onward[] = Array.from({ length: this.int(0, 2) }, () => ({
        ...(this.chance(0.7) ? { if: this.condition(-1, 2) } : {}),
        to: target(),
      }));
      return {
        ...of,
        items,
        ...(onward.length > 0 && this.chance(this.chain ? 0.15 : 0.4) ? { onward } : {}),
      };
    });
  }

  private quota(sections: readonly Section[]): Quota[] {
    const at = sections.flatMap(({ items, repeat, draw, shuffle }) =>
      repeat || draw || shuffle ? [] : items.flatMap((item) => (item.kind === 'question' ? [item.name] : [])),
    )[0];
    if (at === undefined || !this.chance(0.25)) return [];
    return [{ id: 'quota1', label: 'Quota', if: `${at} asked`, target: 5, at, to: { ending: 'out' } }];
  }

  private derived(): Derived[] {
    const derived: Derived = this.chance(0.5)
      ? {
          name: 'derived1',
          label: 'Cases',
          cases: [{ if: this.condition(-1, 1), code: 1, label: 'One' }],
          ...(this.chance(0.5) ? { else: { code: 2, label: 'Other' } } : {}),
        }
      : { name: 'derived1', label: 'Sum', value: `(${this.operand()} + 1) * 2` };
    this.known.push({
      name: 'derived1',
      answer: { type: 'number', min: 0, max: 6 },
      repeated: -1,
      derived: true,
    });
    return [derived];
  }

  private operand(): string {
    const numbers = this.known.filter(
      ({ answer, repeated }) =>
        repeated < 0 && (answer.type === 'number' || answer.type === 'scale' || answer.type === 'single'),
    );
    return numbers.length === 0 ? '1' : this.pick(numbers).name;
  }

  private condition(home: number, depth: number): string {
    if (depth === 0 || this.chance(0.6)) return this.test(home);
    const [a, b] = [this.condition(home, depth - 1), this.condition(home, depth - 1)];
    return this.pick([`${a} and ${b}`, `(${a} or ${b})`, `not (${a})`]);
  }

  private test(home: number): string {
    if (home >= 0 && this.chance(0.2)) return `pass ${this.pick(['=', '>'])} 1`;
    const visible = this.known.filter(({ repeated }) => repeated < 0 || repeated === home);
    const outside = this.known.filter(
      ({ repeated, answer }) => repeated >= 0 && repeated !== home && answer.type !== 'grid',
    );
    if (outside.length > 0 && this.chance(0.4)) {
      const { name } = this.pick(outside);
      return `count(${this.pick([`${name} answered`, `not (${name} asked)`, `${name} unanswered`])}) ${this.pick(['>=', '='])} ${this.int(0, 2)}`;
    }
    if (visible.length === 0) return this.chance(0.5) ? 'always' : 'never';
    const known = this.pick(visible);
    const { name, answer } = known;
    if (!known.derived && this.chance(0.2))
      return `${name} ${this.pick(['answered', 'unanswered', 'asked', 'not asked'])}`;
    switch (answer.type) {
      case 'single':
      case 'number':
      case 'scale': {
        if (this.chance(0.15)) return `${name} ${this.pick(['<', '=', '>='])} ${this.operand()}`;
        const code = answer.type === 'single' ? this.pick(answer.options).code : this.int(0, 2);
        if (known.derived) return `${name} ${this.pick(['=', '<>', '>='])} ${'2'}`;
        return this.pick([
          `${name} = ${code}`,
          `${name} <> ${code}`,
          `${name} >= ${code}`,
          `${name} in (${code}..${code + 1})`,
          `${name} not in (${code})`,
        ]);
      }
      case 'multiple':
      case 'rank': {
        const code = this.pick(answer.options).code;
        return this.pick([
          `${name} has ${code}`,
          `${name} has none (${code})`,
          `${name} has all (${answer.options.map((o) => o.code).join(', ')})`,
          `count(${name}) >= 2`,
        ]);
      }
      case 'text':
        return this.pick([`${name} = 'a'`, `${name} <> 'a'`]);
      case 'date':
        return this.pick([`${name} = 2024-01-01`, `${name} > 2024-01-01`]);
      default:
        return `${name} answered`;
    }
  }
}
