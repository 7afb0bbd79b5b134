/** What is kept of a case: when it closes, what of it is timed, and how one that stops is coded. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { casesCsv, postedCase, rowOfCase } from './case-data';
import { caseAfter, caseBegun, caseStopped, inputsOf, sessionOfCase, type KeptCase } from './kept-case';
import { followed, sessionOf } from './session';

const plan = planFor(
  questionnaire(
    [
      section('a', [ask('drives', 2, { required: true })]),
      section('b', [ask('case', 3), ask('far', 2, { askIf: 'drives = 1' })], { timeLimit: 60 }),
      section('c', [ask('last', 2)]),
    ],
    { settings: { pages: 'item' } },
  ),
);
const ASKED = { title: 'Cars', version: 'Draft', checksum: '0' };
const KEY = '00000000-0000-4000-8000-000000000000';

/** A case with what was done on it, each at its second. */
function after(
  ...done: readonly (readonly [second: number, key: string, value: number] | readonly [second: number])[]
) {
  let kept: KeptCase = caseBegun(plan, { key: KEY, id: '=A1', seed: 5, given: {} }, 0);
  let state = sessionOfCase(kept);
  for (const [second, key, value] of done) {
    const ways = followed(plan, { answers: kept.answers, inputs: inputsOf(kept) });
    const session = sessionOf(plan, state, ways, (action) => {
      ({ kept, session: state } = caseAfter(plan, kept, state, action, second * 1000));
    });
    if (key === undefined) session.next();
    else session.answer(key, value ?? null);
  }
  return kept;
}

describe('a case that is kept', () => {
  const ended = after(
    [1, 'drives', 1],
    [3],
    [4, 'case', 2],
    [9],
    [10, 'far', 1],
    [12],
    [13, 'last', 2],
    [15.25],
  );

  it('times each page, begins the clock of a section once, and closes at the ending for good', () => {
    assert.deepEqual(
      ended.visits.map(({ first, seconds }) => `${first} ${seconds}`),
      ['drives 3', 'case 6', 'far 3', 'last 3.3'],
    );
    assert.deepEqual(ended.clocks, { '1 ': 3000 });
    assert.deepEqual(ended.closed, { at: 15_250, by: 'ending' });
    const more = caseAfter(
      plan,
      ended,
      sessionOfCase(ended),
      { do: 'answer', key: 'last', value: 1 },
      20_000,
    );
    assert.equal(more.kept, ended);
    assert.equal(caseStopped(plan, ended, 20_000), ended);
  });

  it('is coded as stopped at the last item that was shown, while it goes on and once it is closed so', () => {
    const begun = after([1, 'drives', 2], [3]);
    const wanted = { drives: 2, case: -3, far: -4, last: -4, ending: -4 };
    assert.deepEqual(rowOfCase(plan, begun), wanted);
    const stopped = caseStopped(plan, begun, 8000);
    assert.deepEqual(rowOfCase(plan, stopped), wanted);
    const posted = postedCase(plan, stopped, ASKED);
    assert.deepEqual(
      [posted.state, posted.ending, posted.closedAt, posted.pages.at(-1)?.seconds],
      ['stopped', null, '1970-01-01T00:00:08.000Z', 5],
    );
  });

  it('is a row of a file whose own columns make way for those of the questionnaire', () => {
    const [head, row] = casesCsv(plan, [ended], ASKED).split('\r\n');
    assert.equal(head, '_case,started,closed,state,drives,case,far,last,ending');
    // No spreadsheet runs what a case is called.
    assert.equal(row, `"'=A1",1970-01-01T00:00:00.000Z,1970-01-01T00:00:15.250Z,ended,1,2,1,2,done`);
  });
});
