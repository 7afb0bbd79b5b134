/** Bytes of a file as text, in whatever common encoding they are; what is none is told by what it is. */
import { sniffBytes, Utf8Check } from './csv';

export type Decoded =
  | { readonly ok: true; readonly text: string }
  /** A sentence. */
  | { readonly ok: false; readonly problem: string };

/** `most`: in bytes; `needed`: what is wanted instead of what it is, as a sentence. */
export function decoded(bytes: Uint8Array, most: number, needed: string): Decoded {
  if (bytes.length > most)
    return {
      ok: false,
      problem: `It is larger than ${most / 1e6} MB: divide it, or leave out what is not needed.`,
    };
  const found = sniffBytes(bytes.subarray(0, 65_536));
  switch (found.is) {
    case 'empty':
      return { ok: false, problem: 'It is empty.' };
    case 'other':
      return { ok: false, problem: `It is ${found.words}. ${needed}` };
    case 'xlsx':
      return { ok: false, problem: `It is a packed file, and no text. ${needed}` };
    case 'text': {
      const check = new Utf8Check();
      check.add(bytes);
      const encoding = found.certain || check.end() ? found.encoding : 'windows-1252';
      return { ok: true, text: new TextDecoder(encoding).decode(bytes) };
    }
    default:
      return found satisfies never;
  }
}
