/** What a document to print or to edit is made of, before it is HTML, PDF or DOCX. */

/** Words set alike. */
export interface Run {
  readonly text: string;
  readonly bold?: true;
  readonly italic?: true;
  /** Names and codes. */
  readonly code?: true;
  /** Less than what stands beside it. */
  readonly soft?: true;
}

export type Runs = readonly Run[];

export type Block =
  | { readonly is: 'heading'; readonly level: 1 | 2 | 3; readonly runs: Runs; readonly newPage?: true }
  | { readonly is: 'text'; readonly runs: Runs; readonly bullet?: true; readonly apart?: true }
  | Table
  | { readonly is: 'picture'; readonly src: string; readonly alt: string };

export interface Table {
  readonly is: 'table';
  /** Without a head, the lines between the rows are left out too: answers of a question. */
  readonly head: readonly string[] | null;
  readonly rows: readonly (readonly Runs[])[];
  /** Share of the width that each column takes. */
  readonly widths: readonly number[];
}

export interface Pages {
  readonly title: string;
  /** What it is: “codebook”. */
  readonly what: string;
  readonly language: string;
  /** Of which version: it stands on every page. */
  readonly version: string;
  readonly blocks: readonly Block[];
}

export const plain = (text: string): Runs => [{ text }];
export const soft = (text: string): Runs => [{ text, soft: true }];
export const bold = (text: string): Runs => [{ text, bold: true }];
export const code = (text: string): Runs => [{ text, code: true }];

export const heading = (level: 1 | 2 | 3, text: string, newPage = false): Block => ({
  is: 'heading',
  level,
  runs: plain(text),
  ...(newPage ? { newPage: true as const } : {}),
});
export const textOf = (runs: Runs): Block => ({ is: 'text', runs });

/** Of several blocks that belong together, the first stands apart from what is above them. */
export function apart(blocks: readonly Block[]): readonly Block[] {
  const [first, ...others] = blocks;
  return first?.is === 'text' ? [{ ...first, apart: true }, ...others] : blocks;
}
