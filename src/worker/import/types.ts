/** What crosses between the main thread and the import worker. */
import type { Questionnaire } from '../../core/document/types';
import type { ItemColumn } from '../../core/exchange/items/columns';
import type { Doubt } from '../../core/release/format-types';

/** A column of a table of items. */
export interface FoundColumn {
  readonly head: string;
  /** Its first cell. */
  readonly sample: string;
  readonly taken: ItemColumn | null;
}

export type ReadFile =
  /** A study with the work done on it: the server reads those. */
  | { readonly as: 'work' }
  /** Lines as people write them, to be looked at one by one. */
  | { readonly as: 'list'; readonly source: string }
  | {
      readonly as: 'questionnaire';
      /** What its format is called. */
      readonly words: string;
      readonly document: Questionnaire;
      readonly doubts: readonly Doubt[];
      /** Of a table. */
      readonly columns: readonly FoundColumn[] | null;
    }
  /** A table of which no column was taken for the questions. */
  | {
      readonly as: 'unmatched';
      readonly problems: readonly string[];
      readonly columns: readonly FoundColumn[];
    }
  | { readonly as: 'nothing'; readonly problems: readonly string[] };

export interface ImportApi {
  /** `said`: of a table, what columns mean by their head, where somebody says so. */
  read(file: File, said: Readonly<Record<string, ItemColumn | null>>): Promise<ReadFile>;
}
