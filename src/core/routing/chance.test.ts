/** Chance: what is drawn at two places is independent, however alike the places are called; every value as likely as another. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { allotted } from '../responding/blocks';
import { generatorFor, hash } from './chance';
import { drawGiven, drawQuestions } from './draws';
import { shuffledIndices } from './shuffle';

const WALKS = 20_000;
const VALUES = 6;

/**
 * How far the values of two draws are from being independent and each as likely as another: Pearson's chi-square over the table
 * of both, by its degrees of freedom; 1 on average where they are (standard deviation: the root of 2 / 35).
 */
function dependence(draw: (walk: number) => readonly [number, number]): number {
  const table = new Array<number>(VALUES * VALUES).fill(0);
  for (let walk = 1; walk <= WALKS; walk += 1) {
    const [one, other] = draw(walk);
    const at = one * VALUES + other;
    table[at] = (table[at] ?? 0) + 1;
  }
  const expected = WALKS / table.length;
  const chiSquare = table.reduce((sum, count) => sum + (count - expected) ** 2 / expected, 0);
  return chiSquare / (table.length - 1);
}

/** Five standard deviations over. */
const FAR = 1 + 5 * Math.sqrt(2 / 35);
const options = Array.from({ length: VALUES }, (_, n) => ({ code: n, label: `Arm ${n}` }));
const arm = (name: string) => ({
  name,
  label: name,
  answer: { type: 'single' as const, options },
  random: true as const,
});
const level = (name: string) => ({
  ...arm(name),
  answer: { type: 'number' as const, min: 0, max: VALUES - 1 },
});
const pools = planFor(
  questionnaire(
    ['a', 'b', 'kin'].map((id) =>
      section(
        id,
        options.map(({ code }) => ask(`${id}_${code}`)),
        { draw: 1, ...(id === 'kin' ? { repeat: { times: 'people', max: 2 } } : {}) },
      ),
    ),
    { given: [{ name: 'people', label: 'People', answer: { type: 'number', min: 0, max: 2 } }] },
  ),
);
const drawn = (at: number, pass: number, seed: number) =>
  [...drawQuestions(pools.sections[at] as (typeof pools.sections)[number], pass, seed)][0] ?? -1;

describe('what is drawn at two places is independent', () => {
  const draws: readonly (readonly [what: string, draw: (walk: number) => readonly [number, number]])[] = [
    [
      'two arms',
      (walk) => [drawGiven(arm('arm_a'), walk), drawGiven(arm('arm_b'), walk)] as [number, number],
    ],
    [
      'two numbers',
      (walk) => [drawGiven(level('low'), walk), drawGiven(level('high'), walk)] as [number, number],
    ],
    [
      'an arm and a number',
      (walk) => [drawGiven(arm('a'), walk), drawGiven(level('b'), walk)] as [number, number],
    ],
    ['the questions of two sections', (walk) => [drawn(0, 1, walk), drawn(1, 1, walk)]],
    ['the questions of two passes', (walk) => [drawn(2, 1, walk), drawn(2, 2, walk)]],
    [
      'an arm and the question of a section',
      (walk) => [Number(drawGiven(arm('arm'), walk)), drawn(0, 1, walk)],
    ],
    [
      'what comes first in two places',
      (walk) => [shuffledIndices(VALUES, walk, 'q1')[0] ?? -1, shuffledIndices(VALUES, walk, 'q2')[0] ?? -1],
    ],
    [
      'one arm in two walks',
      (walk) => [drawGiven(arm('a'), walk), drawGiven(arm('a'), walk + 1)] as [number, number],
    ],
    [
      'two arms that are balanced',
      (walk) => [allotted(arm('arm_a'), 7, walk), allotted(arm('arm_b'), 7, walk)] as [number, number],
    ],
    [
      'one arm in two blocks',
      (walk) => [allotted(arm('a'), 0, walk), allotted(arm('a'), 12, walk)] as [number, number],
    ],
    [
      'two draws of one generator',
      (walk) => {
        const random = generatorFor(walk, 'x');
        return [uniformInt(random, 0, VALUES - 1), Math.floor(VALUES * uniformFloat64(random))];
      },
    ],
    ['hashes of texts that end alike', (walk) => [hash(`${walk}/a`) % VALUES, hash(`${walk}/b`) % VALUES]],
  ];
  for (const [what, draw] of draws)
    it(what, () => {
      const far = dependence(draw);
      assert.ok(far < FAR, `${far.toFixed(2)} times what chance leaves`);
    });
});

it('responses begun before keep their draws, and nobody else has them', () => {
  const before = Array.from({ length: 12 }, (_, n) => uniformInt(generatorFor(-1 - n, 'arms'), 0, 9));
  assert.deepEqual(before, [6, 7, 8, 1, 6, 1, 8, 3, 6, 1, 9, 8]);
  const now = Array.from({ length: 12 }, (_, n) => uniformInt(generatorFor(n, 'arms'), 0, 9));
  assert.notDeepEqual(now, before);
});
