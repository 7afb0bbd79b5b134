/** Respondents walked and coded: by the product, and by the same rules as JsonLogic, evaluated item by item. */
import jsonLogic from 'json-logic-js';
import { QuickCoder } from '../src/core/coding/quick-row';
import type { Condition } from '../src/core/condition/syntax';
import { passKey } from '../src/core/document/addresses';
import type { Value } from '../src/core/document/types';
import type { Plan, PlanTarget } from '../src/core/routing/plan';
import { Runner } from '../src/core/routing/runner';
import { madeUpRespondents } from '../src/core/simulate/respondents';
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

type Answers = Readonly<Record<string, Value | null>>;

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

interface Rule {
  readonly key: string;
  readonly askIf: unknown;
  readonly skips: readonly { readonly when: unknown; readonly to: PlanTarget }[];
}

/** Of questionnaires as `generate.ts` makes them. */
function jsonLogicWalker(plan: Plan) {
  const sections = plan.sections.map(({ index, items, repeat, gate }) => ({
    gate: gate === null ? true : rule(gate, (name) => name),
    times: repeat?.driver?.name ?? null,
    passes: Array.from({ length: repeat?.max ?? 1 }, (_, n) =>
      items.map(({ item, askIf, skips }): Rule => {
        const pass = repeat === null ? null : n + 1;
        const own = (name: string) => {
          const variable = plan.variables.get(name.toLowerCase());
          return variable?.of === 'question' && variable.section === index ? passKey(name, pass) : name;
        };
        return {
          key: passKey(item.name, pass),
          askIf: askIf === null ? true : rule(askIf, own),
          skips: skips.map(({ if: when, to }) => ({ when: when === null ? true : rule(when, own), to })),
        };
      }),
    ),
  }));
  const keys = sections.flatMap(({ passes }) => passes.flatMap((items) => items.map(({ key }) => key)));
  return (answers: Answers) => {
    const data: Record<string, Value | null> = {};
    const presented: string[] = [];
    for (let s = 0; s < sections.length; s += 1) {
      const { gate, times, passes } = sections[s] as (typeof sections)[number];
      if (!jsonLogic.apply(gate, data)) continue;
      const count = times === null ? 1 : Math.min(passes.length, Number(data[times] ?? 0));
      let to: PlanTarget | null = null;
      for (let pass = 0; pass < count && to === null; pass += 1) {
        for (const { key, askIf, skips } of passes[pass] ?? []) {
          if (!jsonLogic.apply(askIf, data)) continue;
          presented.push(key);
          data[key] = answers[key] ?? null;
          to = skips.find(({ when }) => jsonLogic.apply(when, data))?.to ?? null;
          if (to !== null) break;
        }
      }
      if (to?.to === 'ending') break;
      if (to?.to === 'section') s = to.section - 1;
    }
    return { presented, row: keys.map((key) => data[key] ?? (key in data ? -3 : -1)) };
  };
}

function rule(node: Condition, own: (name: string) => string): unknown {
  const answered = (name: string, test: unknown) => ({ and: [{ '!==': [{ var: own(name) }, null] }, test] });
  switch (node.kind) {
    case 'and':
    case 'or':
      return { [node.kind]: node.parts.map((part) => rule(part, own)) };
    case 'not':
      return { '!': rule(node.part, own) };
    case 'compare': {
      if (node.left.kind !== 'name' || node.right.kind !== 'number') break;
      const { name } = node.left;
      const operator = node.operator === '=' ? '===' : node.operator === '<>' ? '!==' : node.operator;
      return answered(name, { [operator]: [{ var: own(name) }, node.right.value] });
    }
    case 'in':
      return answered(node.name.name, {
        or: node.members.map((member) => {
          const value = { var: own(node.name.name) };
          if (member.kind !== 'range') return { '===': [value, member.value] };
          return { '<=': [member.from.value, value, member.to.value] };
        }),
      });
    case 'has':
      return { or: node.values.map(({ value }) => ({ in: [value, { var: own(node.name.name) }] })) };
    default:
      break;
  }
  throw new Error(`no JsonLogic for ${node.kind}`);
}
