/** An item list of a sheet as a questionnaire. What a row lacks is made up and told; what is not understood is told too. */
import { ANSWER_TRAITS } from '../../document/answer-types';
import { freshName, nameProblem } from '../../document/names';
import { readDocument } from '../../document/read';
import {
  ANSWER_TYPES,
  SECTION_KINDS,
  type Answer,
  type AnswerType,
  type Ending,
  type Item,
  type Questionnaire,
  type Section,
  type Skip,
} from '../../document/types';
import { emptyQuestionnaire, guessKind } from '../../editing/structure';
import { matchColumns, type ItemColumn } from './columns';
import { optionsRead, rowsRead, skipsRead } from './lists';

export interface ItemDoubt {
  /** Row of the sheet, from 1 with its head. */
  readonly line: number;
  readonly what: string;
}

export type ItemsRead =
  | {
      readonly ok: true;
      readonly document: Questionnaire;
      readonly doubts: readonly ItemDoubt[];
      /** What each column was taken for. */
      readonly columns: readonly (ItemColumn | null)[];
    }
  | { readonly ok: false; readonly problems: readonly string[] };

/** Rows that are read at most; a questionnaire has fewer items. */
const MOST_ITEM_ROWS = 20_000;

/** `said`: what columns mean, by their head, where somebody says so. */
export function readItems(
  cells: readonly (readonly string[])[],
  title: string,
  said: Readonly<Record<string, ItemColumn | null>> = {},
): ItemsRead {
  const [header = [], ...rows] = cells;
  const columns = matchColumns(header, said);
  if (!columns.includes('text') && !columns.includes('name'))
    return {
      ok: false,
      problems: [
        `No column holds the questions: one is to be called “text” or “name”. The sheet begins with ${header.slice(0, 8).join(', ') || 'nothing'}.`,
      ],
    };
  if (rows.length > MOST_ITEM_ROWS)
    return {
      ok: false,
      problems: [`It has more than ${MOST_ITEM_ROWS.toLocaleString('en')} rows: divide it.`],
    };
  return new ItemReader(columns, title).read(header, rows);
}

type Row = Partial<Record<ItemColumn, string>>;

class ItemReader {
  private readonly doubts: ItemDoubt[] = [];
  private readonly names = new Set<string>();
  private readonly ids = new Set<string>();
  private line = 1;

  constructor(
    private readonly columns: readonly (ItemColumn | null)[],
    private readonly title: string,
  ) {}

  read(header: readonly string[], rows: readonly (readonly string[])[]): ItemsRead {
    this.columns.forEach((column, n) => {
      const head = header[n] ?? '';
      if (column === null && head.trim() !== '') this.doubt(`the column “${head}” was not taken over`);
    });
    if (!this.columns.includes('text'))
      this.doubt('no column holds the words of the questions: they are left empty');
    const sections: (Omit<Section, 'items'> & { items: Item[] })[] = [];
    rows.forEach((cells, n) => {
      this.line = n + 2;
      const row = this.rowOf(cells);
      if (Object.keys(row).length === 0) return;
      const last = sections.at(-1);
      const home = this.sectionOf(row, last);
      if (home !== last) sections.push({ ...home, items: [] });
      const item = this.itemOf(row);
      if (item !== null) sections.at(-1)?.items.push(item);
    });
    if (!sections.some(({ items }) => items.length > 0))
      return { ok: false, problems: ['There is no question in it.'] };
    const base = emptyQuestionnaire(this.title);
    const document = { ...base, sections, endings: this.endings(base.endings, sections) };
    const sound = readDocument(document);
    if (!sound.ok) return { ok: false, problems: sound.problems.map(({ message }) => message).slice(0, 20) };
    return { ok: true, document: sound.document, doubts: this.doubts, columns: this.columns };
  }

  private doubt(what: string): void {
    this.doubts.push({ line: this.line, what });
  }

  private rowOf(cells: readonly string[]): Row {
    const row: Row = {};
    this.columns.forEach((column, n) => {
      // Whoever wrote the file kept a spreadsheet from running it: the sign is none of the author's.
      const cell = (cells[n] ?? '').replace(/^'(?=[=@+-])/, '').trim();
      if (column !== null && cell !== '') row[column] = cell;
    });
    return row;
  }

  private sectionOf(
    { section, sectionId, sectionKind }: Row,
    last: Omit<Section, 'items'> | undefined,
  ): Omit<Section, 'items'> {
    const same =
      last !== undefined &&
      (sectionId === undefined ? section === undefined || section === last.title : sectionId === last.id);
    if (same) return last;
    const title = section ?? sectionId ?? 'Questions';
    const id = this.fresh(sectionId ?? title, this.ids);
    const kind = SECTION_KINDS.find((each) => each === sectionKind) ?? guessKind(title);
    return { id, title, kind };
  }

  private fresh(words: string, taken: Set<string>): string {
    const isFree = nameProblem(words) === null && !taken.has(words.toLowerCase());
    const name = isFree ? words : freshName(words, taken);
    taken.add(name.toLowerCase());
    return name;
  }

  private itemOf(row: Row): Item | null {
    const { name, type, text } = row;
    if (type === 'page_break') return { kind: 'page_break' };
    if (name === undefined && text === undefined) return null;
    const own = this.fresh(name ?? text ?? 'item', this.names);
    if (name !== undefined && own !== name)
      this.doubt(`“${name}” is no name that can stand here, or stands here twice: it is called ${own}`);
    const { skips, rest } = skipsRead(row.skips ?? '');
    for (const part of rest) this.doubt(`“${part}” is no skip: write it as “if CONDITION -> item NAME”`);
    const shared = {
      name: own,
      text: text ?? '',
      ...(row.instruction === undefined ? {} : { instruction: row.instruction }),
      ...(row.askIf === undefined ? {} : { askIf: row.askIf }),
      ...(skips.length === 0 ? {} : { skips }),
    };
    if (type === 'statement') return { kind: 'statement', ...shared };
    const measure = (['nominal', 'ordinal', 'interval', 'ratio'] as const).find(
      (each) => each === row.measure,
    );
    if (row.measure !== undefined && measure === undefined)
      this.doubt(`“${row.measure}” is no level of measurement`);
    const required = this.yesNo(row.required);
    return {
      kind: 'question',
      ...shared,
      ...(row.label === undefined ? {} : { label: row.label }),
      ...(row.note === undefined ? {} : { note: row.note }),
      answer: this.answerOf(row),
      ...(required === null ? {} : { required }),
      ...(measure === undefined ? {} : { measure }),
    };
  }

  private yesNo(words: string | undefined): boolean | null {
    if (words === undefined) return null;
    if (/^(yes|y|true|1|x)$/i.test(words)) return true;
    if (/^(no|n|false|0)$/i.test(words)) return false;
    this.doubt(`“${words}” says neither yes nor no`);
    return null;
  }

  private typeOf({ type, options, rows, least, most }: Row): AnswerType {
    const wanted = type?.toLowerCase() ?? '';
    const known =
      ANSWER_TYPES.find((each) => each === wanted) ??
      ANSWER_TYPES.find(
        (each) => ANSWER_TRAITS[each].words === wanted || ANSWER_TRAITS[each].offered === wanted,
      );
    if (known !== undefined) return known;
    const guess =
      rows !== undefined
        ? 'grid'
        : options !== undefined
          ? 'single'
          : least !== undefined && most !== undefined
            ? 'number'
            : 'text';
    if (wanted !== '')
      this.doubt(`“${type}” is no type of answer: it was taken for ${ANSWER_TRAITS[guess].words}`);
    return guess;
  }

  private answerOf(row: Row): Answer {
    const type = this.typeOf(row);
    const { options, doubts } = optionsRead(row.options ?? '');
    for (const each of doubts) this.doubt(each);
    const specials = options.filter(({ missing }) => missing !== undefined);
    const listed = options.length > 0 ? options : [{ code: 1, label: '' }];
    if (options.length === 0 && ANSWER_TRAITS[type].list === 'options')
      this.doubt('there are no answers to choose from: one empty answer was made');
    const beside = specials.length === 0 ? {} : { specials };
    switch (type) {
      case 'single':
      case 'multiple':
      case 'rank':
        return { type, options: listed };
      case 'grid': {
        const rows = rowsRead(row.rows ?? '', (words) => this.fresh(words, this.names));
        if (rows.length === 0) this.doubt('there are no rows: one empty row was made');
        return {
          type,
          rows: rows.length > 0 ? rows : [{ name: this.fresh('row', this.names), label: '' }],
          options: listed,
        };
      }
      case 'number':
      case 'scale': {
        const [min, max] = [this.number(row.least, 0), this.number(row.most, type === 'scale' ? 10 : 100)];
        const decimals = row.decimals === undefined ? {} : { decimals: this.number(row.decimals, 0) };
        const unit = row.unit === undefined ? {} : { unit: row.unit };
        return type === 'scale'
          ? { type, min, max, ...beside }
          : { type, min, max, ...decimals, ...unit, ...beside };
      }
      case 'text':
        return { type };
      case 'date':
      case 'time':
      case 'datetime': {
        const limits = {
          ...(row.least === undefined ? {} : { min: row.least }),
          ...(row.most === undefined ? {} : { max: row.most }),
        };
        return { type, ...limits, ...beside };
      }
      default:
        return type satisfies never;
    }
  }

  private number(words: string | undefined, otherwise: number): number {
    const number = Number((words ?? '').replace(',', '.'));
    if (words !== undefined && Number.isFinite(number)) return number;
    this.doubt(
      `${words === undefined ? 'there is no limit' : `“${words}” is no number`}: ${otherwise} was taken`,
    );
    return otherwise;
  }

  /** Those that skips lead to are made where they lack. */
  private endings(base: readonly Ending[], sections: readonly Section[]): Ending[] {
    const known = new Set(base.map(({ id }) => id));
    const skips = sections.flatMap(({ items }) =>
      items.flatMap((item): readonly Skip[] => (item.kind === 'page_break' ? [] : (item.skips ?? []))),
    );
    const wanted = new Set(
      skips.flatMap(({ to }) => ('ending' in to && !known.has(to.ending) ? [to.ending] : [])),
    );
    return [
      ...base,
      ...Array.from(wanted, (id): Ending => ({ id, kind: 'complete', messages: [{ text: 'Thank you.' }] })),
    ];
  }
}
