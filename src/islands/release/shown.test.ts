/** Which two versions the address names. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { heldAgainst, readReleaseShown, releaseSearch } from './shown';

const versions = [{ number: 3 }, { number: 2 }, { number: 1 }];

it('reads what it wrote, and leaves out what is no version', () => {
  for (const shown of [
    { leaf: 'compare', of: null, against: null, watched: null },
    { leaf: 'trial', of: 3, against: 1, watched: null },
    { leaf: 'compare', of: 2, against: null, watched: null },
    { leaf: 'trial', of: null, against: null, watched: { link: 'abcdefghij_-0', asked: 0 } },
    { leaf: 'trial', of: null, against: null, watched: { link: 'abcdefghij_-0', asked: 1 } },
    { leaf: 'trial', of: null, against: null, watched: { link: 'abcdefghij_-0', asked: 2 } },
  ] as const)
    assert.deepEqual(readReleaseShown(releaseSearch(shown)), shown);
  const watched = { link: 'abcdefghij_-0', asked: 0 };
  assert.equal(
    releaseSearch({ leaf: 'trial', of: null, against: null, watched }),
    '?leaf=trial&link=abcdefghij_-0',
  );
  assert.equal(releaseSearch({ leaf: 'compare', of: null, against: null, watched: null }), '?');
  assert.deepEqual(readReleaseShown('?of=x&against=-1&leaf=y&link=/..&asked=x'), {
    ...{ leaf: 'compare', of: null, against: null, watched: null },
  });
});

it('holds a version against the one asked for, else the one before it', () => {
  assert.equal(heldAgainst(versions, { of: null, against: null }), 3);
  assert.equal(heldAgainst(versions, { of: 3, against: null }), 2);
  assert.equal(heldAgainst(versions, { of: 1, against: null }), null);
  assert.equal(heldAgainst(versions, { of: null, against: 1 }), 1);
  // A later one is held against as well, but none against itself or one that is not there.
  assert.equal(heldAgainst(versions, { of: 1, against: 3 }), 3);
  assert.equal(heldAgainst(versions, { of: 2, against: 2 }), 1);
  assert.equal(heldAgainst(versions, { of: null, against: 9 }), 3);
  // In whatever order they come.
  assert.equal(heldAgainst([...versions].reverse(), { of: null, against: null }), 3);
  assert.equal(heldAgainst([], { of: null, against: null }), null);
});
