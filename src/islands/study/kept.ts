/**
 * What an open study keeps in its tab, so that a reload or a lost connection loses nothing: its history, and the
 * document while it is not saved.
 */
import * as v from 'valibot';
import { readDocument, writeDocument } from '../../core/document/read';
import type { Questionnaire } from '../../core/document/types';
import type { Step } from '../../core/editing/change';
import type { InitialStudy } from './store';

/** What the tab keeps: its history, and the document where it is not saved yet. */
export interface Kept {
  readonly document: Questionnaire | null;
  /** Sent to be saved; the page may have gone before the answer came. */
  readonly sent: Questionnaire | null;
  readonly past: readonly Step[];
  readonly future: readonly Step[];
  /** Somebody else saved in between: both versions are kept until the person has chosen. */
  readonly overtaken: boolean;
}

const KeptSchema = v.object({
  revision: v.number(),
  document: v.unknown(),
  sent: v.unknown(),
  past: v.array(v.unknown()),
  future: v.array(v.unknown()),
});

const keptKey = (id: string) => `jolly-fork/open/${id}`;

/** Null where nothing is kept, or all that was kept is of a revision that was saved and then overtaken. */
export function readKept(initial: InitialStudy): Kept | null {
  try {
    const parsed = v.safeParse(KeptSchema, JSON.parse(sessionStorage.getItem(keptKey(initial.id)) ?? 'null'));
    if (!parsed.success) return null;
    const { revision, past, future } = parsed.output;
    const document = readUnsaved(parsed.output.document);
    const sent = readUnsaved(parsed.output.sent);
    const arrived = sent !== null && writeDocument(sent) === writeDocument(initial.document);
    const overtaken = revision !== initial.revision && !arrived;
    if (overtaken && document === null) return null;
    // The steps are this module's own writing in this very tab; patches that no longer fit throw when applied.
    return { document, sent, past: past as Step[], future: future as Step[], overtaken };
  } catch {
    return null;
  }
}

function readUnsaved(json: unknown): Questionnaire | null {
  if (json === null) return null;
  const read = readDocument(json);
  return read.ok ? read.document : null;
}

/** `document`: null where it is saved. Where the tab has no room, the oldest steps are let go first. */
export function writeKept(
  id: string,
  {
    document,
    sent,
    revision,
    past,
    future,
  }: Omit<Kept, 'overtaken'> & {
    readonly revision: number;
  },
): void {
  for (let steps = past.length; ; steps = Math.floor(steps / 2)) {
    try {
      const kept = { revision, document, sent, past: past.slice(past.length - steps), future };
      sessionStorage.setItem(keptKey(id), JSON.stringify(kept));
      return;
    } catch {
      if (steps === 0) return;
    }
  }
}
