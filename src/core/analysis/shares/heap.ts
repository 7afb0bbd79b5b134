/** A binary heap (Williams, "Algorithm 232: Heapsort", 1964): the first by its order comes out first. */
export class Heap<Entry> {
  private readonly entries: Entry[] = [];

  constructor(private readonly compare: (a: Entry, b: Entry) => number) {}

  push(entry: Entry): void {
    const { entries } = this;
    entries.push(entry);
    for (let at = entries.length - 1; at > 0;) {
      const parent = (at - 1) >> 1;
      if (!this.swapIfBefore(at, parent)) return;
      at = parent;
    }
  }

  pop(): Entry | undefined {
    const { entries } = this;
    const first = entries[0];
    const last = entries.pop();
    if (entries.length === 0 || last === undefined) return first;
    entries[0] = last;
    for (let at = 0; ;) {
      const [left, right] = [2 * at + 1, 2 * at + 2];
      const child = right < entries.length && this.isBefore(right, left) ? right : left;
      if (child >= entries.length || !this.swapIfBefore(child, at)) return first;
      at = child;
    }
  }

  private isBefore(a: number, b: number): boolean {
    return this.compare(this.entries[a] as Entry, this.entries[b] as Entry) < 0;
  }

  private swapIfBefore(at: number, parent: number): boolean {
    if (!this.isBefore(at, parent)) return false;
    const { entries } = this;
    [entries[at], entries[parent]] = [entries[parent] as Entry, entries[at] as Entry];
    return true;
  }
}
