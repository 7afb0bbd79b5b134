/**
 * Whether a workbook is whole and small enough to be opened. What opens it holds all of it, so it is unpacked here first, piece by
 * piece and kept nowhere, and counted: a file may say anything of its own size.
 */
import { Unzip, UnzipInflate, type UnzipFile } from 'fflate';

/** Bytes of all parts together, unpacked. */
const MOST_UNPACKED = 400_000_000;
/** Texts that cells share; each costs some hundred bytes once it is read. */
const MOST_TEXTS = 3_000_000;
/** Few bytes can unpack to a thousand times as many at once. */
const PIECE = 65_536;

/** The record that closes a zip, with the longest remark that may follow it. */
const MOST_TAIL = 22 + 65_535;

const TEXTS = 'xl/sharedStrings.xml';

export interface WorkbookLimits {
  readonly unpacked: number;
  readonly texts: number;
}

/** What is wrong, as a sentence without the file's name in front; null where it may be opened, or is no workbook at all. */
export async function workbookProblem(
  pieces: AsyncIterable<Uint8Array>,
  { unpacked, texts }: WorkbookLimits = { unpacked: MOST_UNPACKED, texts: MOST_TEXTS },
): Promise<string | null> {
  let [size, shared] = [0, 0];
  let isBroken = false;
  let isZip = false;
  /** The last of it: a zip ends with its list of contents. */
  let tail = new Uint8Array();
  const tooMuch = () => size > unpacked || shared > texts;
  const unzip = new Unzip((file) => {
    isZip = true;
    const count = file.name === TEXTS ? textCounter() : null;
    file.ondata = (error, data) => {
      // No zip, or one that another program may still make something of: that is for it to say.
      if (error !== null) isBroken = true;
      size += data?.length ?? 0;
      if (data !== undefined && count !== null) shared += count(data);
      if (tooMuch()) (file as UnzipFile & { terminate: () => void }).terminate();
    };
    if (!tooMuch()) file.start();
  });
  unzip.register(UnzipInflate);
  try {
    for await (const piece of pieces) {
      const joined = new Uint8Array(tail.length + piece.length);
      joined.set(tail);
      joined.set(piece, tail.length);
      tail = joined.slice(-MOST_TAIL);
      for (let at = 0; at < piece.length; at += PIECE) {
        unzip.push(piece.subarray(at, at + PIECE));
        if (tooMuch()) return sentence();
        if (isBroken) break;
      }
    }
    if (isBroken) return sentence();
    unzip.push(new Uint8Array(), true);
  } catch {
    return sentence();
  }
  return sentence();

  function sentence(): string | null {
    if (shared > texts)
      return `it holds more than ${texts.toLocaleString('en')} different texts: save the sheet as CSV, which is read row by row`;
    if (size > unpacked)
      return `unpacked it comes to more than ${Math.round(unpacked / 1e6)} MB: save the sheet as CSV, which is read row by row`;
    return isZip && !isBroken && !hasEnd(tail)
      ? 'it was cut off on its way: fetch it again, or save it again in the spreadsheet'
      : null;
  }
}

/** Whether the record is there that closes a zip; APPNOTE.TXT 6.3.10, 4.3.16. */
function hasEnd(tail: Uint8Array): boolean {
  for (let at = tail.length - 22; at >= 0; at -= 1)
    if (tail[at] === 0x50 && tail[at + 1] === 0x4b && tail[at + 2] === 5 && tail[at + 3] === 6) return true;
  return false;
}

/** Counts the texts that begin in what it is given, piece after piece. */
function textCounter(): (data: Uint8Array) => number {
  const decoder = new TextDecoder('latin1');
  let rest = '';
  return (data) => {
    const text = rest + decoder.decode(data, { stream: true });
    // A tag, four signs of it, may be cut by the end of a piece.
    rest = text.slice(-3);
    return text.split(/<si[\s/>]/).length - 1;
  };
}

/** A file that is at hand, as one that streams in. */
export async function* atHand(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  yield bytes;
}
