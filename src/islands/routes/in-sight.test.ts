/** The current row of the ledger stays in sight, whatever comes first: the scrolling, or a line that takes room. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { rowToShow, type InSight } from './in-sight';

const LAST = 10n ** 30n;
const at = (first: bigint, fits: number, place: bigint): InSight => ({ first, fits, place, list: 'all' });

it('comes into sight when it changes, at the nearest end', () => {
  assert.equal(rowToShow(at(0n, 20, 0n), at(0n, 20, LAST)), LAST - 19n);
  assert.equal(rowToShow(at(40n, 20, 45n), at(40n, 20, 30n)), 30n);
  assert.equal(rowToShow(at(40n, 20, 45n), at(40n, 20, 50n)), null);
});

it('comes into sight in another list', () => {
  assert.equal(rowToShow({ ...at(40n, 20, 5n), list: 'few' }, at(40n, 20, 5n)), 5n);
});

it('stays in sight when room is taken away, also while it is still being scrolled to', () => {
  // Scrolled to the last row; before that is drawn, the line below the sheet grows. What was about to be first counts.
  const scrolled = { ...at(0n, 23, LAST), first: LAST - 22n };
  assert.equal(rowToShow(scrolled, at(LAST - 22n, 16, LAST)), LAST - 15n);
});

it('is not fetched back where somebody scrolled it out by hand', () => {
  assert.equal(rowToShow(at(500n, 20, 3n), at(520n, 20, 3n)), null);
  assert.equal(rowToShow(at(500n, 20, 3n), at(500n, 16, 3n)), null);
});

it('is in sight on the first and on the last row that fits, and not on the one behind', () => {
  const moved = (place: bigint) => rowToShow(at(40n, 20, 45n), at(40n, 20, place));
  assert.deepEqual([moved(40n), moved(59n), moved(60n), moved(39n)], [null, null, 41n, 39n]);
  // It was in sight on the last row that fitted before.
  assert.equal(rowToShow(at(40n, 20, 59n), at(40n, 19, 59n)), 41n);
  assert.equal(rowToShow(at(40n, 20, 60n), at(40n, 19, 60n)), null);
  // And on the first row, which a line above the sheet has taken out of sight.
  assert.equal(rowToShow(at(40n, 20, 40n), at(41n, 19, 40n)), 40n);
  assert.equal(rowToShow(at(40n, 20, 39n), at(41n, 19, 39n)), null);
});
