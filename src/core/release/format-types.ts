/** What a file format is: what goes into its files and comes out of them, and what is said of the rest. */
import type { Address } from '../document/addresses';
import type { Questionnaire } from '../document/types';
import type { Work } from '../exchange/work-file';
import type { OpenBeside } from './beside';
import type { DataRows } from './data/rows';

/** What a file may hold. */
export interface StudyContent {
  readonly document: Questionnaire;
  readonly work: Work;
  /** Which version it is of, and is marked with; none of the draft. */
  readonly version?: VersionMark;
  /** Where the format is one of data. */
  readonly data?: DataRows;
  /** Where a stand-alone instrument posts its cases to (`postAddress`). */
  readonly post?: string;
}

export interface VersionMark {
  readonly number: number;
  readonly frozen: boolean;
  /** When it was kept, in milliseconds since 1970. */
  readonly at: number;
  readonly author?: string;
  readonly note?: string;
  /** Why it was frozen though something stood in the way. */
  readonly reason?: string;
}

/** One of several files that are written together. */
export interface WrittenFile {
  readonly name: string;
  readonly text: string | Uint8Array;
}

/** One file, or the files of a folder. */
export type Written = string | Uint8Array | readonly WrittenFile[];

export type ReadStudy =
  /** `doubts`: what of the file was not understood, or not taken over. */
  | { readonly ok: true; readonly content: StudyContent; readonly doubts?: readonly Doubt[] }
  /** Sentences, the gravest first. */
  | { readonly ok: false; readonly problems: readonly string[] };

/** Something in a file that nothing was made of. */
export interface Doubt {
  /** From 1. */
  readonly line: number;
  /** A clause without a full stop. */
  readonly what: string;
}

/** Something that a format cannot hold. */
export interface Loss {
  readonly at: Address;
  readonly what: string;
}

/** Told after each of so many parts. */
export type Progress = (done: number, of: number) => void;

/** How a format of many files is made; the files are the same. */
export interface Making {
  readonly progress?: Progress;
  /** Where some of them can be made in a second thread. */
  readonly beside?: OpenBeside;
}

/** What is said of a format wherever it is named. */
export interface KnownFormat {
  /** As it is offered to people. */
  readonly words: string;
  /** What the names of its files end with, without a dot before; the first is written where nothing else is asked for. */
  readonly endings: readonly [string, ...string[]];
  /** Of those, which can be written, where it is more than the first: each another kind of file. */
  readonly kinds?: readonly string[];
  /** It is written of rows of data. */
  readonly ofData?: true;
  readonly mediaType: string;
  readonly isRead?: true;
}

export interface FormatWriter {
  /**
   * A promise where what writes is loaded for it alone. `kind`: one of `kinds`, or the first ending. Throws where it is one
   * of data and there is none, and `CannotWrite` where it cannot be made of this questionnaire.
   */
  readonly write: (content: StudyContent, kind: string, making?: Making) => Written | Promise<Written>;
  /** Of a format that is read as well: what reading it again does not give. */
  readonly losses: (content: StudyContent) => readonly Loss[] | Promise<readonly Loss[]>;
}

/** `name`: of the file. */
export type FormatReader = (bytes: Uint8Array, name: string) => ReadStudy | Promise<ReadStudy>;

export interface FileFormat extends KnownFormat {
  /** Null: it is only read. */
  readonly write: FormatWriter['write'] | null;
  /** Null: it is only written. */
  readonly read: FormatReader | null;
  readonly losses: FormatWriter['losses'];
}
