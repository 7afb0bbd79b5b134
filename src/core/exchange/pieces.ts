/** A file of rows as it comes, piece by piece. */
import { rowsInPiece, type CsvFormat, type RowsPiece } from './csv';

export interface FilePiece {
  readonly piece: RowsPiece;
  /** How lines end in pieces that are text, once that is known. */
  readonly newline: string | undefined;
  /** Of the file, from 0 to 1, that has been read with it. */
  readonly share: number;
}

/** Takes the first row off; null where there is none. */
export async function takeHeader(
  pieces: AsyncIterable<FilePiece>,
  format: CsvFormat,
): Promise<{
  readonly header: readonly string[];
  readonly newline: string | undefined;
  readonly rest: AsyncIterable<FilePiece>;
} | null> {
  const iterator = pieces[Symbol.asyncIterator]();
  for (;;) {
    const next = await iterator.next();
    if (next.done === true) return null;
    const { piece, newline, share } = next.value;
    const [header, ...rows] = rowsInPiece(piece, format, newline);
    if (header === undefined) continue;
    return { header, newline, rest: withFirst({ piece: rows, newline, share }, iterator) };
  }
}

async function* withFirst(first: FilePiece, others: AsyncIterator<FilePiece>): AsyncGenerator<FilePiece> {
  try {
    yield first;
    for (;;) {
      const next = await others.next();
      if (next.done === true) return;
      yield next.value;
    }
  } finally {
    // Whoever stops early lets go of the file.
    await others.return?.();
  }
}
