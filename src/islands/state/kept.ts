/**
 * What an open study keeps in its tab, so that a reload or a lost connection loses nothing: its history, and the
 * document while it is not saved.
 */
import * as v from 'valibot';
import { readDocument } from '../../core/document/read';
import type { Questionnaire } from '../../core/document/types';
import type { HistoryStep } from '../../core/editing/change';

/** What the tab keeps. */
export interface Kept {
  /** The last version known to be saved, and its revision. */
  readonly base: Questionnaire;
  readonly revision: number;
  /** Null where it is saved. */
  readonly document: Questionnaire | null;
  /** Sent to be saved; the page may have gone before the answer came. */
  readonly sent: Questionnaire | null;
  /** The page that kept it; see `unsaved.ts`. */
  readonly page: string;
  readonly past: readonly HistoryStep[];
  readonly future: readonly HistoryStep[];
}

const KeptSchema = v.object({
  revision: v.number(),
  base: v.unknown(),
  document: v.unknown(),
  sent: v.unknown(),
  page: v.optional(v.string(), ''),
  past: v.array(v.unknown()),
  future: v.array(v.unknown()),
});

const keptKey = (id: string) => `jolly-fork/open/${id}`;

/** Null where nothing is kept that can be read. `current`: as the page came with it, which most often is what is kept. */
export function readKept(id: string, current: Questionnaire | null = null): Kept | null {
  try {
    const parsed = v.safeParse(KeptSchema, JSON.parse(sessionStorage.getItem(keptKey(id)) ?? 'null'));
    if (!parsed.success) return null;
    const { revision, page, past, future } = parsed.output;
    const isCurrent = current !== null && JSON.stringify(parsed.output.base) === JSON.stringify(current);
    const base = isCurrent ? current : readUnsaved(parsed.output.base);
    if (base === null) return null;
    const [document, sent] = [readUnsaved(parsed.output.document), readUnsaved(parsed.output.sent)];
    // The steps are this module's own writing in this very tab; patches that no longer fit throw when applied.
    return {
      base,
      revision,
      document,
      sent,
      page,
      past: past as HistoryStep[],
      future: future as HistoryStep[],
    };
  } catch {
    return null;
  }
}

function readUnsaved(json: unknown): Questionnaire | null {
  if (json === null) return null;
  const read = readDocument(json);
  return read.ok ? read.document : null;
}

/** Where the tab has no room, the oldest steps are let go first. False where even the document alone is too much. */
export function writeKept(id: string, { past, ...rest }: Kept): boolean {
  for (let steps = past.length; ; steps = Math.floor(steps / 2)) {
    try {
      sessionStorage.setItem(keptKey(id), JSON.stringify({ ...rest, past: past.slice(past.length - steps) }));
      return true;
    } catch {
      if (steps > 0) continue;
      // What is there is older, and would be taken for what was written last.
      forget(keptKey(id));
      return false;
    }
  }
}

function forget(key: string): void {
  try {
    sessionStorage.removeItem(key);
  } catch {
    // A browser that keeps nothing has nothing to forget.
  }
}
