/** Respondents walked and coded: by the product, and by the same rules as JsonLogic, evaluated item by item. */
import { QuickCoder } from '../src/core/coding/quick-row';
import type { Plan } from '../src/core/routing/plan';
import { Runner } from '../src/core/routing/runner';
import { madeUpRespondents } from '../src/core/simulate/respondents';
import { jsonLogicWalker } from './json-logic';
import { timed } from './timing';

export interface Speeds {
  readonly people: number;
  readonly presented: number;
  /** A second, on one core. */
  readonly ours: number;
  readonly jsonLogic: number;
  /** Made up as well. */
  readonly madeUp: number;
}

/** So fast that all are walked as often as this for one time taken. */
const ROUNDS = 30;
const MADE_UP = 20_000;

export async function walkingSpeeds(plan: Plan): Promise<Speeds> {
  const people = [...madeUpRespondents(plan, 2000, 1)].filter(({ presented }) => presented.length > 20);
  const presented = people.reduce((sum, of) => sum + of.presented.length, 0) / people.length;

  const runner = new Runner(plan);
  const coder = new QuickCoder(plan, runner);
  const answered = people.map(({ answers }) => ({
    slots: Int32Array.from(Object.keys(answers), (key) => runner.slots.get(key.toLowerCase()) ?? -1),
    values: Object.values(answers),
  }));
  const respondent = { isDrawn: () => true };
  let cells = 0;
  const ours = await timed(() => {
    for (let round = 0; round < ROUNDS; round += 1)
      for (const { slots, values } of answered) {
        runner.clear();
        for (let n = 0; n < slots.length; n += 1) runner.put(slots[n] ?? -1, values[n] ?? null);
        cells += coder.row(runner.run(respondent)).length;
      }
  });

  const walker = jsonLogicWalker(plan);
  for (const { answers, presented: expected } of people.slice(0, 200)) {
    const found = walker(answers).presented;
    if (found.join() !== expected.join()) throw new Error('JsonLogic walks another way');
  }
  const theirs = await timed(() => {
    for (const { answers } of people) cells += walker(answers).row.length;
  });
  const made = await timed(() => {
    for (const person of madeUpRespondents(plan, MADE_UP, 1)) cells += person.row().length;
  });
  if (cells === 0) throw new Error('nothing was coded');
  const perSecond = (ms: number) => (people.length * 1000) / ms;
  return {
    people: people.length,
    presented,
    ours: ROUNDS * perSecond(ours.ms),
    jsonLogic: perSecond(theirs.ms),
    madeUp: (MADE_UP * 1000) / made.ms,
  };
}
