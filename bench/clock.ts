/**
 * How fast the machine is just now. Targets in milliseconds belong to the machine on which they were set, others and the same
 * an hour later are two to three times as slow; so every figure is kept with the clock by which it was measured.
 */
import { planOf } from '../src/core/routing/planner';
import { madeUpRespondents } from '../src/core/simulate/respondents';
import { generate } from './generate';
import { jsonLogicWalker } from './json-logic';
import { timed } from './timing';

/**
 * Respondents a second that json-logic-js 2.0.5 walked by the rules of 120 items on the machine whose times the targets were
 * set from: in docs/performance.md on 2026-11-25, beside the count of 300 items in 40 ms. A package that stays as it is and
 * that nothing of ours makes faster.
 */
const SET_BY = 10_638;

/** The median of some seconds: from one to the next the clock swings by a third. */
const RUNS = 15;

/** How many times slower the machine walks the same with the same package now. */
export async function clock(): Promise<number> {
  const plan = planOf(generate({ items: 120, longRange: 3 }));
  const people = [...madeUpRespondents(plan, 2000, 1)].filter(({ presented }) => presented.length > 20);
  const walker = jsonLogicWalker(plan);
  let presented = 0;
  const { ms } = await timed(() => {
    for (const { answers } of people) presented += walker(answers).presented.length;
  }, RUNS);
  if (presented === 0) throw new Error('nobody was presented anything');
  return SET_BY / ((people.length * 1000) / ms);
}
