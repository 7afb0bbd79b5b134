/** Small random questionnaires that steer by a question with more options than sets of picks are listed for. */
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import type { Option, Questionnaire } from '../../src/core/document/types';
import { ask, questionnaire, section } from '../support/questionnaire';

/** Brute force tries every set of so many of them, which is why there are at most two picks. */
const OPTIONS = 11;

export function randomManyOptions(seed: number): Questionnaire {
  const random = xoroshiro128plus(seed);
  const int = (from: number, to: number) => uniformInt(random, from, to);
  const chance = (of: number) => int(1, of) === 1;
  const code = () => int(1, OPTIONS + 1);
  const test = (): string => {
    switch (int(0, 6)) {
      case 0:
        return `m ${['answered', 'unanswered', 'asked', 'not asked'][int(0, 3)]}`;
      case 1:
        return `count(m) ${['>=', '=', '<>', '<'][int(0, 3)]} ${int(0, 2)}`;
      case 2:
        return `m has ${['any', 'all', 'none'][int(0, 2)]} (${code()}, ${code()})`;
      case 3:
        return `kind ${['=', '>='][int(0, 1)]} ${int(1, 2)}`;
      default:
        return `m has ${code()}`;
    }
  };
  const condition = () =>
    [test(), `${test()} and ${test()}`, `not (${test()}) or f = 1`][int(0, 2)] as string;
  const options = Array.from({ length: OPTIONS }, (_, n): Option => ({
    code: n + 1,
    label: `Option ${n + 1}`,
    // So that every option is told apart, whether or not a condition names it.
    askIf: n % 4 === 0 ? 'f = 1' : 'always',
    ...(n === OPTIONS - 1 ? (chance(2) ? { exclusive: true } : { missing: 'dont_know' as const }) : {}),
  }));
  const repeat = chance(3);
  return questionnaire(
    [
      section('a', [
        ask('f', 2, { required: true }),
        ask(
          'm',
          { type: 'multiple', options, maxPicks: 2, ...(chance(2) ? { minPicks: 2 } : {}) },
          { ...(chance(2) ? { required: true } : {}), ...(chance(3) ? { askIf: 'f = 2' } : {}) },
        ),
      ]),
      section('b', [ask('x', 2, { askIf: repeat && chance(2) ? `each > ${code()}` : condition() })], {
        ...(repeat ? { repeat: { each: 'm', max: int(1, 2) } } : { askIf: condition() }),
      }),
      section('c', [
        ask('y', 2, { askIf: condition(), skips: [{ if: condition(), to: { ending: 'out' } }] }),
      ]),
    ],
    {
      derived: [
        {
          name: 'kind',
          label: 'Kind',
          cases: [{ if: `m has ${code()}`, code: 1, label: 'One' }],
          else: { code: 2, label: 'Two' },
        },
      ],
    },
  );
}

/** Ten options of which four can be picked, and who is asked depends on how many are. */
export function randomCounts(seed: number): Questionnaire {
  const random = xoroshiro128plus(seed);
  const int = (from: number, to: number) => uniformInt(random, from, to);
  const test = (): string =>
    [
      `count(m) ${['>=', '<=', '=', '>', '<', '<>'][int(0, 5)]} ${int(1, 5)}`,
      `m has ${int(1, 10)}`,
      `not m has ${int(1, 10)}`,
      'f = 1',
    ][int(0, 3)] as string;
  const condition = () =>
    [
      test,
      () => `${test()} and ${test()}`,
      () => `${test()} or ${test()}`,
      () => `not (${test()} or ${test()})`,
    ][int(0, 3)]?.() as string;
  const options = Array.from({ length: 10 }, (_, n): Option => ({
    code: n + 1,
    label: `Option ${n + 1}`,
    // So that every option is told apart, whether or not a condition names it.
    askIf: n % 3 === 0 ? 'f = 1' : 'always',
    ...(n === 9 && int(1, 3) === 1 ? { exclusive: true } : {}),
  }));
  return questionnaire([
    section('a', [ask('f', 2, { required: true }), ask('m', { type: 'multiple', options, maxPicks: 4 })]),
    section('b', [ask('x', 2, { askIf: condition() })]),
    section('c', [ask('y', 2, { askIf: condition(), skips: [{ if: condition(), to: { ending: 'out' } }] })]),
  ]);
}
