/** Made to be hard: hard checks and quotas over ten answers that are read everywhere. */
import type { Check, Questionnaire, Quota } from '../../src/core/document/types';
import { emptyQuestionnaire } from '../../src/core/editing/structure';
import { ask, askIf, Die, single, studyOf, topic } from './maker';

const DRIVERS = 10;
const CODES = 3;
const CHECKS = 8;
const QUOTAS = 4;

/** `items` after the ten, each asked by two or three of them. */
export function hard(items: number, seed: number): Questionnaire {
  const die = new Die(seed);
  const names = Array.from({ length: DRIVERS }, (_, n) => `far${n}`);
  const test = (among: readonly string[]) => `${die.of(among)} = ${die.int(1, CODES)}`;
  const over = (among: readonly string[], count: number, word: string) =>
    die
      .some(among, count)
      .map((name) => `${name} = ${die.int(1, CODES)}`)
      .join(` ${word} `);
  // A check is about its own answer and some before it: those together cannot be.
  const checksOf = (n: number): Check[] =>
    n < 2 || n < DRIVERS - CHECKS
      ? []
      : [
          {
            if: `far${n} = ${die.int(1, CODES)} and ${over(names.slice(0, n), 2, 'and')}`,
            message: 'These cannot be together.',
            kind: 'hard',
          },
        ];
  const drivers = names.map((name, n) => {
    const checks = checksOf(n);
    return ask(name, single(CODES), checks.length === 0 ? {} : { checks });
  });
  const quotas = Array.from({ length: QUOTAS }, (_, n): Quota => ({
    id: `cell${n}`,
    label: `Cell ${n}`,
    at: names[DRIVERS - 1] as string,
    if: over(names, 2, 'and'),
    target: 100,
    to: { ending: 'full' },
  }));
  const questions = Array.from({ length: items }, (_, n) =>
    askIf(`q${n}`, single(2), die.chance(0.5) ? over(names, 2, 'or') : `${test(names)} and ${test(names)}`),
  );
  const sections = Array.from({ length: Math.ceil(items / 8) }, (_, s) =>
    topic(`topic${s}`, questions.slice(8 * s, 8 * s + 8)),
  );
  return studyOf(`${items} items, hard`, drivers, sections, {
    quotas,
    endings: [
      ...emptyQuestionnaire('').endings,
      { id: 'full', kind: 'quota_full', messages: [{ text: 'Thank you.' }] },
    ],
  });
}
