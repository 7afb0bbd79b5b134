/** Which format a file is of, by what is in it; by its name where that says nothing. */
import { unzipSync } from 'fflate';
import { formatOfFile, type FormatName } from './known';
import { isCsvwFile, isDataPackageFile } from './of-variables';

/** Bytes that are looked at of a text. */
const HEAD = 4096;

export function recognised(name: string, bytes: Uint8Array): FormatName {
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) return inZip(namesIn(bytes));
  const head = new TextDecoder()
    .decode(bytes.subarray(0, HEAD))
    .replace(/^\uFEFF/, '')
    .trimStart();
  if (head.startsWith('<')) return /<(\w+:)?codeBook[\s>]/.test(head) ? 'ddi-codebook' : 'ddi-lifecycle';
  if (head.startsWith('Jolly Fork script')) return 'script';
  return head.startsWith('{') ? inJson(bytes) : formatOfFile(name);
}

function namesIn(bytes: Uint8Array): readonly string[] {
  const names: string[] = [];
  try {
    unzipSync(bytes, { filter: ({ name }) => (names.push(name), false) });
  } catch {
    // What reads it says what is wrong with it.
  }
  return names;
}

function inZip(names: readonly string[]): FormatName {
  if (names.some((name) => name.startsWith('word/'))) return 'docx';
  if (names.some((name) => name.startsWith('xl/'))) return 'items';
  if (names.some(isDataPackageFile)) return 'data-package';
  return names.some(isCsvwFile) ? 'csvw' : 'work';
}

function inJson(bytes: Uint8Array): FormatName {
  try {
    const json = JSON.parse(new TextDecoder().decode(bytes)) as Record<string, unknown>;
    if ('format' in json) return 'document';
    if ('@context' in json || 'tableSchema' in json) return 'csvw';
    if ('resources' in json || 'fields' in json) return 'data-package';
  } catch {
    // A questionnaire that was cut off, most likely: it is told so.
  }
  return 'document';
}
