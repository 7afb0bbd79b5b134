/** Names used twice: variables (whatever their case), columns made from them, sections, endings, quotas. */
import { columnsOf } from '../coding/columns';
import { hasRows } from '../document/answer-types';
import type { Questionnaire } from '../document/types';
import type { Plan } from '../routing/plan';
import type { DocumentPlace } from '../routing/problems';
import type { Snag } from './types';

export function duplicateNames(plan: Plan): Snag[] {
  const { document } = plan;
  const clashes = firstComeFirstServed(variableNames(document), (name) => name.toLowerCase(), 'a variable');
  return [
    ...clashes,
    ...(clashes.length === 0 ? columnClashes(plan) : []),
    ...firstComeFirstServed(
      document.sections.map(({ id }) => ({ name: id, at: { section: id } })),
      same,
      'a section',
    ),
    ...firstComeFirstServed(
      document.endings.map(({ id }) => ({ name: id, at: { ending: id } })),
      same,
      'an ending',
    ),
    ...firstComeFirstServed(
      (document.quotas ?? []).map(({ id }) => ({ name: id, at: { quota: id } })),
      same,
      'a quota',
    ),
  ];
}

interface Use {
  readonly name: string;
  readonly at: DocumentPlace;
}

const same = (name: string) => name;

function variableNames(document: Questionnaire): Use[] {
  const uses: Use[] = (document.given ?? []).map(({ name }) => ({ name, at: { given: name } }));
  for (const section of document.sections) {
    for (const item of section.items) {
      if (item.kind === 'page_break') continue;
      uses.push({ name: item.name, at: { item: item.name } });
      if (item.kind !== 'question' || !hasRows(item.answer)) continue;
      for (const row of item.answer.rows)
        uses.push({ name: row.name, at: { item: item.name, row: row.name } });
    }
  }
  for (const { name } of document.derived ?? []) uses.push({ name, at: { derived: name } });
  return uses;
}

function firstComeFirstServed(uses: readonly Use[], keyOf: (name: string) => string, what: string): Snag[] {
  const first = new Map<string, Use>();
  const snags: Snag[] = [];
  for (const use of uses) {
    const earlier = first.get(keyOf(use.name));
    if (earlier === undefined) {
      first.set(keyOf(use.name), use);
      continue;
    }
    const spelt = earlier.name === use.name ? '' : ` (spelt "${earlier.name}" there)`;
    snags.push({
      rule: 'duplicate-name',
      severity: 'error',
      at: use.at,
      field: 'name',
      message: `"${use.name}" is already the name of ${what}${spelt}: answers would land in one column, so give this one its own name`,
    });
  }
  return snags;
}

/** A column like `fuel_2` of a multiple against a question that is itself named `fuel_2`. */
function columnClashes(plan: Plan): Snag[] {
  const owner = new Map<string, string>();
  const snags: Snag[] = [];
  // A statement has no column, a grid none under its own name; both names are taken all the same.
  for (const { name } of variableNames(plan.document)) owner.set(name.toLowerCase(), name);
  for (const column of columnsOf(plan)) {
    const from = 'source' in column ? column.source.variable : column.name;
    const key = column.name.toLowerCase();
    const earlier = owner.get(key);
    if (earlier === undefined || earlier === from) {
      owner.set(key, from);
      continue;
    }
    const at: DocumentPlace =
      'source' in column
        ? column.source.of === 'item'
          ? { item: column.source.question.name }
          : { given: from }
        : { derived: from };
    snags.push({
      rule: 'duplicate-name',
      severity: 'error',
      at,
      field: 'name',
      message: `the data column "${column.name}" made from "${from}" is also made from "${earlier}": rename one of them`,
    });
  }
  return snags;
}
