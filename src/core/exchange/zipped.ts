/** Several files as one `.zip`: the same files give the same bytes. */
import { strToU8, zipSync } from 'fflate';

/** Zip files know no time before 1980. */
const WHEN = { mtime: '1980-01-01T00:00:00' };

export function zipped(
  files: readonly { readonly name: string; readonly text: string | Uint8Array }[],
): Uint8Array<ArrayBuffer> {
  return new Uint8Array(
    zipSync(
      Object.fromEntries(
        files.map(({ name, text }) => [
          name,
          [typeof text === 'string' ? strToU8(text) : text, WHEN] as const,
        ]),
      ),
    ),
  );
}
