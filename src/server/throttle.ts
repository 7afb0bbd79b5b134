/**
 * How often something may be tried in a span of time, by one address and by all together: what goes beyond is refused
 * unseen.
 */

export interface ThrottleLimits {
  /** Tries of one address in `eachSpan` milliseconds. */
  readonly each: number;
  readonly eachSpan: number;
  /** Tries in all in `allSpan` milliseconds. */
  readonly all: number;
  readonly allSpan: number;
}

export class Throttle {
  /** When each try was made, the oldest first. */
  private tries: { readonly from: string; readonly at: number }[] = [];

  constructor(private readonly limits: ThrottleLimits) {}

  /**
   * Books a try and gives 0, or the milliseconds to wait. It is booked before it is known how it goes, so that many at
   * once are no more than many in turn.
   */
  take(address: string, now: number): number {
    const { each, eachSpan, all, allSpan } = this.limits;
    const from = networkOf(address);
    // A clock that was put back would else keep a try for as long as that was.
    this.tries = this.tries.filter(({ at }) => at <= now && at > now - Math.max(eachSpan, allSpan));
    const own = this.tries.filter((one) => one.from === from && one.at > now - eachSpan);
    const any = this.tries.filter(({ at }) => at > now - allSpan);
    const wait = Math.max(untilFree(own, each, eachSpan, now), untilFree(any, all, allSpan, now));
    if (wait === 0) this.tries.push({ from, at: now });
    return wait;
  }

  /** Takes back what an address has booked: it was let in. */
  forgive(address: string): void {
    const from = networkOf(address);
    this.tries = this.tries.filter((one) => one.from !== from);
  }
}

function untilFree(
  tries: readonly { readonly at: number }[],
  most: number,
  span: number,
  now: number,
): number {
  const oldest = tries[tries.length - most];
  return oldest === undefined ? 0 : oldest.at + span - now;
}

/** Whoever has one address of IPv6 has its whole network of 64 bits. */
function networkOf(address: string): string {
  const plain = address.replace(/^::ffff:(?=\d+\.)/i, '').replace(/%.*$/, '');
  if (!plain.includes(':')) return plain;
  const [head = '', tail] = plain.split('::');
  const before = head === '' ? [] : head.split(':');
  const after = tail === undefined || tail === '' ? [] : tail.split(':');
  const all = [
    ...before,
    ...Array<string>(Math.max(0, 8 - before.length - after.length)).fill('0'),
    ...after,
  ];
  return all
    .slice(0, 4)
    .map((part) => part.replace(/^0+(?=.)/, '').toLowerCase())
    .join(':');
}
