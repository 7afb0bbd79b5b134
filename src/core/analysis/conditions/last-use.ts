/** Until when each variable matters, so that what is known of it can be forgotten behind that. */
import type { Diagram, Diagrams } from '../diagrams/diagram';

/** A moment is twice the number of a place, for those who come to it, and one more on leaving it. */
export class LastUse {
  private readonly moments = new Map<number, number>();

  constructor(private readonly diagrams: Diagrams) {}

  /** Notes that the variables of a diagram matter at a moment; gives it back. */
  used(diagram: Diagram, moment: number): Diagram {
    for (const level of this.diagrams.support(diagram)) {
      if ((this.moments.get(level) ?? -1) < moment) this.moments.set(level, moment);
    }
    return diagram;
  }

  /** Whether a variable matters to nobody who comes to a place, or has gone by it. */
  isPastAt(at: number): (level: number) => boolean {
    return (level) => (this.moments.get(level) ?? -1) < 2 * at;
  }

  /** Whether a variable matters to nobody who has been presented the item at a place. */
  isDeadAt(at: number): (level: number) => boolean {
    return (level) => (this.moments.get(level) ?? -1) <= 2 * at;
  }

  /** The last place at which a variable matters; 0 where none does. */
  lastPlaceOf(level: number): number {
    return Math.floor((this.moments.get(level) ?? 0) / 2);
  }
}
