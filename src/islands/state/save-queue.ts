/**
 * Saving an open study: as operations on the revision it was made of, one save at a time. What others saved in between
 * is merged in; where both wrote in the same place, both versions stay until the person has chosen.
 */
import isEqual from 'fast-deep-equal';
import * as v from 'valibot';
import { problemText, readDocument, writeDocument } from '../../core/document/read';
import type { Questionnaire } from '../../core/document/types';
import { applyOperations, type Clash } from '../../core/editing/apply-operations';
import type { HistoryStep } from '../../core/editing/change';
import { rebased, withForeign } from '../../core/editing/history';
import { mergeVersions } from '../../core/editing/merge';
import { operationsBetween, type Operation } from '../../core/editing/operations';
import { SaveConflict, StudySaved } from '../../wire/edits';
import { NewerStudy } from '../../wire/studies';
import { addStudy, call, sendOff } from '../ui/api';
import { writeKept } from './kept';
import { dropUnsaved, keepUnsaved, thisPage } from './unsaved';

export type Saving =
  | { readonly state: 'saved' }
  /** `problem`: why the save before failed, told until one arrives. */
  | { readonly state: 'waiting' | 'saving'; readonly problem?: string | undefined }
  | { readonly state: 'failed'; readonly problem: string }
  | {
      readonly state: 'conflict';
      /** Why choosing failed; null at first. */
      readonly problem: string | null;
      readonly theirs: Questionnaire;
      readonly revision: number;
      readonly changedAt: number;
    };

/** The part of the study's state that saving is about. */
export interface SavingState {
  readonly id: string;
  readonly document: Questionnaire;
  /** The last version known to be on the server, with its revision. */
  readonly base: Questionnaire;
  readonly revision: number;
  readonly savedAt: number;
  readonly saving: Saving;
  /** Whether what is not saved is kept in this browser; `full`: there is no room for it. */
  readonly keeping: 'kept' | 'full';
  readonly past: readonly HistoryStep[];
  readonly future: readonly HistoryStep[];
}

/** A version that came from the server. */
export interface ServerVersion {
  readonly document: unknown;
  readonly revision: number;
  readonly changedAt: number;
}

const SAVE_AFTER = 400;
/** Of typing that does not stop. */
const SAVE_AT_LATEST = 2000;
const RETRY_AFTER = 4000;
const KEEP_AFTER = 300;
/** Above, the whole document is sent instead. */
const MOST_OPERATIONS = 2000;

export class SaveQueue {
  private timer: ReturnType<typeof setTimeout> | undefined;
  private keeping: ReturnType<typeof setTimeout> | undefined;
  private busy = false;
  /** Whether this page has left its work in the browser's database. */
  private isInDatabase = false;
  /** When the first change was made that no save has taken along; milliseconds since 1970. */
  private waitingSince: number | null = null;

  /**
   * `set` shows another document as well where it names one. `sent`: what was on its way when the page went; where the
   * server has just this, it was ours.
   */
  constructor(
    private readonly get: () => SavingState,
    private readonly set: (next: Partial<SavingState>) => void,
    private sent: Questionnaire | null,
  ) {}

  /** Keeps in the tab what is not kept there yet. */
  readonly keep = (): void => {
    clearTimeout(this.keeping);
    const { id, base, document, saving, revision, past, future } = this.get();
    const unsaved = saving.state === 'saved' ? null : document;
    const page = thisPage();
    const inTab = writeKept(id, { base, document: unsaved, sent: this.sent, revision, page, past, future });
    if (unsaved === null) {
      if (this.get().keeping === 'full') this.set({ keeping: 'kept' });
      if (this.isInDatabase) void dropUnsaved(page);
      this.isInDatabase = false;
      return;
    }
    this.isInDatabase = true;
    void keepUnsaved({ page, study: id, base, document: unsaved, revision, at: Date.now() }).then((kept) => {
      const keeping = kept || inTab ? 'kept' : 'full';
      if (this.get().keeping !== keeping) this.set({ keeping });
    });
  };

  /** Keeps and sends what is not saved as the page goes: nobody is there to hear whether it arrived. */
  readonly leave = (): void => {
    this.keep();
    const { id, document, saving } = this.get();
    let { base, revision } = this.get();
    if (saving.state === 'saved' || saving.state === 'conflict') return;
    if (this.busy && this.sent !== null) {
      // A save is on its way, and makes the next revision.
      [base, revision] = [this.sent, revision + 1];
      if (document === base) return;
    }
    const operations = operationsBetween(base, document);
    sendOff('PATCH', `/api/studies/${id}`, { revision, operations });
    this.sent = document;
  };

  /** Takes up what another visit left: as if this page had not gone, with what others saved since taken in as ever. */
  takeUp({ base, document, revision }: Pick<SavingState, 'base' | 'document' | 'revision'>): void {
    const { base: theirs, revision: newest, savedAt } = this.get();
    this.set({ base, document, revision, saving: { state: 'waiting' } });
    if (revision === newest) this.saveSoon(0);
    else this.absorb({ document: theirs, revision: newest, changedAt: savedAt }, document);
    this.keepSoon();
  }

  /** Not with every key: writing out a large study takes longer than showing it. A page that goes keeps at once. */
  private keepSoon(): void {
    clearTimeout(this.keeping);
    this.keeping = setTimeout(this.keep, KEEP_AFTER);
  }

  private saveSoon(after = SAVE_AFTER): void {
    clearTimeout(this.timer);
    const now = Date.now();
    this.waitingSince ??= now;
    // Whoever types on without a pause is saved all the same.
    const left = Math.max(0, this.waitingSince + SAVE_AT_LATEST - now);
    this.timer = setTimeout(() => void this.save(), after > SAVE_AFTER ? after : Math.min(after, left));
  }

  /** To be called after every change. */
  changed(): void {
    const stopped = this.get().saving.state === 'conflict';
    if (!stopped) this.set({ saving: this.pending('waiting') });
    this.keepSoon();
    if (!stopped) this.saveSoon();
  }

  private pending(state: 'waiting' | 'saving'): Saving {
    const { saving } = this.get();
    const tried = saving.state === 'failed' || saving.state === 'waiting' || saving.state === 'saving';
    return { state, problem: tried ? saving.problem : undefined };
  }

  saveNow(): void {
    const { state } = this.get().saving;
    if (state === 'waiting' || state === 'failed') this.saveSoon(0);
  }

  private async save(): Promise<void> {
    // One at a time: the next names the revision that this one makes.
    if (this.busy || this.get().saving.state === 'conflict') return;
    this.busy = true;
    this.waitingSince = null;
    const { document, base, revision } = this.get();
    const earlier = this.sent;
    this.sent = document;
    this.set({ saving: this.pending('saving') });
    this.keepSoon();
    const reply = await this.send(document, base, revision);
    this.busy = false;
    if (reply.ok) {
      this.sent = null;
      this.arrived(document, reply.body.revision, reply.body.changedAt);
      return;
    }
    const newer = v.safeParse(SaveConflict, reply.body);
    if (reply.status === 409 && newer.success) {
      this.sent = null;
      this.absorb(newer.output.study, earlier);
      return;
    }
    if (reply.status !== 0) this.sent = null;
    this.set({ saving: { state: 'failed', problem: reply.problem } });
    // A server that is away, or has no room, may have it again; and whoever was signed out may sign in elsewhere.
    if (reply.status === 0 || reply.status === 401 || reply.status >= 500) this.saveSoon(RETRY_AFTER);
  }

  /** As operations, if those make just this document. */
  private send(document: Questionnaire, base: Questionnaire, revision: number) {
    const path = `/api/studies/${this.get().id}`;
    const operations = operationsBetween(base, document);
    const fits =
      operations.length <= MOST_OPERATIONS && isEqual(applyOperations(base, operations).document, document);
    return fits
      ? call(StudySaved, 'PATCH', path, { revision, operations })
      : call(StudySaved, 'PUT', path, { revision, document });
  }

  private arrived(base: Questionnaire, revision: number, at: number): void {
    const current = this.get().document === base;
    this.set({ base, revision, savedAt: at, saving: { state: current ? 'saved' : 'waiting' } });
    this.keepSoon();
    if (!current) this.saveSoon();
  }

  /** Asks whether others have saved something, and takes it in. */
  async look(): Promise<void> {
    const { id, revision, saving } = this.get();
    if (this.busy || saving.state === 'conflict') return;
    const reply = await call(NewerStudy, 'GET', `/api/studies/${id}?after=${revision}`);
    // A save of one's own meanwhile learns it by itself.
    if (!reply.ok || this.busy || this.get().revision !== revision) return;
    const { document, changedAt, revision: newer } = reply.body;
    if (document === undefined || changedAt === undefined) return;
    this.absorb({ document, changedAt, revision: newer }, this.sent);
  }

  /** Takes in a version of others. `sent`: an earlier save of ours whose answer was lost. */
  absorb({ document, revision, changedAt }: ServerVersion, sent: Questionnaire | null): void {
    const read = readDocument(document);
    if (!read.ok) return;
    const { document: mine, base } = this.get();
    const theirs = read.document;
    // What was sent counts as known only if it did arrive.
    const arrived = sent !== null && isPartOf(operationsBetween(base, sent), theirs);
    for (const known of arrived ? [base, sent] : [base]) {
      const { document: merged, clashes } = together({ base: known, mine, theirs });
      if (clashes.length > 0) continue;
      this.take(merged, theirs, revision, changedAt);
      return;
    }
    this.set({ saving: { state: 'conflict', problem: null, theirs, revision, changedAt } });
    this.keepSoon();
  }

  /** Shows what was made of both versions; theirs is on the server. */
  private take(merged: Questionnaire, theirs: Questionnaire, revision: number, changedAt: number): void {
    const { document: mine, past, future } = this.get();
    const settled = isEqual(merged, theirs);
    const now = isEqual(merged, mine) ? mine : settled ? theirs : merged;
    this.set({
      document: now,
      base: settled ? now : theirs,
      revision,
      savedAt: changedAt,
      saving: { state: settled ? 'saved' : 'waiting' },
      past: withForeign(past, mine, now),
      future: rebased(future, mine, now),
    });
    this.keepSoon();
    if (!settled) this.saveSoon();
  }

  /** Settles a conflict clash by clash. */
  settle(keepMine: (clash: Clash) => boolean): void {
    const { saving, document: mine, base } = this.get();
    if (saving.state !== 'conflict') return;
    const { theirs, revision, changedAt } = saving;
    const { document } = together({ base, mine, theirs }, keepMine);
    const read = readDocument(document);
    if (!read.ok) {
      const [first] = read.problems;
      const why = first === undefined ? '' : ` (${problemText(first)})`;
      const problem = `Chosen like this, the questionnaire cannot be used${why}: choose otherwise, or keep one version.`;
      this.set({ saving: { ...saving, problem } });
      return;
    }
    this.take(document, theirs, revision, changedAt);
  }

  /** Settles a conflict as a whole: theirs is shown here; `copy` first makes a study of its own of mine. */
  async takeTheirs(mine: 'copy' | 'drop'): Promise<void> {
    const { saving, document } = this.get();
    if (saving.state !== 'conflict') return;
    if (mine === 'copy') {
      const copy = await addStudy({ ...document, title: `${document.title} (my version)` });
      if (!copy.ok) {
        this.set({ saving: { ...saving, problem: `Your version could not be copied: ${copy.problem}` } });
        return;
      }
    }
    this.take(saving.theirs, saving.theirs, saving.revision, saving.changedAt);
  }
}

/**
 * Merged, if the two together can be used; otherwise everything that is mine clashes, and of it stands what is chosen: all of
 * it is mine as a whole, nothing of it is theirs.
 */
export function together(
  versions: Parameters<typeof mergeVersions>[0],
  choose: (clash: Clash) => boolean = () => false,
): ReturnType<typeof mergeVersions> {
  const merged = mergeVersions(versions, choose);
  if (merged.clashes.length > 0 || readDocument(merged.document).ok) return merged;
  const { base, mine, theirs } = versions;
  const operations = operationsBetween(base, mine);
  const clashes = operations.map((operation) => ({ operation, theirs: undefined, gone: false }));
  const stand = clashes.filter(choose).map(({ operation }) => operation);
  if (stand.length === operations.length) return { document: mine, clashes };
  return { document: applyOperations(theirs, stand, new Set(stand)).document, clashes };
}

/** Whether a version holds already what operations make. */
export function isPartOf(operations: readonly Operation[], version: Questionnaire): boolean {
  const { document, clashes } = applyOperations(version, operations);
  return clashes.length === 0 && document === version;
}

/** The same content, whatever the order of properties. */
export function isSameDocument(a: Questionnaire, b: Questionnaire): boolean {
  return a === b || writeDocument(a) === writeDocument(b);
}
