/** Numbers held against numbers: who earns more than they spend, whether parts add up, which of two comes first. */
import type { Item, Questionnaire } from '../../src/core/document/types';
import { ask, askIf, Die, number, single, studyOf, topic } from './maker';

/** Numbers that are compared with one another, in each block. */
const NUMBERS = 4;
const MOST = 500;

/** `blocks`: of so many, each with numbers of its own, that of the first block being read in all of them. */
export function compared(blocks: number, seed: number): Questionnaire {
  const die = new Die(seed);
  const sections = Array.from({ length: blocks }, (_, b) => {
    const names = Array.from({ length: NUMBERS }, (_, n) => `b${b}n${n}`);
    const one = () => die.of(names);
    const test = () =>
      die.of([
        () => `${one()} > ${one()}`,
        () => `${one()} >= ${one()} + ${die.of([10, 50, 100])}`,
        () => `${one()} + ${one()} > ${die.of([100, 300, 600])}`,
        () => `${one()} < ${die.of([10, 100, 250])}`,
        () => `${one()} <= income`,
      ])();
    const items: Item[] = [
      ...names.map((name) => ask(name, number(0, MOST))),
      ...Array.from({ length: NUMBERS }, (_, n) => askIf(`b${b}q${n}`, single(2), test())),
    ];
    return topic(`block${b}`, items);
  });
  return studyOf(`${blocks} blocks of numbers`, [ask('income', number(0, MOST))], sections);
}
