/** The fields of a paper form, in the order they are keyed: one for each variable and pass, text and remark. */
import { passKey } from '../document/addresses';
import { hasRows } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Answer, Given, Option, Question } from '../document/types';
import { gridRowAnswer } from '../routing/answers';
import type { Plan, PlanItem } from '../routing/plan';

export interface KeyField {
  /** As the answer is given: `name`, `name#pass`, `name_CODE_text`, `name_comment`. */
  readonly key: string;
  readonly kind: 'answer' | 'specify' | 'remark';
  /** Null for a given value. */
  readonly planItem: PlanItem | null;
  /** `name` or `name#pass` of the item; empty for a given value. */
  readonly passKey: string;
  readonly pass: number | null;
  /** Of a grid row: its index; else null. */
  readonly row: number | null;
  readonly question: Question;
  readonly answer: Answer;
  /** What the form says beside it. */
  readonly label: string;
  /** `specify`: the option, and the field of the answer it belongs to. */
  readonly option: Option | null;
  readonly of: string | null;
}

/**
 * Values known beforehand first, then item by item, in a repeated section pass by pass up to the most that
 * are run.
 */
export function keyFields(plan: Plan): KeyField[] {
  const fields: KeyField[] = (plan.document.given ?? []).map(givenField);
  for (const { items, repeat } of plan.sections) {
    const passes = repeat === null ? [null] : Array.from({ length: repeat.max }, (_, p) => p + 1);
    for (const pass of passes)
      for (const planItem of items)
        if (planItem.item.kind === 'question') fields.push(...itemFields(planItem, planItem.item, pass));
  }
  return fields;
}

function givenField(given: Given): KeyField {
  return {
    key: given.name,
    kind: 'answer',
    planItem: null,
    passKey: '',
    pass: null,
    row: null,
    question: { kind: 'question', name: given.name, text: given.label, answer: given.answer, required: true },
    answer: given.answer,
    label: given.label,
    option: null,
    of: null,
  };
}

function itemFields(planItem: PlanItem, question: Question, pass: number | null): KeyField[] {
  const { answer } = question;
  const shared = { planItem, passKey: passKey(question.name, pass), pass, question };
  const variables = hasRows(answer)
    ? answer.rows.map((row, n) => ({
        name: row.name,
        label: row.label,
        answer: gridRowAnswer(answer),
        row: n,
      }))
    : [{ name: question.name, label: question.text, answer, row: null }];
  const fields = variables.flatMap(({ name, label, answer: own, row }): KeyField[] => {
    const key = passKey(name, pass);
    const main: KeyField = {
      ...shared,
      key,
      kind: 'answer',
      row,
      answer: own,
      label,
      option: null,
      of: null,
    };
    const texts = optionsOf(own)
      .filter(({ specify }) => specify)
      .map((option): KeyField => ({
        ...main,
        key: passKey(`${name}_${option.code}_text`, pass),
        kind: 'specify',
        label: option.specifyLabel ?? `${option.label}: in their words`,
        option,
        of: key,
      }));
    return [main, ...texts];
  });
  if (question.comment === undefined) return fields;
  return [
    ...fields,
    {
      ...shared,
      key: passKey(`${question.name}_comment`, pass),
      kind: 'remark',
      row: null,
      answer: { type: 'text', lines: 'many' },
      label: question.comment,
      option: null,
      of: null,
    },
  ];
}
