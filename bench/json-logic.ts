/** The rules of a questionnaire as JsonLogic, walked item by item: what other programs would make of them. */
import jsonLogic from 'json-logic-js';
import type { Condition } from '../src/core/condition/syntax';
import { passKey } from '../src/core/document/addresses';
import type { Value } from '../src/core/document/types';
import type { Plan, PlanTarget } from '../src/core/routing/plan';

type Answers = Readonly<Record<string, Value | null>>;

interface Rule {
  readonly key: string;
  readonly askIf: unknown;
  readonly skips: readonly { readonly when: unknown; readonly to: PlanTarget }[];
}

/** Of questionnaires as `generate.ts` makes them. */
export function jsonLogicWalker(plan: Plan) {
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
