/**
 * Dense in ask-ifs: sections of eight items, three of four with an ask-if, half of those on what was picked nearby; age, tenure,
 * cars and children read all over, work status before nine sections, a dozen skips, and six passes with follow-ups.
 */
import type { Item, Questionnaire, Section } from '../../src/core/document/types';
import { ask, askIf, Die, multiple, number, single, studyOf, topic, withSkips } from './maker';

const SECTION = 8;
const PASSES = 6;
/** Of 300 items and more; of fewer as many fewer. */
const READ = { age: 19, tenure: 14, cars: 8, children: 7 } as const;
const GATED = 9;
const SKIPS = 12;
const WHOLE = 300;

export function dense(items: number, seed: number): Questionnaire {
  const die = new Die(seed);
  const part = Math.min(1, items / WHOLE);
  const topics = Math.max(3, Math.round((items - 10) / SECTION));
  const far = farTests(die, part);
  // Where a far driver is read: some of the places that have an ask-if, spread over all of the questionnaire.
  const places = die.some(
    Array.from({ length: topics * SECTION }, (_, n) => n).filter((n) => n % SECTION > 1),
    far.length,
  );
  const farAt = new Map(places.map((place, n) => [place, far[n] as string]));
  const gated = new Set(die.some([...Array(topics).keys()].slice(1), Math.round(GATED * part)));
  const skipping = new Set(die.some([...Array(topics - 1).keys()], Math.round(SKIPS * part)));
  const sections: Section[] = [];
  let before: string[] = [];
  for (let s = 0; s < topics; s += 1) {
    const section: Item[] = [];
    const picks = `s${s}picks`;
    const count = die.int(5, 8);
    const near = Array.from({ length: count }, (_, n) => `${picks} has ${n + 1}`);
    section.push(ask(picks, multiple(count)));
    const singles: string[] = [];
    for (let n = 1; n < SECTION; n += 1) {
      const name = `s${s}q${n}`;
      const asFar = farAt.get(s * SECTION + n);
      // Three of four: one of the eight is the multiple, and one more is asked of everybody.
      const condition =
        n === 1 ? null : (asFar ?? (die.chance(0.62) ? die.of([...near, ...before]) : oneOf(die, singles)));
      section.push(askIf(name, single(3), condition));
      singles.push(name);
    }
    if (skipping.has(s)) {
      const target = `topic${die.int(s + 1, Math.min(topics - 1, s + 4))}`;
      section[1] = withSkips(section[1] as Item, [
        { if: `s${s}q1 = ${die.int(1, 3)}`, to: { section: target } },
      ]);
    }
    before = near;
    sections.push(
      topic(
        `topic${s}`,
        section,
        gated.has(s) ? { askIf: `work in (${die.some([1, 2, 3, 4, 5], 2).join(', ')})` } : {},
      ),
    );
  }
  sections.splice(Math.floor(topics / 2), 0, ...passes());
  return studyOf(`${items} items, dense`, screening(), sections);
}

function screening(): Item[] {
  return [
    ask('age', number(0, 110), { skips: [{ if: 'age < 16', to: { ending: 'screened_out' } }] }),
    ask('tenure', single(4)),
    ask('cars', number(0, 9)),
    ask('children', number(0, 9)),
    ask('work', single(5)),
  ];
}

function oneOf(die: Die, singles: readonly string[]): string {
  return `${die.of(singles)} = ${die.int(1, 3)}`;
}

function farTests(die: Die, part: number): string[] {
  const times = (count: number, test: () => string) => Array.from({ length: Math.round(count * part) }, test);
  return [
    ...times(READ.age, () => {
      const from = die.of([18, 25, 35, 45, 55, 65, 75]);
      return die.chance(0.5) ? `age >= ${from}` : `age in (${from}..${from + die.of([9, 19, 29])})`;
    }),
    ...times(READ.tenure, () => `tenure in (${die.some([1, 2, 3, 4], die.int(1, 2)).join(', ')})`),
    ...times(READ.cars, () => `cars >= ${die.int(1, 3)}`),
    ...times(READ.children, () => `children ${die.of(['= 0', '>= 1', '>= 2'])}`),
  ];
}

function passes(): Section[] {
  return [
    topic('people_in', [ask('people', number(0, PASSES))]),
    topic(
      'people_of',
      [
        ask('grown', single(2)),
        askIf('earns', single(3), 'grown = 1'),
        askIf('how_much', single(4), 'earns in (1, 2)'),
      ],
      { repeat: { times: 'people', max: PASSES } },
    ),
  ];
}
