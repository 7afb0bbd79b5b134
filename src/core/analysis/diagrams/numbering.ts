/** Small numbers for whatever was met before: equal things have the same. */

export class Numbering<Thing> {
  private readonly numbers = new Map<Thing, number>();

  /** From 0, in the order in which things are met. */
  of(thing: Thing): number {
    let number = this.numbers.get(thing);
    if (number === undefined) {
      number = this.numbers.size;
      this.numbers.set(thing, number);
    }
    return number;
  }
}
