/** Rows that are kept packed by gzip: unpacked up to a limit, whatever a file says of its own size. */
import { createGunzip, gunzipSync } from 'node:zlib';
import { Readable } from 'node:stream';

/** Bytes of text; a text of JavaScript holds no more than twice that. */
const MOST_UNPACKED = 250_000_000;

/** The text; null where it is not packed by gzip, damaged, or too much. */
export function unpacked(body: Buffer, most = MOST_UNPACKED): string | null {
  try {
    return gunzipSync(body, { maxOutputLength: most }).toString('utf8');
  } catch {
    return null;
  }
}

/** Why packed rows cannot be kept, as a sentence; null where they can. What they unpack to is counted, and not held. */
export async function packedProblem(body: Buffer, most = MOST_UNPACKED): Promise<string | null> {
  let length = 0;
  try {
    for await (const piece of Readable.from([body]).pipe(createGunzip()) as AsyncIterable<Buffer>) {
      length += piece.length;
      if (length > most)
        return `These rows come to more than ${most / 1e6} MB when they are unpacked: keep fewer columns or rows.`;
    }
  } catch {
    return 'These rows cannot be unpacked: they are not packed by gzip, or damaged on the way. Load the file again.';
  }
  return null;
}
