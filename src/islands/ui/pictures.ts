/** Pictures that are stored with a questionnaire: read from a file, with type and size checked by what is in it. */
import { base64 } from '../../core/exchange/base64';

const MOST_BYTES = 400_000;

/** How the files begin. */
const KINDS: readonly (readonly [type: string, begins: readonly number[]])[] = [
  ['image/png', [0x89, 0x50, 0x4e, 0x47]],
  ['image/jpeg', [0xff, 0xd8, 0xff]],
  ['image/gif', [0x47, 0x49, 0x46, 0x38]],
  ['image/webp', [0x52, 0x49, 0x46, 0x46]],
];

/** For a file chooser. */
export const PICTURE_TYPES = KINDS.map(([type]) => type).join();

export type ReadPicture =
  { readonly ok: true; readonly src: string } | { readonly ok: false; readonly problem: string };

export async function readPicture(file: File): Promise<ReadPicture> {
  if (file.size > MOST_BYTES) {
    const size = Math.ceil(file.size / 1000);
    return {
      ok: false,
      problem: `“${file.name}” has ${size} kB: make it smaller, up to 400 kB can be stored.`,
    };
  }
  const bytes = new Uint8Array(await file.arrayBuffer());
  const kind = KINDS.find(([, begins]) => begins.every((byte, n) => bytes[n] === byte));
  if (kind === undefined)
    return {
      ok: false,
      problem: `“${file.name}” is no PNG, JPEG, GIF or WebP picture: choose one of these.`,
    };
  return { ok: true, src: `data:${kind[0]};base64,${base64(bytes)}` };
}
