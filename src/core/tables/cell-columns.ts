/**
 * Cells of many rows, column by column: of each column the different texts, and by row which one it is. A million rows of
 * codes take a byte a cell, go from thread to thread as they are, and what a text means is worked out once.
 */

/** Of one column; `ids` by row, into `texts`. */
export interface CellColumn {
  readonly ids: Uint8Array | Uint16Array | Uint32Array;
  readonly texts: readonly string[];
}

/** Rows that there is room for at first. */
const FIRST_ROOM = 256;
/** Whole numbers that codes mostly are: their texts are known without looking them up. */
const LEAST = -99;
const SMALL = 1100;

class GrowingColumn {
  private ids: CellColumn['ids'] = new Uint8Array(FIRST_ROOM);
  /** Different texts that `ids` is wide enough for. */
  private most = 256;
  private readonly texts: string[] = [];
  private readonly known = new Map<string, number>();
  /** By number less `LEAST`: the id and one; 0 where it is not known. */
  private readonly small = new Uint32Array(SMALL);

  set(row: number, cell: string | number): void {
    this.put(row, typeof cell === 'number' ? this.idOfNumber(cell) : this.idOf(cell));
  }

  /** `other` from a row on. */
  append(from: number, { ids, texts }: CellColumn): void {
    const own = Uint32Array.from(texts, (text) => this.idOf(text));
    this.makeRoom(from + ids.length);
    if (own.every((id, n) => id === n) && ids.BYTES_PER_ELEMENT <= this.ids.BYTES_PER_ELEMENT) {
      this.ids.set(ids, from);
      return;
    }
    const target = this.ids;
    for (let n = 0; n < ids.length; n += 1) target[from + n] = own[ids[n] as number] as number;
  }

  upTo(count: number): CellColumn {
    return { ids: this.ids.slice(0, count), texts: this.texts };
  }

  private put(row: number, id: number): void {
    if (row >= this.ids.length || this.texts.length > this.most) this.makeRoom(row + 1);
    this.ids[row] = id;
  }

  /** For so many rows, and wide enough for every text there is. */
  private makeRoom(rows: number): void {
    const different = this.texts.length;
    if (rows <= this.ids.length && different <= this.most) return;
    const before = this.ids;
    const length = rows <= before.length ? before.length : Math.max(FIRST_ROOM, 2 * rows);
    this.ids = new (different <= 256 ? Uint8Array : different <= 65_536 ? Uint16Array : Uint32Array)(length);
    this.ids.set(before);
    this.most = 2 ** (8 * this.ids.BYTES_PER_ELEMENT);
  }

  private idOfNumber(number: number): number {
    const at = number - LEAST;
    if (!Number.isInteger(number) || at < 0 || at >= SMALL) return this.idOf(String(number));
    const known = this.small[at] as number;
    if (known > 0) return known - 1;
    const id = this.idOf(String(number));
    this.small[at] = id + 1;
    return id;
  }

  private idOf(text: string): number {
    const known = this.known.get(text);
    if (known !== undefined) return known;
    const id = this.texts.push(text) - 1;
    this.known.set(text, id);
    return id;
  }
}

/** Rows put one below the other. */
export class CellTable {
  private readonly growing: readonly GrowingColumn[];
  count = 0;

  constructor(width: number) {
    this.growing = Array.from({ length: width }, () => new GrowingColumn());
  }

  /** `places`: by column, where its cell is in the row; -1 where the row has none. */
  add(cells: readonly (string | number)[], places: readonly number[]): void {
    for (let column = 0; column < this.growing.length; column += 1)
      (this.growing[column] as GrowingColumn).set(this.count, cells[places[column] as number] ?? '');
    this.count += 1;
  }

  /** Columns of others rows, all of one length. */
  append(columns: readonly CellColumn[]): void {
    columns.forEach((column, n) => this.growing[n]?.append(this.count, column));
    this.count += columns[0]?.ids.length ?? 0;
  }

  columns(): CellColumn[] {
    return this.growing.map((column) => column.upTo(this.count));
  }
}

/** Cell by cell again. */
export function* rowsOfColumns(columns: readonly CellColumn[]): Generator<string[]> {
  const count = columns[0]?.ids.length ?? 0;
  for (let row = 0; row < count; row += 1)
    yield columns.map(({ ids, texts }) => texts[ids[row] as number] ?? '');
}
