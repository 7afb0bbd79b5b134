/** Answers that routes are asked for by: each a condition that reads one question and nothing else. */
import { parseCondition } from '../condition/parse';
import { conditionProblems } from '../condition/resolve';
import { eachName, type Condition } from '../condition/syntax';
import { rowsOf } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Plan, PlanItem } from '../routing/plan';

export type AnswerAsked =
  | { readonly ok: true; readonly item: string; readonly answers: Condition }
  /** A sentence on what is wrong with it. */
  | { readonly ok: false; readonly problem: string };

/** Reads a condition as an answer to the question it names. */
export function answerAsked(plan: Plan, text: string): AnswerAsked {
  const parsed = parseCondition(text);
  if (!parsed.ok) return { ok: false, problem: parsed.problem.message };
  const names = new Set<string>();
  eachName(parsed.tree, ({ name }) => names.add(name.toLowerCase()));
  const found = plan.sections
    .flatMap(({ items }) => items)
    .filter(
      ({ item }) => item.kind === 'question' && [...names].some((name) => variablesOf(item).includes(name)),
    );
  const [home] = found;
  if (
    home === undefined ||
    found.length > 1 ||
    ![...names].every((name) => variablesOf(home.item).includes(name))
  )
    return { ok: false, problem: 'name one question, and what is answered to it' };
  const section = plan.sections[home.section];
  const [problem] = conditionProblems(parsed.tree, {
    document: plan.document,
    variables: plan.variables,
    before: { section: home.section, item: home.place + 1 },
    openPass: section?.repeat == null ? null : home.section,
    inputsOf: () => [],
  });
  if (problem !== undefined) return { ok: false, problem: problem.message };
  return { ok: true, item: home.item.name, answers: parsed.tree };
}

/** What can be answered to a question, each with the condition it is asked for by; `others`: also what is on no list. */
export interface AnswersToAsk {
  readonly item: string;
  readonly answers: readonly { readonly text: string; readonly words: string }[];
  readonly others: boolean;
}

/** Question by question, in document order. */
export function answersToAsk({ sections }: Plan): AnswersToAsk[] {
  return sections.flatMap(({ items }) => items.flatMap(({ item }) => toAsk(item)));
}

function toAsk(item: PlanItem['item']): AnswersToAsk[] {
  if (item.kind !== 'question') return [];
  const { name, answer } = item;
  const listed = optionsOf(answer);
  const blank = item.required === true ? [] : [{ text: `${name} unanswered`, words: 'left blank' }];
  switch (answer.type) {
    case 'single':
      return [
        {
          item: name,
          answers: [
            ...listed.map(({ code, label }) => ({ text: `${name} = ${code}`, words: label })),
            ...blank,
          ],
          others: false,
        },
      ];
    case 'multiple':
      return [
        {
          item: name,
          answers: [
            ...listed.map(({ code, label }) => ({ text: `${name} has ${code}`, words: label })),
            ...blank,
          ],
          others: false,
        },
      ];
    case 'grid': {
      const test = answer.pick === 'many' ? 'has' : '=';
      const rows = answer.rows.flatMap((row) =>
        listed.map(({ code, label }) => ({
          text: `${row.name} ${test} ${code}`,
          words: `${row.label}: ${label}`,
        })),
      );
      return [{ item: name, answers: [...rows, ...blank], others: false }];
    }
    case 'rank':
      return [
        { item: name, answers: [{ text: `${name} answered`, words: 'ranked' }, ...blank], others: false },
      ];
    case 'text':
      return [
        { item: name, answers: [{ text: `${name} answered`, words: 'written' }, ...blank], others: false },
      ];
    case 'scale':
    case 'number':
    case 'date':
    case 'time':
    case 'datetime': {
      const specials = listed.map(({ code, label }) => ({ text: `${name} = ${code}`, words: label }));
      return [{ item: name, answers: [...specials, ...blank], others: true }];
    }
    default:
      return answer satisfies never;
  }
}

/** Names, in lower case, that a question's answers go by in conditions. */
function variablesOf(item: PlanItem['item']): string[] {
  if (item.kind !== 'question') return [];
  const rows = rowsOf(item.answer).map(({ name }) => name.toLowerCase());
  return [item.name.toLowerCase(), ...rows];
}
