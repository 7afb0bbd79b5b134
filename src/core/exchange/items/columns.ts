/** The columns of an item list: what each holds, what it is called when it is written, and what people call it. */

export const ITEM_COLUMNS = {
  section: ['section', 'part', 'block', 'topic', 'module'],
  sectionId: ['section_id'],
  sectionKind: ['section_kind'],
  name: ['name', 'variable', 'id', 'item', 'variable name', 'question id'],
  type: ['type', 'answer type', 'question type', 'kind'],
  text: ['text', 'question', 'wording', 'question text', 'words'],
  note: ['note', 'help', 'hint', 'explanation'],
  instruction: ['instruction', 'interviewer', 'interviewer instruction'],
  options: ['options', 'answers', 'codes', 'categories', 'response options', 'values', 'answer options'],
  rows: ['rows', 'statements', 'sub-questions', 'grid rows'],
  least: ['least', 'min', 'minimum', 'from', 'lowest'],
  most: ['most', 'max', 'maximum', 'to', 'highest'],
  decimals: ['decimals', 'decimal places'],
  unit: ['unit', 'units'],
  required: ['required', 'mandatory', 'obligatory'],
  askIf: ['ask_if', 'ask if', 'asked if', 'filter', 'condition'],
  skips: ['skips', 'skip', 'go to', 'routing'],
  label: ['label', 'variable label', 'short label'],
  measure: ['measure', 'level', 'scale level', 'level of measurement'],
} as const satisfies Readonly<Record<string, readonly [string, ...string[]]>>;

export type ItemColumn = keyof typeof ITEM_COLUMNS;
export const ITEM_COLUMN_NAMES = Object.keys(ITEM_COLUMNS) as ItemColumn[];

/** What a column is written as. */
export const headOf = (column: ItemColumn): string => ITEM_COLUMNS[column][0];

const known = new Map(
  ITEM_COLUMN_NAMES.flatMap((column) =>
    ITEM_COLUMNS[column].map((words) => [words as string, column] as const),
  ),
);

/** What a header seems to mean; each meaning once, the first that has it. `said`: by hand, by header; null: nothing. */
export function matchColumns(
  header: readonly string[],
  said: Readonly<Record<string, ItemColumn | null>> = {},
): readonly (ItemColumn | null)[] {
  const taken = new Set(Object.values(said).filter((column) => column !== null));
  return header.map((head) => {
    const chosen = said[head];
    if (chosen !== undefined) return chosen;
    const found = known.get(head.trim().toLowerCase().replaceAll(/\s+/g, ' '));
    if (found === undefined || taken.has(found)) return null;
    taken.add(found);
    return found;
  });
}
