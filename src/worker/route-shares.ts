/** Shares of the sample, worked out where they are first asked for, and of as many routes as anybody looks at. */
import { TooMuch, type Shares } from '../core/analysis';

/** Of so many routes shares are told before they are made anew where one more is too much for what they have. */
const MANY = 50;

export class RouteShares {
  /** Undefined until they have been asked for. */
  private found: Shares | null | undefined;
  /** Of how many routes they have told since they were made. */
  private told = 0;

  constructor(private readonly make: () => Shares | null) {}

  /** Null where they are not known exactly. */
  get now(): Shares | null {
    if (this.found === undefined) this.found = this.make();
    return this.found;
  }

  /** The share that takes a route; null where it is not known exactly, or too entangled. */
  ofRoute(route: Parameters<Shares['ofRoute']>[0]): number | null {
    try {
      const share = this.now?.ofRoute(route) ?? null;
      this.told += 1;
      return share;
    } catch (error) {
      if (!(error instanceof TooMuch)) throw error;
      if (this.told < MANY) return null;
      // What was told before takes room: without it this one may be told as well.
      this.found = undefined;
      this.told = 0;
      return this.ofRoute(route);
    }
  }
}
