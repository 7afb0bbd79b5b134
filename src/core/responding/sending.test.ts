/** When a case is sent again, and when it never is. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { afterTry, NOT_SENT, triedAnew } from './sending';

const NOW = 1_000_000;
const HALF = 0.5;

describe('sending a case', () => {
  it('is over once it is taken, whichever way the receiver says so', () => {
    for (const status of [200, 201, 204]) {
      const sent = afterTry(NOT_SENT, { status }, NOW, HALF);
      assert.deepEqual(sent, { takenAt: NOW, tries: 1, nextAt: null, problem: null });
      assert.equal(triedAnew(sent), sent);
    }
  });

  it('waits twice as long each time while nobody answers, up to a quarter of an hour', () => {
    let sending = NOT_SENT;
    const waits = Array.from({ length: 14 }, () => {
      sending = afterTry(sending, { fault: 'there is no network' }, NOW, HALF);
      return ((sending.nextAt ?? 0) - NOW) / 1000;
    });
    assert.deepEqual(waits, [2, 4, 8, 16, 32, 64, 128, 256, 512, 900, 900, 900, 900, 900]);
    assert.equal(sending.problem, 'there is no network');
    const [soon, late] = [0, 1].map((chance) => afterTry(NOT_SENT, { status: 503 }, NOW, chance).nextAt);
    assert.deepEqual([soon, late], [NOW + 1500, NOW + 2500]);
  });

  it('tells what may be taken later from what never will, until somebody asks for it', () => {
    const again = [408, 423, 425, 429, 500, 502, 503].map(
      (status) => afterTry(NOT_SENT, { status }, NOW, HALF).nextAt,
    );
    assert.ok(again.every((at) => at === NOW + 2000));
    for (const status of [400, 403, 404, 409, 413, 422]) {
      const refused = afterTry(NOT_SENT, { status }, NOW, HALF);
      assert.deepEqual([refused.nextAt, refused.takenAt], [null, null]);
      assert.equal(refused.problem, `the receiver answered ${status}`);
      assert.equal(triedAnew(refused).nextAt, 0);
    }
  });
});
