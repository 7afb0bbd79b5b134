/** Lists made of others, against the same done on arrays of numbers. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import fc from 'fast-check';
import { less, listed, withFront, without } from './lists';
import type { RoutesLeft } from './filters';

const ascending = fc
  .uniqueArray(fc.bigInt(1n, 60n), { maxLength: 25 })
  .map((numbers) => numbers.sort((a, b) => (a < b ? -1 : 1)));
/** Some numbers, and which of them are taken away. */
const parts = ascending.chain((all) => fc.tuple(fc.constant(all), fc.subarray(all)));

function isList(left: RoutesLeft, numbers: readonly bigint[]): void {
  assert.equal(left.total, BigInt(numbers.length));
  for (let k = 0n; k <= BigInt(numbers.length) + 1n; k += 1n)
    assert.equal(left.numberOf(k), k < 1n ? null : (numbers[Number(k) - 1] ?? null), `number ${k}`);
  for (let number = 0n; number <= 61n; number += 1n) {
    const position = numbers.indexOf(number);
    assert.equal(left.positionOf(number), position < 0 ? null : BigInt(position + 1), `position ${number}`);
  }
}

it('leaves out some of a list, whether they are listed or a list themselves', () => {
  fc.assert(
    fc.property(parts, ([all, some]) => {
      const left = all.filter((number) => !some.includes(number));
      isList(less(listed(all), listed(some)), left);
      isList(without(listed(all), some), left);
    }),
  );
});

it('has some of its numbers in front, each once, in the order in which they are named', () => {
  fc.assert(
    fc.property(ascending, fc.array(fc.bigInt(1n, 60n), { maxLength: 12 }), (all, named) => {
      const wanted = [...new Set(named)].filter((number) => all.includes(number));
      const { front, ...left } = withFront(listed(all), named);
      const numbers = [...wanted, ...all.filter((number) => !wanted.includes(number))];
      assert.equal(front, wanted.length);
      isList(left as RoutesLeft, numbers);
    }),
  );
});
