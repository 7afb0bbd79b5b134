/** Dates and times in words. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { momentWords } from './dates';

it('says dates in words and leaves times as they are, whatever the time zone', () => {
  assert.equal(momentWords('1940-01-01'), '1 January 1940');
  assert.equal(momentWords('2026-12-31T08:15'), '31 December 2026, 08:15');
  assert.equal(momentWords('08:15'), '08:15');
  assert.equal(momentWords('today'), 'today');
});
