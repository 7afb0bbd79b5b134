/** Reads a questionnaire's own file; apart from the other readers, since most commands need no other. */
import { problemText, readDocumentText } from '../../document/read';
import type { Questionnaire } from '../../document/types';

/** In bytes: as large as a questionnaire with pictures may be sent. */
export const MOST_DOCUMENT = 20_000_000;

type ReadDocument =
  | { readonly ok: true; readonly document: Questionnaire }
  /** Sentences, the gravest first. */
  | { readonly ok: false; readonly problems: readonly string[] };

export function readDocumentFile(bytes: Uint8Array): ReadDocument {
  if (bytes.length > MOST_DOCUMENT)
    return {
      ok: false,
      problems: [`it is larger than ${MOST_DOCUMENT / 1e6} MB: make its pictures smaller`],
    };
  const read = readDocumentText(new TextDecoder().decode(bytes));
  return read.ok ? read : { ok: false, problems: read.problems.map(problemText) };
}
