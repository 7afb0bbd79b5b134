/** A roster: everybody of a household, asked fifteen questions by who they are. */
import type { Item, Questionnaire } from '../../src/core/document/types';
import { ask, askIf, Die, number, single, studyOf, topic } from './maker';

const QUESTIONS = 15;

/** `people`: passes at most. */
export function roster(people: number, seed: number): Questionnaire {
  const die = new Die(seed);
  const who: Item[] = [
    ask('relation', single(5)),
    ask('their_age', number(0, 110)),
    askIf('their_work', single(4), 'their_age >= 16'),
  ];
  const tests = [
    ...['their_age < 5', 'their_age in (5..15)', 'their_age >= 16', 'their_age >= 65'],
    ...['relation = 1', 'relation in (2, 3)', 'their_work = 1', 'their_work in (2, 3)', 'home = 2'],
  ];
  const rest = Array.from({ length: QUESTIONS - who.length }, (_, n) => {
    const both = die.chance(0.3) ? `${die.of(tests)} and ${die.of(tests)}` : die.of(tests);
    return askIf(`about${n}`, single(die.int(2, 4)), both);
  });
  return studyOf(
    `${people} people`,
    [ask('home', single(3)), ask('how_many', number(0, people))],
    [
      topic('roster', [...who, ...rest], { repeat: { times: 'how_many', max: people } }),
      topic('after', [
        askIf('shares', single(2), 'how_many >= 2'),
        askIf('alone', single(2), 'how_many = 1'),
      ]),
    ],
  );
}
