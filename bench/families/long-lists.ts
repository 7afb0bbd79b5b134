/** Long lists: of thirty options many can be picked, which gate blocks, and each that is picked has its own pass. */
import type { Questionnaire, Section } from '../../src/core/document/types';
import { ask, askIf, Die, multiple, single, studyOf, topic } from './maker';

const OPTIONS = 30;
const BLOCKS = 6;
const PASSES = 5;

/** `lists`: so many of them, each with its blocks and its passes. */
export function longLists(lists: number, seed: number): Questionnaire {
  const die = new Die(seed);
  const sections = Array.from({ length: lists }, (_, n): Section[] => {
    const list = `list${n}`;
    const has = () => `${list} has ${die.int(1, OPTIONS)}`;
    const condition = () =>
      die.of([has, () => `${has()} and not ${has()}`, () => `count(${list}) >= ${die.int(2, 5)}`])();
    return [
      topic(`lists${n}`, [ask(list, multiple(OPTIONS))]),
      ...Array.from({ length: BLOCKS }, (_, b) =>
        topic(
          `block${n}of${b}`,
          [
            ask(`b${n}q${b}`, single(3)),
            askIf(`b${n}r${b}`, single(3), has()),
            askIf(`b${n}s${b}`, single(2), `b${n}q${b} = 1`),
          ],
          { askIf: condition() },
        ),
      ),
      topic(`each${n}`, [ask(`e${n}`, single(2)), askIf(`e${n}why`, single(3), `e${n} = 1`)], {
        repeat: { each: list, max: PASSES },
      }),
    ];
  });
  return studyOf(`${lists} lists of ${OPTIONS}`, [ask('home', single(3))], sections.flat());
}
