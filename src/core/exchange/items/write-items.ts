/** The item list as rows of a sheet: an item a row, in their order, with what a list of questions usually has. */
import { hasRows } from '../../document/answer-types';
import { optionsOf } from '../../document/shape';
import type { Answer, Item, Questionnaire, Section } from '../../document/types';
import { headOf, ITEM_COLUMN_NAMES, type ItemColumn } from './columns';
import { optionsWritten, rowsWritten, skipsWritten } from './lists';

type Cells = Partial<Record<ItemColumn, string | number>>;

/** The head first. A section without items has a row of its own. */
export function itemRows({ sections }: Questionnaire): (string | number)[][] {
  const rows = sections.flatMap((section): Cells[] =>
    section.items.length === 0 ? [ofSection(section)] : section.items.map((item) => ofItem(section, item)),
  );
  return [
    ITEM_COLUMN_NAMES.map(headOf),
    ...rows.map((row) => ITEM_COLUMN_NAMES.map((column) => row[column] ?? '')),
  ];
}

const ofSection = ({ id, title, kind }: Section): Cells => ({
  section: title,
  sectionId: id,
  sectionKind: kind,
});

function ofItem(section: Section, item: Item): Cells {
  const home = ofSection(section);
  if (item.kind === 'page_break') return { ...home, type: 'page_break' };
  const { name, text, instruction, askIf, skips } = item;
  const shared: Cells = {
    ...home,
    name,
    text,
    instruction: instruction ?? '',
    askIf: askIf ?? '',
    skips: skipsWritten(skips ?? []),
  };
  if (item.kind === 'statement') return { ...shared, type: 'statement' };
  return {
    ...shared,
    ...ofAnswer(item.answer),
    note: item.note ?? '',
    required: item.required === undefined ? '' : item.required ? 'yes' : 'no',
    label: item.label ?? '',
    measure: item.measure ?? '',
  };
}

function ofAnswer(answer: Answer): Cells {
  const { type } = answer;
  return {
    type,
    options: optionsWritten(optionsOf(answer)),
    rows: hasRows(answer) ? rowsWritten(answer.rows) : '',
    least: 'min' in answer ? (answer.min ?? '') : '',
    most: 'max' in answer ? (answer.max ?? '') : '',
    decimals: 'decimals' in answer ? (answer.decimals ?? '') : '',
    unit: 'unit' in answer ? (answer.unit ?? '') : '',
  };
}
