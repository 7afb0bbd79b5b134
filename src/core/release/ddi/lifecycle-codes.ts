/** Categories and code lists: of every question, of every column that has codes, and of what stands for no answer. */
import { optionsOf } from '../../document/shape';
import { rowsOf } from '../../document/answer-types';
import type { Question, Questionnaire } from '../../document/types';
import { element, type Element } from '../../exchange/element';
import type { DataField, MissingValue } from '../data/fields';
import type { Urns } from './urns';
import type { Words } from './words';

interface Listed {
  readonly code: number | string;
  readonly label: string;
  readonly missing?: boolean;
}

export class Codes {
  private readonly all = new Map<string, readonly Listed[]>();
  /** Name of the list of codes for no answer, by what is in it. */
  private readonly missingLists = new Map<
    string,
    { readonly name: string; readonly values: readonly MissingValue[] }
  >();

  constructor(
    private readonly urns: Urns,
    private readonly words: Words,
    document: Questionnaire,
    fields: readonly DataField[],
  ) {
    for (const { items } of document.sections)
      for (const item of items) if (item.kind === 'question') this.ofQuestion(item);
    for (const { name, values, missing } of fields) {
      if (values.length > 0) this.all.set(columnList(name), values);
      const content = JSON.stringify(missing);
      if (missing.length > 0 && !this.missingLists.has(content))
        this.missingLists.set(content, { name: `missing-${name}`, values: missing });
    }
    for (const { name, values } of this.missingLists.values())
      this.all.set(
        name,
        values.map(({ code, label }) => ({ code, label, missing: true })),
      );
  }

  private ofQuestion({ name, answer }: Question): void {
    const options = optionsOf(answer);
    if (options.length > 0)
      this.all.set(
        name,
        options.map(({ code, label, missing }) => ({ code, label, missing: missing !== undefined })),
      );
    const rows = rowsOf(answer);
    if (rows.length > 0)
      this.all.set(
        rowList(name),
        rows.map((row) => ({ code: row.name, label: row.label })),
      );
  }

  /** A reference to a list; null where there is none of that name. */
  reference(list: string): Element | null {
    const values = this.all.get(list);
    return values === undefined
      ? null
      : this.urns.reference('r:CodeListReference', 'CodeList', 'codes', list, values);
  }

  missingReference({ missing }: DataField): Element | null {
    const found = this.missingLists.get(JSON.stringify(missing));
    return found === undefined
      ? null
      : this.urns.reference(
          'r:MissingValuesReference',
          'ManagedMissingValuesRepresentation',
          'missing',
          found.name,
          found.values,
        );
  }

  categories(): Element[] {
    return [...this.all].flatMap(([list, values]) =>
      values.map((value) =>
        element(
          'l:Category',
          value.missing ? { isMissing: 'true' } : {},
          this.urns.identity('category', categoryName(list, value), value),
          this.words.string('l:CategoryName', String(value.code)),
          this.words.content('r:Label', value.label),
        ),
      ),
    );
  }

  lists(): Element[] {
    return [...this.all].map(([list, values]) =>
      element(
        'l:CodeList',
        {},
        this.urns.identity('codes', list, values),
        this.words.string('l:CodeListName', list),
        values.map((value) =>
          element(
            'l:Code',
            {},
            this.urns.identity('code', categoryName(list, value), value),
            this.urns.reference(
              'r:CategoryReference',
              'Category',
              'category',
              categoryName(list, value),
              value,
            ),
            element('r:Value', {}, String(value.code)),
          ),
        ),
      ),
    );
  }

  missing(): Element[] {
    return Array.from(this.missingLists.values(), ({ name, values }) =>
      element(
        'r:ManagedMissingValuesRepresentation',
        {},
        this.urns.identity('missing', name, values),
        this.words.string('r:ManagedMissingValuesRepresentationName', name),
        element('r:MissingCodeRepresentation', {}, this.reference(name)),
      ),
    );
  }
}

export const columnList = (column: string) => `column-${column}`;
export const rowList = (question: string) => `rows-${question}`;
const categoryName = (list: string, { code }: Listed) => `${list}-${code}`;
