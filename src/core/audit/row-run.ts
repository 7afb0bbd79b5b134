/** Rows walked by the fast runner, and what was on show in the last one. */
import type { ShownParts } from '../routing/answers';
import type { Runner } from '../routing/runner';
import type { RunnerItem } from '../routing/runner-program';

/** One for a file, run by one row after the other. */
export class RowRun {
  /** By `itemAt`: presented in the last run, and left out by a draw. */
  readonly presented: Uint8Array;
  readonly undrawn: Uint8Array;
  /** Of the last run, of items with options or rows that not everybody sees. */
  private readonly shown = new Map<number, ShownParts>();
  private readonly known = new Map<string, number>();
  /** By the index of an item: the first that has its key, which they share in a questionnaire with errors. */
  private readonly first: Int32Array;

  constructor(readonly runner: Runner) {
    const { items } = runner;
    this.presented = new Uint8Array(items.length);
    this.undrawn = new Uint8Array(items.length);
    for (const { key, index } of items) if (!this.known.has(key)) this.known.set(key, index);
    this.first = Int32Array.from(items, ({ key }) => this.itemAt(key));
  }

  /** Where an item is known by its key, `name` or `name#pass`; -1 where there is none. */
  itemAt(key: string): number {
    return this.known.get(key) ?? -1;
  }

  /** Whose answers have been put; the index of the ending. */
  run(row: { isDrawn(item: RunnerItem): boolean; isFull(quota: string): boolean }): number {
    const { runner, presented, undrawn, shown, first } = this;
    if (shown.size > 0) shown.clear();
    const ending = runner.run({
      isDrawn: (item) => row.isDrawn(item),
      isFull: (quota) => row.isFull(quota),
      shows: ({ index }, of) => void shown.set(first[index] as number, of),
    });
    presented.fill(0);
    for (let n = 0; n < runner.count; n += 1) presented[first[runner.presented[n] as number] as number] = 1;
    undrawn.fill(0);
    for (let n = 0; n < runner.undrawnCount; n += 1)
      undrawn[first[(runner.undrawn[n] as RunnerItem).index] as number] = 1;
    return ending;
  }

  /** What of an item was on show; null where it was not presented. */
  shownAt(at: number): ShownParts | null {
    if (this.presented[at] !== 1) return null;
    return this.shown.get(at) ?? this.runner.shownOf(this.runner.items[at] as RunnerItem);
  }
}
