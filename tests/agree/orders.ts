/** Small random questionnaires about numbers and dates that are compared with each other and added up. */
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import type { Answer, Questionnaire } from '../../src/core/document/types';
import { ask, questionnaire, section } from '../support/questionnaire';

export function randomOrders(seed: number): Questionnaire {
  const random = xoroshiro128plus(seed);
  const int = (from: number, to: number) => uniformInt(random, from, to);
  const pick = <T>(from: readonly T[]) => from[int(0, from.length - 1)] as T;
  const dates = int(0, 4) === 0;
  const answers: readonly Answer[] = dates
    ? [
        { type: 'date', min: '2024-01-01', max: '2024-01-02' },
        {
          type: 'date',
          min: '2023-12-31',
          max: '2024-01-03',
          specials: [{ code: 9, label: 'DK', missing: 'dont_know' }],
        },
      ]
    : [
        { type: 'number', min: 0, max: 6 },
        { type: 'number', min: -2, max: 3, specials: [{ code: 9, label: 'DK', missing: 'dont_know' }] },
        { type: 'number', min: 0, max: 1, decimals: 1 },
        { type: 'scale', min: 0, max: 6, step: 2 },
        { type: 'single', options: [1, 2, 4].map((code) => ({ code, label: `Answer ${code}` })) },
      ];
  const names = ['a', 'b', 'c'].slice(0, int(2, 3));
  const operator = () => pick(['<', '<=', '=', '<>', '>=', '>']);
  const literal = () => (dates ? pick(['2024-01-01', '2024-01-02']) : String(int(-1, 6)));
  const test = (): string => {
    const [one, other] = [pick(names), pick(names)];
    const roll = int(0, dates ? 4 : 9);
    if (roll < 3) return `${one} ${operator()} ${other}`;
    if (roll < 5) return `${one} ${operator()} ${literal()}`;
    if (roll < 7)
      return `${one} ${pick(['+', '-'])} ${pick(['', '2 * '])}${other} ${operator()} ${literal()}`;
    if (roll < 8) return `sum ${pick(['in', 'not in'])} (${int(0, 3)}..${int(3, 8)}, ${int(0, 9)})`;
    return `sum ${operator()} ${pick([literal(), one])}`;
  };
  const condition = () => pick([test(), test(), `${test()} and ${test()}`, `not (${test()}) or ${test()}`]);
  return questionnaire(
    [
      section(
        's',
        names.map((name) => ask(name, pick(answers), int(0, 3) === 0 ? {} : { required: true })),
      ),
      section('t', [
        ask('x', 2, { required: true, askIf: condition() }),
        ask('y', 2, { askIf: condition(), skips: [{ if: condition(), to: { ending: 'out' } }] }),
        ask('z', 2, { required: true, askIf: condition() }),
      ]),
    ],
    dates
      ? {}
      : {
          derived: [
            {
              name: 'sum',
              label: 'Sum',
              value: pick([`${names[0]} + 2`, `(${names[0]} - 1) * 2 + ${names[1]}`]),
            },
          ],
        },
  );
}
