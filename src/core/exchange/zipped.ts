/** Several files as one `.zip`: the same files give the same bytes. */
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';

/** Zip files know no time before 1980. */
const WHEN = { mtime: '1980-01-01T00:00:00' };
/** What is packed already, which packing again makes no smaller. */
const PACKED = /\.(zip|xlsx|docx|pdf|png|parquet)$/;

export function zipped(
  files: readonly { readonly name: string; readonly text: string | Uint8Array }[],
): Uint8Array<ArrayBuffer> {
  return new Uint8Array(
    zipSync(
      Object.fromEntries(
        files.map(({ name, text }) => [
          name,
          [
            typeof text === 'string' ? strToU8(text) : text,
            PACKED.test(name) ? { ...WHEN, level: 0 as const } : WHEN,
          ] as const,
        ]),
      ),
    ),
  );
}

/** When an office file says it was made, which hangs on the clock. */
const DATES = /(<dcterms:(created|modified)[^>]*>)[^<]*/g;

/** An office file as another package wrote it, packed again so that nothing in it hangs on the clock. */
export function settled(bytes: Uint8Array): Uint8Array<ArrayBuffer> {
  const files = Object.entries(unzipSync(bytes)).map(([name, content]) => ({
    name,
    text: name.endsWith('core.xml') ? strFromU8(content).replace(DATES, `$1${WHEN.mtime}Z`) : content,
  }));
  return zipped(files);
}
