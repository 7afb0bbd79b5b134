/** Tries are counted by address and in all. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { Throttle } from './throttle';

const make = () => new Throttle({ each: 3, eachSpan: 1000, all: 5, allSpan: 4000 });

describe('a throttle', () => {
  it('lets an address try so often in a span, and says how long to wait', () => {
    const throttle = make();
    assert.deepEqual(
      [0, 100, 200, 300, 999, 1000, 1001].map((at) => throttle.take('10.0.0.1', at)),
      [0, 0, 0, 700, 1, 0, 99],
    );
    assert.equal(throttle.take('10.0.0.2', 1001), 0);
  });

  it('counts all addresses together as well, and a network of IPv6 as one', () => {
    const throttle = make();
    for (let n = 0; n < 5; n += 1) assert.equal(throttle.take(`10.0.0.${n}`, n), 0);
    assert.equal(throttle.take('10.0.0.99', 10), 3990);
    const six = make();
    for (const address of ['fd00:0:0:1::1', 'fd00::1:a:b:c:d', 'FD00:0000:0:1:9::'])
      assert.equal(six.take(address, 0), 0, address);
    assert.equal(six.take('fd00:0:0:1::99', 1), 999);
    assert.equal(six.take('fd00:0:0:2::1', 1), 0);
  });

  it('forgets what an address tried that was let in, and what lies ahead of a clock that was put back', () => {
    const throttle = make();
    for (let n = 0; n < 3; n += 1) throttle.take('10.0.0.1', 50_000);
    throttle.forgive('10.0.0.1');
    assert.equal(throttle.take('10.0.0.1', 50_000), 0);
    for (let n = 0; n < 3; n += 1) throttle.take('10.0.0.1', 50_000);
    assert.equal(throttle.take('10.0.0.1', 10), 0);
  });
});
