/** What is shown and kept of items and endings, as marks that tell whether two versions have the same. */
import type { ContentMarkOf } from '../analysis';
import { passKey } from '../document/addresses';
import type { Plan } from '../routing/plan';
import { contentMarks } from '../routing/route-content';

/** Equal marks: the same name, the same words and answers, and the same codes for what is missing. */
export function shownOf(plan: Plan): ContentMarkOf {
  const marks = contentMarks(plan);
  const planned = JSON.stringify(plan.document.missing.map(({ reason, code }) => [reason, code]));
  const own = new Map(
    plan.sections.flatMap(({ items }) =>
      items.map(({ item }) => {
        const codes = item.kind === 'question' ? JSON.stringify(item.missingCodes ?? {}) : '';
        return [item.name, item.kind === 'question' ? `${planned} ${codes}` : ''] as const;
      }),
    ),
  );
  return {
    item: (name, pass) => `${passKey(name, pass)} ${marks.item(name, null)} ${own.get(name) ?? ''}`,
    ending: (id) => `> ${id} ${marks.ending(id)}`,
  };
}
