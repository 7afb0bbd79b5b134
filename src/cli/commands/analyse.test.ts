/** What is said of a covering set: that it is whole only where it is. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { coverSentence } from './analyse';

const route = { number: 1n, items: [], ending: 'done', answers: {}, alone: [] };

it('claims every fork of a covering set only where it takes all that anybody can meet', () => {
  const cover = { routes: [route, { ...route, number: 2n }], atLeast: 2, of: 9, complete: true };
  assert.equal(
    coverSentence({ ...cover, outcomes: 9 }),
    'These 2 routes between them take every fork both ways, and present every item, ending and message that anybody meets\n(9 outcomes); fewer cannot.',
  );
  assert.equal(
    coverSentence({ ...cover, outcomes: 7 }),
    'These 2 routes between them take 7 of 9 outcomes of forks, items, endings and messages\nthat anybody meets; no route was found for the others: there are too many forks to tell apart.',
  );
});
