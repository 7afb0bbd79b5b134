/** Lists of routes made of others: without some, few or many, or with some in front. */
import type { RoutesLeft } from './filters';

/** All of them but those with the given numbers. */
export function without(left: RoutesLeft, numbers: readonly bigint[]): RoutesLeft {
  const gone = numbers
    .flatMap((number) => left.positionOf(number) ?? [])
    .sort((a, b) => (a < b ? -1 : a > b ? 1 : 0))
    .filter((position, n, all) => n === 0 || position !== all[n - 1]);
  /** How many of those gone stand at a position or before it. */
  const goneUpTo = (position: bigint) => {
    let [low, high] = [0, gone.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((gone[middle] as bigint) <= position) low = middle + 1;
      else high = middle;
    }
    return low;
  };
  const total = left.total - BigInt(gone.length);
  return {
    total,
    numberOf(k) {
      if (k < 1n || k > total) return null;
      let position = k;
      for (let next = k + BigInt(goneUpTo(k)); next !== position;) {
        position = next;
        next = k + BigInt(goneUpTo(position));
      }
      return left.numberOf(position);
    },
    positionOf(number) {
      const position = left.positionOf(number);
      if (position === null) return null;
      const before = goneUpTo(position);
      return gone[before - 1] === position ? null : position - BigInt(before);
    },
  };
}

/** Those of the given numbers that are among them first, in the order given, then the others; none stands twice. */
export function withFront(
  left: RoutesLeft,
  numbers: readonly bigint[],
): RoutesLeft & { readonly front: number } {
  const positions = new Set<bigint>();
  const front = numbers.filter((number) => {
    const position = left.positionOf(number);
    if (position === null || positions.has(position)) return false;
    positions.add(position);
    return true;
  });
  const rest = without(left, front);
  const places = new Map(front.map((number, n) => [number, BigInt(n + 1)]));
  const length = BigInt(front.length);
  return {
    front: front.length,
    total: left.total,
    numberOf: (k) => (k >= 1n && k <= length ? (front[Number(k) - 1] ?? null) : rest.numberOf(k - length)),
    positionOf(number) {
      const place = places.get(number);
      if (place !== undefined) return place;
      const inAll = left.positionOf(number);
      const same = inAll === null ? -1 : front.findIndex((each) => left.positionOf(each) === inAll);
      if (same >= 0) return BigInt(same + 1);
      const position = rest.positionOf(number);
      return position === null ? null : position + length;
    },
  };
}

/** All of them but `some`, which are all among them and may be any number; both in ascending order. */
export function less(all: RoutesLeft, some: RoutesLeft): RoutesLeft {
  /** How many of `some` have this number or a lower one. */
  const someUpTo = (number: bigint) =>
    firstFrom(some.total, (k) => (some.numberOf(k) ?? number + 1n) > number) - 1n;
  const total = all.total - some.total;
  return {
    total,
    numberOf(k) {
      if (k < 1n || k > total) return null;
      const position = firstFrom(all.total, (at) => {
        const number = all.numberOf(at);
        return number !== null && at - someUpTo(number) >= k;
      });
      return all.numberOf(position);
    },
    positionOf(number) {
      const position = some.positionOf(number) === null ? all.positionOf(number) : null;
      return position === null ? null : position - someUpTo(number);
    },
  };
}

/** The first of 1 to `most` for which something holds that holds from there on; one more than `most` where there is none. */
function firstFrom(most: bigint, holds: (k: bigint) => boolean): bigint {
  let [low, high] = [1n, most + 1n];
  while (low < high) {
    const middle = (low + high) / 2n;
    if (holds(middle)) high = middle;
    else low = middle + 1n;
  }
  return low;
}

/** Just these, those that exist, in the order given. */
export function listed(numbers: readonly bigint[]): RoutesLeft {
  const places = new Map(numbers.map((number, n) => [number, BigInt(n + 1)]));
  return {
    total: BigInt(numbers.length),
    numberOf: (k) => (k < 1n ? null : (numbers[Number(k) - 1] ?? null)),
    positionOf: (number) => places.get(number) ?? null,
  };
}
