/** What is shown and kept of items and endings, as marks that tell whether two versions have the same. */
import type { ContentMarkOf } from '../analysis';
import { passKey } from '../document/addresses';
import { rowsOf } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Plan, PlanItem } from '../routing/plan';
import { contentMarks } from '../routing/route-content';
import { once } from './formats/once';

/** Equal marks: the same name, words and answers, shown under the same conditions, and the same codes for what is missing. */
export const shownOf = once(marksOf);

function marksOf(plan: Plan): ContentMarkOf {
  const marks = contentMarks(plan);
  const planned = plan.document.missing.map(({ reason, code }) => [reason, code]);
  const own = new Map(
    plan.sections.flatMap(({ items }) =>
      items.map(({ item }) => [item.name, keptOf(item, planned)] as const),
    ),
  );
  return {
    item: (name, pass) => `${passKey(name, pass)} ${marks.item(name, null)} ${own.get(name) ?? ''}`,
    ending: (id) => `> ${id} ${marks.ending(id)}`,
  };
}

/** What is no word on the page and yet decides what can be answered there, or how it is coded. */
function keptOf(item: PlanItem['item'], planned: unknown): string {
  if (item.kind !== 'question') return '';
  const { answer, checks = [], missingCodes = {} } = item;
  const conditions = [...optionsOf(answer), ...rowsOf(answer)].map(({ askIf }) => askIf);
  return JSON.stringify([planned, missingCodes, conditions, checks.map((check) => check.if)]);
}
