/** The endpoints of a study: what each keeps, gives back and refuses, and what one study never does to another. */
import assert from 'node:assert/strict';
import { gunzipSync, gzipSync } from 'node:zlib';
import { beforeEach, describe, it } from 'node:test';
import { readWork } from '../../src/core/exchange/work-file';
import { writeDocument } from '../../src/core/document/read';
import type { Question, Questionnaire } from '../../src/core/document/types';
import { operationsBetween, type Operation } from '../../src/core/editing/operations';
import { studies } from '../../src/store/schema';
import { addStudy, findStudy } from '../../src/store/studies';
import { ask, askStudy, type Asked } from '../support/doors';
import { ask as question, questionnaire, section } from '../support/questionnaire';
import { passedBy } from '../support/verdicts';

process.env.JOLLY_FORK_DATA = ':memory:';
const { store } = await import('../../src/store/open');

const first = questionnaire([section('a', [question('fuel'), question('cars')])], { title: 'First' });
const titled = (document: Questionnaire, title: string): Questionnaire => ({ ...document, title });
const edits = (before: Questionnaire, after: Questionnaire): Operation[] => [
  ...operationsBetween(before, after),
];

/** Fresh studies for every case; the database is one for the process. */
let [study, other] = ['', ''];
let made = 0;
beforeEach(() => {
  made += 1;
  [study, other] = [`study-${made}`, `other-${made}`];
  addStudy(store(), first, 1, study);
  addStudy(store(), titled(first, 'Other'), 1, other);
});

async function answer(door: string, method: string, asked: Asked = {}, of = study) {
  const response = await askStudy(of, door, method, asked);
  const text = await response.text();
  return { status: response.status, body: JSON.parse(text) as unknown };
}
const send = (door: string, method: string, body: unknown, of = study) => answer(door, method, { body }, of);
/** The sentence of a refusal, after its number. */
async function refused(asked: Promise<{ status: number; body: unknown }>): Promise<string> {
  const { status, body } = await asked;
  return `${status} ${(body as { problem?: string }).problem ?? 'not refused'}`;
}

describe('saving', () => {
  it('takes edits on the last revision, and says which is the next', async () => {
    const operations = edits(first, titled(first, 'Second'));
    const { status, body } = await send('index', 'PATCH', { revision: 1, operations });
    assert.equal(status, 200);
    assert.equal((body as { revision: number }).revision, 2);
    assert.deepEqual(findStudy(store(), study)?.document, titled(first, 'Second'));
  });

  it('refuses an overtaken revision with what is there now, and changes nothing', async () => {
    await send('index', 'PUT', { revision: 1, document: titled(first, 'Theirs') });
    for (const [method, body] of [
      ['PATCH', { revision: 1, operations: edits(first, titled(first, 'Mine')) }],
      ['PUT', { revision: 1, document: titled(first, 'Mine') }],
      // One that was never there is no newer than the last.
      ['PUT', { revision: 9, document: titled(first, 'Mine') }],
    ] as const) {
      const late = await send('index', method, body);
      assert.equal(late.status, 409, method);
      const { study: theirs } = late.body as { study: { revision: number; document: Questionnaire } };
      assert.deepEqual([theirs.revision, theirs.document.title], [2, 'Theirs']);
    }
    assert.equal(findStudy(store(), study)?.document.title, 'Theirs');
  });

  it('refuses edits that do not fit the revision they name, and what is no questionnaire, by its place', async () => {
    const elsewhere = edits(titled(first, 'Another'), titled(first, 'Mine'));
    assert.match(
      await refused(send('index', 'PATCH', { revision: 1, operations: elsewhere })),
      /^422 Not saved: these edits do not fit/,
    );
    const unfit = { ...first, sections: [{ ...first.sections[0], title: 7 }] };
    assert.match(
      await refused(send('index', 'PUT', { revision: 1, document: unfit })),
      /^422 Not saved: .*sections\[0\]\.title/,
    );
    const skip = { to: 'nowhere', when: 'fuel == 1', before: 'cars' };
    assert.match(
      await refused(
        send('index', 'PUT', {
          revision: 1,
          document: { ...first, sections: [{ ...first.sections[0], skip }] },
        }),
      ),
      /^422 /,
    );
    assert.equal(findStudy(store(), study)?.revision, 1);
  });

  it('says of a newer revision no more than its number to who has it already', async () => {
    const asked = async (search: string) => (await answer('index', 'GET', { search })).body as object;
    assert.deepEqual(await asked('?after=1'), { revision: 1 });
    for (const search of ['', '?after=0', '?after=', '?after=x'])
      assert.ok('document' in (await asked(search)), search);
  });

  it('removes a study and brings it back, and says where there is none', async () => {
    assert.equal((await send('index', 'DELETE', {})).status, 200);
    assert.match(await refused(answer('index', 'GET')), new RegExp(`^404 There is no study “${study}”`));
    assert.match(await refused(send('index', 'PUT', { revision: 1, document: first })), /^404 /);
    assert.match(await refused(send('index', 'DELETE', {})), /^404 /);
    assert.equal((await send('index', 'POST', {})).status, 200);
    assert.equal((await answer('index', 'GET')).status, 200);
    assert.match(await refused(send('index', 'POST', {}, 'none')), /^404 /);
  });

  it('adds a study that can be used, and refuses another by its place', async () => {
    const added = await ask('studies/index.ts', 'POST', { body: { document: first } });
    assert.equal(added.status, 201);
    const { id, revision } = (await added.json()) as { id: string; revision: number };
    assert.equal(revision, 1);
    assert.deepEqual(findStudy(store(), id)?.document, first);
    const no = await ask('studies/index.ts', 'POST', { body: { document: { ...first, endings: 3 } } });
    assert.match(`${no.status} ${await no.text()}`, /^422 .*endings/);
    for (const body of [{}, { document: first, more: 1 }, 'text', null])
      assert.equal((await ask('studies/index.ts', 'POST', { body })).status, 400, JSON.stringify(body));
  });
});

/** One door of each kind of work: what is put, how it is seen in the list, what takes it away. */
const WORK: readonly {
  readonly door: string;
  readonly put: readonly [method: string, body: Record<string, unknown>];
  readonly again: Record<string, unknown>;
  readonly seen: (entry: Record<string, unknown>) => unknown;
  readonly now: readonly [before: unknown, after: unknown];
  readonly away: Record<string, unknown>;
}[] = [
  {
    door: 'verdicts',
    put: ['POST', passedBy('Ada', ['m'])],
    again: { ...passedBy('Bo', ['m']), verdict: 'sent_back', remark: 'Why?', place: 'fuel' },
    seen: ({ reviewer, verdict, remark, place }) => [reviewer, verdict, remark, place],
    now: [
      ['Ada', 'passed', '', ''],
      ['Bo', 'sent_back', 'Why?', 'fuel'],
    ],
    away: { route: passedBy('Ada', ['m']).route },
  },
  {
    door: 'asides',
    put: ['POST', { snag: 'unlabelled fuel', reason: 'Later.', reviewer: 'Ada' }],
    again: { snag: 'unlabelled fuel', reason: 'Never.', reviewer: 'Bo' },
    seen: ({ reason, reviewer }) => [reason, reviewer],
    now: [
      ['Later.', 'Ada'],
      ['Never.', 'Bo'],
    ],
    away: { snag: 'unlabelled fuel' },
  },
  {
    door: 'respondents',
    put: [
      'POST',
      { name: 'Tenant', walked: { answers: { fuel: 1 } }, items: ['fuel'], marks: ['m'], row: { fuel: 1 } },
    ],
    again: {
      name: 'Tenant',
      walked: { answers: { fuel: 2 } },
      items: ['fuel'],
      marks: ['n'],
      row: { fuel: 2 },
    },
    seen: ({ row, marks }) => [row, marks],
    now: [
      [{ fuel: 1 }, ['m']],
      [{ fuel: 2 }, ['n']],
    ],
    away: { name: 'Tenant' },
  },
  {
    door: 'cases',
    put: ['PUT', { caseId: '7', entry: 2, keyedBy: 'Ada', answers: { fuel: 1 }, settledBy: null }],
    again: { caseId: ' 7 ', entry: 2, keyedBy: 'Bo', answers: { fuel: 2 }, settledBy: 'Cy' },
    seen: ({ answers, keyedBy, settledBy }) => [answers, keyedBy, settledBy],
    now: [
      [{ fuel: 1 }, 'Ada', null],
      [{ fuel: 2 }, 'Ada', 'Cy'],
    ],
    away: { caseId: '7', entry: 2 },
  },
];

describe('work on a study', () => {
  for (const { door, put, again, seen, now, away } of WORK)
    it(`${door}: kept once, replaced by the same again, taken away, and of no other study`, async () => {
      const [method, body] = put;
      const listed = async (of = study) =>
        ((await answer(door, 'GET', {}, of)).body as Record<string, unknown>[]).map(seen);
      assert.ok([200, 201].includes((await send(door, method, body)).status));
      assert.deepEqual(await listed(), [now[0]]);
      await send(door, method, again);
      assert.deepEqual(await listed(), [now[1]]);
      assert.deepEqual(await listed(other), []);
      // The other study's door takes nothing away here.
      await send(door, 'DELETE', away, other);
      assert.equal((await listed()).length, 1);
      await send(door, 'DELETE', away);
      assert.deepEqual(await listed(), []);
      for (const bad of [{ ...body, at: 5 }, { ...body, more: 1 }, {}])
        assert.match(await refused(send(door, method, bad)), /^400 The request cannot be used: /);
      assert.match(await refused(send(door, method, body, 'none')), /^404 /);
    });

  it('a version is kept in the name of who signed in, given whole, and of this study alone', async () => {
    const kept = { frozen: false, revision: 1, note: ' before the board ', author: 'Ada' };
    const { status, body } = await answer('versions/index', 'POST', { body: kept, signedIn: 'Bo' });
    assert.equal(status, 201);
    const { number, author, note } = body as { number: number; author: string; note: string };
    assert.deepEqual([number, author, note], [1, 'Bo', 'before the board']);
    await send('index', 'PUT', { revision: 1, document: titled(first, 'Later') });
    const whole = await answer('versions/[version]', 'GET', { params: { version: '1' } });
    assert.equal((whole.body as { document: Questionnaire }).document.title, 'First');
    for (const version of ['2', 'x', '-1'])
      assert.match(
        await refused(answer('versions/[version]', 'GET', { params: { version } })),
        /^404 This study has no version/,
      );
    assert.deepEqual((await answer('versions/index', 'GET', {}, other)).body, []);
    // What is done from now on says on what.
    const { body: verdict } = await send('verdicts', 'POST', passedBy('Ada', ['m']));
    assert.equal((verdict as { revision: number }).revision, 2);
    for (const bad of [
      { ...kept, author: '' },
      { ...kept, wanted: 'cover' },
      { ...kept, number: 7 },
    ])
      assert.match(await refused(send('versions/index', 'POST', bad)), /^400 /);
  });

  it('a verdict is known by its marks: another fingerprint is refused', async () => {
    const forged = { ...passedBy('Ada', ['m']), marks: ['m', 'n'] };
    assert.match(await refused(send('verdicts', 'POST', forged)), /^400 The fingerprint is not that/);
  });

  it('comments are settled, opened again and moved with what they are on', async () => {
    const add = async (place: string, of = study) =>
      ((await send('comments', 'POST', { place, text: 'Hm', author: 'Ada' }, of)).body as { id: number }).id;
    const [on, elsewhere, theirs] = [
      await add('item:fuel'),
      await add('item:cars'),
      await add('item:fuel', other),
    ];
    const comments = async (of = study) =>
      ((await answer('comments', 'GET', {}, of)).body as Record<string, unknown>[]).map(
        ({ id, place, settledBy, settledAt }) => [id, place, settledBy, settledAt !== null],
      );
    assert.equal((await send('comments', 'PATCH', { what: 'settle', id: on, by: 'Bo' })).status, 200);
    await send('comments', 'PATCH', { what: 'move', from: 'item:fuel', to: 'item:heat' });
    assert.deepEqual(await comments(), [
      [on, 'item:heat', 'Bo', true],
      [elsewhere, 'item:cars', null, false],
    ]);
    assert.deepEqual(await comments(other), [[theirs, 'item:fuel', null, false]]);
    await send('comments', 'PATCH', { what: 'settle', id: on, by: null });
    assert.deepEqual((await comments())[0], [on, 'item:heat', null, false]);
    assert.match(
      await refused(send('comments', 'PATCH', { what: 'settle', id: theirs, by: 'Bo' })),
      /^404 This comment is gone/,
    );
    for (const place of ['fuel', 'kind:fuel', ':fuel'])
      assert.match(
        await refused(send('comments', 'POST', { place, text: 'Hm', author: 'Ada' })),
        /^400 .*place/,
      );
    assert.match(
      await refused(send('comments', 'POST', { place: 'study', text: ' ', author: 'Ada' })),
      /^400 .*text/,
    );
  });

  it('a link is withdrawn once, and only by its own study', async () => {
    const { token } = (await send('links', 'POST', { name: 'Board' })).body as { token: string };
    assert.match(await refused(send('links', 'DELETE', { token }, other)), /^404 /);
    assert.equal((await send('links', 'DELETE', { token })).status, 200);
    assert.match(await refused(send('links', 'DELETE', { token })), /^404 There is no such link, or/);
    const [link] = (await answer('links', 'GET')).body as { withdrawnAt: number | null }[];
    assert.ok(link?.withdrawnAt !== null);
  });

  it('one draw stands at a time, and the matches said last', async () => {
    assert.equal((await answer('draw', 'GET')).body, null);
    await send('draw', 'PUT', { seed: 4, count: 20 });
    await send('draw', 'PUT', { seed: 5, count: 30 });
    const { seed, count } = (await answer('draw', 'GET')).body as { seed: number; count: number };
    assert.deepEqual([seed, count], [5, 30]);
    for (const bad of [{ seed: 4 }, { seed: -1, count: 3 }, { seed: 1, count: 0 }, { seed: 1.5, count: 3 }])
      assert.match(await refused(send('draw', 'PUT', bad)), /^400 /, JSON.stringify(bad));
    assert.deepEqual((await answer('matches', 'GET')).body, { said: {} });
    await send('matches', 'PUT', { said: { Fuel: 'fuel' } });
    await send('matches', 'PUT', { said: { Cars: null } });
    assert.deepEqual((await answer('matches', 'GET')).body, { said: { Cars: null } });
    assert.deepEqual((await answer('matches', 'GET', {}, other)).body, { said: {} });
  });
});

describe('coded rows', () => {
  const packed = (text: string) => new Uint8Array(gzipSync(text));
  const keep = (name: string, body: Uint8Array, rows = '1') =>
    answer('datasets/index', 'POST', { body, search: `?name=${name}&rows=${rows}` });

  it('are kept under their name, given back as they were packed, and taken away', async () => {
    await keep('pilot', packed('fuel\r\n1\r\n'));
    const second = (await keep('pilot', packed('fuel\r\n2\r\n'), '12')).body as {
      id: string;
      rows: number;
    }[];
    assert.deepEqual(
      second.map(({ rows }) => rows),
      [12],
    );
    const dataset = second[0]?.id ?? '';
    const got = await askStudy(study, 'datasets/[dataset]', 'GET', { params: { dataset } });
    assert.equal(gunzipSync(new Uint8Array(await got.arrayBuffer())).toString(), 'fuel\r\n2\r\n');
    assert.match(
      await refused(answer('datasets/[dataset]', 'GET', { params: { dataset } }, other)),
      /^404 These rows are not there/,
    );
    assert.deepEqual((await send('datasets/index', 'DELETE', { id: dataset }, other)).body, []);
    assert.deepEqual((await send('datasets/index', 'DELETE', { id: dataset })).body, []);
  });

  it('are refused without a name, without their number, and where they are not packed', async () => {
    for (const [search, said] of [
      ['?rows=1', /rows that are kept have a name/],
      ['?name=%20&rows=1', /rows that are kept have a name/],
      ['?name=pilot', /the number of rows is needed/],
      ['?name=pilot&rows=-1', /the number of rows is needed/],
      ['?name=pilot&rows=1e3', /the number of rows is needed/],
    ] as const) {
      const no = await refused(answer('datasets/index', 'POST', { body: packed('fuel\r\n'), search }));
      assert.match(no, /^400 /);
      assert.match(no, said);
    }
    assert.match(await refused(keep('pilot', Buffer.from('fuel\r\n1\r\n'))), /^422 /);
    assert.deepEqual((await answer('datasets/index', 'GET')).body, []);
  });
});

describe('files of a study', () => {
  it('give the questionnaire alone, or with the kinds of work asked for', async () => {
    await send('verdicts', 'POST', passedBy('Ada', ['m']));
    await send('asides', 'POST', { snag: 's', reason: 'Later.', reviewer: 'Ada' });
    const file = await askStudy(study, 'file', 'GET');
    assert.match(file.headers.get('content-disposition') ?? '', /filename="first\.fork\.json"/);
    assert.equal(await file.text(), writeDocument(first));
    const parts = async (search: string) => {
      const zip = await askStudy(study, 'work', 'GET', { search });
      const read = readWork(new Uint8Array(await zip.arrayBuffer()));
      assert.ok(read.ok);
      return [read.work.verdicts.length, read.work.asides.length];
    };
    assert.deepEqual(await parts(''), [1, 1]);
    assert.deepEqual(await parts('?with=asides'), [0, 1]);
    assert.deepEqual(await parts('?with='), [0, 0]);
    assert.match(
      await refused(answer('work', 'GET', { search: '?with=secrets' })),
      /^400 What comes along is any of/,
    );
  });

  it('come back as a study of its own with that work', async () => {
    await send('asides', 'POST', { snag: 's', reason: 'Later.', reviewer: 'Ada' });
    const zip = new Uint8Array(await (await askStudy(study, 'work', 'GET')).arrayBuffer());
    const added = await ask('studies/work.ts', 'POST', { body: zip });
    assert.equal(added.status, 201);
    const { id } = (await added.json()) as { id: string };
    assert.equal(((await answer('asides', 'GET', {}, id)).body as unknown[]).length, 1);
    assert.equal((await ask('studies/work.ts', 'POST', { body: Buffer.from('PK') })).status, 422);
  });

  it('a study that cannot be read is still given as a file, as it is', async () => {
    const damaged = `damaged-${made}`;
    const row = { id: damaged, document: '{"cut', revision: 1, createdAt: 1, changedAt: 1, removedAt: null };
    store().insert(studies).values(row).run();
    const file = await askStudy(damaged, 'file', 'GET');
    assert.equal(await file.text(), '{"cut');
    assert.match(await refused(answer('work', 'GET', {}, damaged)), /^404 /);
  });
});

describe('other studies', () => {
  const given = {
    name: 'rent',
    label: 'Rents',
    answer: { type: 'single', options: [{ code: 1, label: 'Yes' }] },
  };

  it('are told without the asking one, and take a value once', async () => {
    const listed = (await answer('others', 'GET')).body as { id: string; given: { name: string }[] }[];
    assert.ok(listed.some(({ id }) => id === other) && listed.every(({ id }) => id !== study));
    for (let times = 0; times < 2; times += 1)
      assert.equal((await send('others', 'POST', { study: other, given })).status, 200);
    assert.deepEqual(
      findStudy(store(), other)?.document.given?.map(({ name }) => name),
      ['rent'],
    );
    assert.equal(findStudy(store(), other)?.revision, 2);
  });

  it('refuse a value that they could not use', async () => {
    const unfit = { ...given, answer: { type: 'single', options: 3 } };
    assert.match(await refused(send('others', 'POST', { study: other, given: unfit })), /^422 Not added: /);
    assert.match(
      await refused(send('others', 'POST', { study: 'none', given })),
      /^404 There is no study “none”/,
    );
    assert.equal(findStudy(store(), other)?.revision, 1);
  });
});

describe('the bank', () => {
  const fuel = first.sections[0]?.items[0] as Question;
  const bank = async (method: string, body: unknown = {}) => {
    const response = await ask('bank.ts', method, { body });
    return { status: response.status, body: (await response.json()) as unknown };
  };

  it('keeps a question, says who uses it, and lets it go', async () => {
    const { status, body } = await bank('POST', { kind: 'question', title: 'Fuel', content: fuel });
    assert.equal(status, 201);
    const { id, uses } = body as { id: number; uses: { study: string; names: string[] }[] };
    assert.deepEqual(
      uses.filter((use) => [study, other].includes(use.study)).map(({ names }) => names),
      [['fuel'], ['fuel']],
    );
    const titles = async () => ((await bank('GET')).body as { title: string }[]).map(({ title }) => title);
    assert.deepEqual(await titles(), ['Fuel']);
    assert.equal((await bank('DELETE', { id })).status, 200);
    assert.equal((await bank('DELETE', { id })).status, 404);
    assert.deepEqual(await titles(), []);
  });

  it('takes nothing that is no part of a questionnaire, and nothing without a title', async () => {
    for (const body of [
      { kind: 'question', title: 'x', content: { ...fuel, name: 'two words' } },
      { kind: 'answers', title: 'x', content: fuel },
      { kind: 'question', title: ' ', content: fuel },
    ])
      assert.equal((await bank('POST', body)).status, 400, JSON.stringify(body));
    assert.deepEqual((await bank('GET')).body, []);
  });
});
