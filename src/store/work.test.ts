/** A study and the work on it leave one house in a file and come into another as they were. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { strToU8, zipSync } from 'fflate';
import { address } from '../core/document/addresses';
import { fromList } from '../core/exchange/from-list';
import { NO_WORK, readWork, writeWork, type Work } from '../core/exchange/work-file';
import { fingerprint } from '../core/routing/route-content';
import { openStore } from './open';
import { removeStudy, restoreStudy } from './studies';
import { addWork, workOn } from './work';

const { document } = fromList('1. Do you rent?\n- Yes\n- No\n2. Why?', 'Rent & rooms');
const walked = { answers: { q1: 1, q2: 'because' } };
const marks = ['q1 1', 'q2'];
const work: Work = {
  comments: [
    {
      place: address('item', 'q1'),
      text: 'Ask of all?',
      author: 'Ada Fenn',
      at: 5,
      settledBy: null,
      settledAt: null,
    },
    {
      place: address('item', 'q2'),
      text: 'Long.',
      author: 'Bo Lark',
      at: 6,
      settledBy: 'Ada Fenn',
      settledAt: 9,
    },
  ],
  verdicts: [
    {
      route: fingerprint(marks),
      marks,
      items: ['q1', 'q2'],
      walked,
      verdict: 'sent_back',
      remark: 'Why?',
      place: 'q2',
      reviewer: 'Ada Fenn',
      at: 7,
    },
  ],
  asides: [{ snag: 'unlabelled q1', reason: 'Labels come last.', reviewer: 'Bo Lark', at: 8 }],
  respondents: [
    { name: 'A tenant', walked, items: ['q1', 'q2'], marks, row: { q1: 1, q2: 'because' }, at: 3 },
  ],
  draws: [{ seed: 11, count: 20, at: 2 }],
};

describe('the work on a study', () => {
  it('comes back from its file into another database, all of it', () => {
    const [here, there] = [openStore(':memory:'), openStore(':memory:')];
    const { id } = addWork(here, document, work, 100);
    const bytes = writeWork(document, workOn(here, id));
    assert.deepEqual(bytes, writeWork(document, workOn(here, id)));
    const read = readWork(bytes);
    assert.ok(read.ok);
    assert.deepEqual(read.document, document);
    const other = addWork(there, read.document, read.work, 200);
    assert.deepEqual(workOn(there, other.id), work);
    // It belongs to the study: it goes and comes with it.
    removeStudy(there, other.id, 300);
    restoreStudy(there, other.id);
    assert.deepEqual(workOn(there, other.id), work);
  });

  it('is not added by half', () => {
    const db = openStore(':memory:');
    const twice: Work = { ...work, respondents: [...work.respondents, ...work.respondents] };
    assert.throws(() => addWork(db, document, twice, 100, 'one'));
    assert.deepEqual(workOn(db, 'one'), NO_WORK);
  });

  it('is refused where something in it cannot be used, in words that name the file', () => {
    const broken = (change: (files: Record<string, Uint8Array>) => void) => {
      const files: Record<string, Uint8Array> = { 'x.fork.json': strToU8(JSON.stringify(document)) };
      change(files);
      const read = readWork(zipSync(files));
      return read.ok ? '' : read.problem;
    };
    assert.match(
      broken((files) => delete files['x.fork.json']),
      /no questionnaire in it/,
    );
    assert.match(
      broken((files) => (files['y.fork.json'] = strToU8('{}'))),
      /more than one questionnaire/,
    );
    assert.match(
      broken((files) => (files['x.fork.json'] = strToU8('{'))),
      /x\.fork\.json cannot be used/,
    );
    assert.match(
      broken((files) => (files['work/asides.json'] = strToU8('[{"snag":"a"}]'))),
      /work\/asides\.json cannot be used: \[0\]\.reason/,
    );
    const forged = work.verdicts.map((verdict) => ({ ...verdict, marks: [...verdict.marks, 'more'] }));
    assert.match(
      broken((files) => (files['work/verdicts.json'] = strToU8(JSON.stringify(forged)))),
      /fingerprint/,
    );
    assert.match((readWork(strToU8('PK no zip')) as { problem: string }).problem, /no \.zip file/);
  });
});
