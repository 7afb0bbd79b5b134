/** Where cases lie on this device: each under a name of its own, written whole at every change. */
import * as v from 'valibot';
import { KeptCaseSchema, type KeptCase } from '../core/responding/kept-case';

/** As much of `Storage` as is used. */
export type Kept = Pick<Storage, 'length' | 'key' | 'getItem' | 'setItem' | 'removeItem'>;

export class Shelf {
  private readonly prefix: string;
  /** Of cases that were begun before chance was drawn as it is now; see core/routing/chance.ts. */
  private readonly former: string;
  /** Cases of this page, also where the browser keeps nothing. */
  private readonly here = new Map<string, KeptCase>();
  private readonly listeners = new Set<() => void>();
  private listed: readonly KeptCase[] | null = null;
  /** Cases of which the last change is here alone. */
  private readonly unkept = new Set<string>();
  /** Why the last change is not kept, as a sentence; null where it is. */
  problem: string | null = null;

  /** `storage` null: the browser offers none. `checksum` of the questionnaire: another one has other cases. */
  constructor(
    private readonly storage: Kept | null,
    checksum: string,
  ) {
    this.prefix = `jolly-fork 2 ${checksum.slice(0, 16)} `;
    this.former = `jolly-fork ${checksum.slice(0, 16)} `;
    this.takeFormer();
    if (storage === null) this.problem = NOT_KEPT;
    this.reread();
  }

  /** Every case, the one begun last first; the same list until something changes. */
  readonly all = (): readonly KeptCase[] => {
    this.listed ??= [...this.here.values()].sort((a, b) => b.startedAt - a.startedAt);
    return this.listed;
  };

  get(key: string): KeptCase | undefined {
    return this.here.get(key);
  }

  put(kept: KeptCase): void {
    this.here.set(kept.key, kept);
    this.keep([kept.key]);
    this.changed();
  }

  remove(keys: readonly string[]): void {
    for (const key of keys) {
      this.here.delete(key);
      this.unkept.delete(key);
      this.storage?.removeItem(this.prefix + key);
    }
    // There may be room now for what found none.
    this.keep([...this.unkept]);
    this.changed();
  }

  /** What another tab has changed. */
  reread(): void {
    if (this.storage === null) return;
    for (const key of this.here.keys()) if (!this.unkept.has(key)) this.here.delete(key);
    for (let n = 0; n < this.storage.length; n += 1) {
      const name = this.storage.key(n);
      if (name === null || !name.startsWith(this.prefix)) continue;
      const kept = readCase(this.storage.getItem(name));
      // What cannot be read is left where it lies: another program may make something of it.
      if (kept !== null && !this.unkept.has(kept.key)) this.here.set(kept.key, kept);
    }
    this.changed();
  }

  /** Each keeps the draws it was begun with: seeds below 0 have those. */
  private takeFormer(): void {
    const { storage, former } = this;
    if (storage === null) return;
    const names = Array.from({ length: storage.length }, (_, n) => storage.key(n) ?? '');
    for (const name of names.filter((each) => each.startsWith(former))) {
      const kept = readCase(storage.getItem(name));
      if (kept === null) continue;
      try {
        storage.setItem(this.prefix + kept.key, JSON.stringify({ ...kept, seed: -1 - kept.seed }));
        storage.removeItem(name);
      } catch {
        // Where there is no room for both, it waits for some.
      }
    }
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Writes what is here, and says so where it could not. */
  private keep(keys: readonly string[]): void {
    for (const key of keys) {
      try {
        this.storage?.setItem(this.prefix + key, JSON.stringify(this.here.get(key)));
        this.unkept.delete(key);
      } catch {
        this.unkept.add(key);
      }
    }
    if (this.storage !== null) this.problem = this.unkept.size > 0 ? FULL : null;
  }

  private changed(): void {
    this.listed = null;
    for (const listener of this.listeners) listener();
  }
}

const NOT_KEPT =
  'This browser keeps nothing for this page: leave it open until the answers are saved as a file.';
const FULL =
  'There is no room left on this device for the last answers: save the rows as a file, then clear away what is closed.';

function readCase(text: string | null): KeptCase | null {
  try {
    const read = v.safeParse(KeptCaseSchema, JSON.parse(text ?? 'null'));
    return read.success ? read.output : null;
  } catch {
    return null;
  }
}
