/**
 * Every door of the server, tried with a reviewer's token in the place of a study's id, and every door of the link; which
 * are open to all, and in whose name the others act.
 */
import assert from 'node:assert/strict';
import { readdirSync } from 'node:fs';
import path from 'node:path';
import { before, describe, it } from 'node:test';
import { address } from '../../src/core/document/addresses';
import { emptyQuestionnaire } from '../../src/core/editing/structure';
import { fingerprint } from '../../src/core/routing/route-content';
import { isOpenToAll } from '../../src/server/entrance';
import { MOST_A_MINUTE, REVIEW_DOORS } from '../../src/server/review';
import { listCases } from '../../src/store/cases';
import { addComment, listComments } from '../../src/store/comments';
import { addLink, withdrawLink } from '../../src/store/links';
import { studies } from '../../src/store/schema';
import { addStudy, findStudy, removeStudy, restoreStudy } from '../../src/store/studies';
import { listVerdicts, putVerdict } from '../../src/store/verdicts';
import { ask, askStudy } from '../support/doors';
import { passedBy } from '../support/verdicts';

process.env.JOLLY_FORK_DATA = ':memory:';
const { store } = await import('../../src/store/open');

const METHODS = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'] as const;
const API = path.join('src', 'pages', 'api');
const doors = readdirSync(API, { recursive: true })
  .map(String)
  .filter((file) => file.endsWith('.ts'));
const verdict = (marks: string[]) => passedBy('The author', marks);

describe("a reviewer's token", () => {
  let token = '';
  let other = '';
  const review = (method: string, door: string, body?: unknown, as = token) =>
    ask(path.join('review', '[token]', '[door].ts'), method, { params: { token: as, door }, body });
  const problem = async (response: Response) => ((await response.json()) as { problem: string }).problem;

  before(() => {
    addStudy(store(), emptyQuestionnaire('Study'), 1, 'study');
    token = addLink(store(), 'study', 'Ethics board', 1).token;
    other = addLink(store(), 'study', 'Field office', 1).token;
  });

  it('opens no door of the authors', async () => {
    const ofStudies = doors.filter((file) => file.includes('[id]'));
    assert.ok(ofStudies.length >= 12);
    for (const file of ofStudies)
      for (const method of METHODS) {
        const response = await ask(file, method, { params: { id: token, dataset: token } });
        assert.ok([400, 404, 405].includes(response.status), `${method} ${file} answered ${response.status}`);
        assert.ok(!(await response.text()).includes('"document"'), file);
      }
    assert.equal(findStudy(store(), 'study')?.revision, 1);
  });

  it('opens just the doors of the table', async () => {
    const opened = {
      verdicts: 'GET POST DELETE',
      comments: 'GET POST DELETE',
      draw: 'GET',
      'follow-up': 'GET',
    };
    assert.deepEqual(
      Object.fromEntries(
        Object.entries(REVIEW_DOORS).map(([door, methods]) => [door, Object.keys(methods).join(' ')]),
      ),
      opened,
    );
    const names = doors.map((file) => path.basename(file, '.ts'));
    for (const door of [...names, 'constructor', '__proto__', 'toString', ''])
      for (const method of METHODS) {
        const { status } = await review(method, door);
        const isOpen = Object.hasOwn(REVIEW_DOORS, door) && Object.hasOwn(REVIEW_DOORS[door] ?? {}, method);
        assert.equal(status === 403 && !isOpen, !isOpen, `${method} ${door} answered ${status}`);
      }
  });

  it('judges in the name of the link, and takes back only what is its own', async () => {
    const mine = verdict(['a']);
    const given = await review('POST', 'verdicts', mine);
    assert.equal(given.status, 201);
    assert.equal(((await given.json()) as { reviewer: string }).reviewer, 'Ethics board');
    putVerdict(store(), 'study', { ...verdict(['b']), verdict: 'sent_back', at: 1 });
    for (const [route, as] of [
      [mine.route, other],
      [fingerprint(['b']), token],
    ] as const) {
      assert.equal((await review('DELETE', 'verdicts', { route }, as)).status, 403);
      const marks = route === mine.route ? ['a'] : ['b'];
      assert.equal((await review('POST', 'verdicts', verdict(marks), as)).status, 409);
    }
    assert.deepEqual(
      listVerdicts(store(), 'study')
        .map(({ reviewer }) => reviewer)
        .sort(),
      ['Ethics board', 'The author'],
    );
    assert.equal((await review('DELETE', 'verdicts', { route: mine.route })).status, 200);

    const ofAuthor = addComment(store(), 'study', {
      place: address('section', 'a'),
      text: 'Mine',
      author: 'The author',
      at: 1,
    });
    const said = await review('POST', 'comments', { place: 'section:a', text: 'Ours', author: 'The author' });
    const { id, author } = (await said.json()) as { id: number; author: string };
    assert.equal(author, 'Ethics board');
    assert.equal((await review('DELETE', 'comments', { id }, other)).status, 403);
    assert.equal((await review('DELETE', 'comments', { id: ofAuthor.id })).status, 403);
    assert.equal((await review('DELETE', 'comments', { id })).status, 200);
    assert.deepEqual(
      listComments(store(), 'study').map(({ text }) => text),
      ['Mine'],
    );
  });

  it('never comes back to anybody in an answer', async () => {
    await review('POST', 'comments', { place: 'section:a', text: 'Ours', author: 'x' });
    await review('POST', 'verdicts', verdict(['c']));
    for (const door of ['comments', 'verdicts']) {
      const text = await (await review('GET', door, undefined, other)).text();
      assert.ok(!text.includes(token) && !text.includes('study'), text);
    }
  });

  it('says that a study cannot be read at the moment, without its id', async () => {
    const damaged = {
      id: 'damaged',
      document: '{"cut',
      revision: 1,
      createdAt: 1,
      changedAt: 1,
      removedAt: null,
    };
    store().insert(studies).values(damaged).run();
    const { token: of } = addLink(store(), 'damaged', 'Board', 1);
    const answer = await review('GET', 'follow-up', undefined, of);
    assert.equal(answer.status, 404);
    assert.match(await problem(answer), /^This study cannot be read at the moment/);
  });

  it('is nothing once it is withdrawn, and while its study is removed, which is not given away', async () => {
    const gone = addLink(store(), 'study', 'Gone', 1).token;
    withdrawLink(store(), 'study', gone, 2);
    const withdrawn = await review('GET', 'verdicts', undefined, gone);
    removeStudy(store(), 'study', 3);
    const removed = await review('GET', 'verdicts');
    restoreStudy(store(), 'study');
    const unknown = await review('GET', 'verdicts', undefined, 'none');
    assert.deepEqual([withdrawn.status, removed.status, unknown.status], [404, 404, 404]);
    const [first, ...others] = await Promise.all([withdrawn, removed, unknown].map(problem));
    assert.deepEqual(others, [first, first]);
  });

  it('writes no more in a minute than a person does', async () => {
    const busy = addLink(store(), 'study', 'Busy', 1).token;
    const statuses: number[] = [];
    for (let n = 0; n < MOST_A_MINUTE + 2; n += 1)
      statuses.push(
        (await review('POST', 'comments', { place: 'study', text: `${n}`, author: 'x' }, busy)).status,
      );
    assert.deepEqual(statuses.slice(-3), [201, 429, 429]);
    assert.equal((await review('GET', 'comments', undefined, busy)).status, 200);
  });
});

describe('a door', () => {
  it('is open to all only where it is a reviewer’s or a respondent’s, or the way in', () => {
    const pages = readdirSync(path.join('src', 'pages'), { recursive: true })
      .map(String)
      .filter((file) => /\.(ts|astro)$/.test(file));
    const routes = pages.map((file) => `/${file.replace(/\.(ts|astro)$/, '').replace(/(^|\/)index$/, '')}`);
    assert.ok(routes.includes('/studies/[id]/[stop]') && routes.includes('/'));
    assert.deepEqual(routes.filter(isOpenToAll).sort(), [
      '/404',
      '/answer/[token]',
      '/answer/[token]/[key]',
      '/answer/program/[file]',
      '/api/answer/[token]/[door]',
      '/api/review/[token]/[door]',
      '/no-review',
      '/review/[token]',
      '/review/[token]/[stop]',
      '/sign-in',
    ]);
  });

  it('acts in the name of who is signed in, whatever name is sent', async () => {
    addStudy(store(), emptyQuestionnaire('Signed'), 1, 'signed');
    const as = (method: string, door: string, body: unknown, signedIn: string | null = 'Ines Marlow') =>
      askStudy('signed', door, method, { body, signedIn });
    const sent = 'Somebody else';
    const comment = { place: 'section:a', text: 'Hm', author: sent };
    const given = (await (await as('POST', 'comments', comment)).json()) as { id: number; author: string };
    assert.equal(given.author, 'Ines Marlow');
    const settled = await as('PATCH', 'comments', { what: 'settle', id: given.id, by: sent });
    assert.equal(((await settled.json()) as { settledBy: string }).settledBy, 'Ines Marlow');
    const open = await as('PATCH', 'comments', { what: 'settle', id: given.id, by: null });
    assert.equal(((await open.json()) as { settledBy: string | null }).settledBy, null);
    await as('POST', 'verdicts', { ...verdict(['s']), reviewer: sent });
    assert.deepEqual(
      listVerdicts(store(), 'signed').map(({ reviewer }) => reviewer),
      ['Ines Marlow'],
    );
    const aside = await as('POST', 'asides', { snag: 'x', reason: 'so', reviewer: sent });
    assert.equal(((await aside.json()) as { reviewer: string }).reviewer, 'Ines Marlow');
    // Where nobody signs in, the name that is given stands.
    const free = await as('POST', 'comments', comment, null);
    assert.equal(((await free.json()) as { author: string }).author, sent);
  });

  it('leaves a keyed form with who keyed it, and its settling with who settled it', async () => {
    addStudy(store(), emptyQuestionnaire('Keyed'), 1, 'keyed');
    const keyed = { caseId: '7', entry: 1, keyedBy: 'x', answers: {}, settledBy: null as string | null };
    const put = (body: object, signedIn: string) => askStudy('keyed', 'cases', 'PUT', { body, signedIn });
    const names = () => listCases(store(), 'keyed').map(({ keyedBy, settledBy }) => [keyedBy, settledBy]);
    await put(keyed, 'Ines');
    await put(keyed, 'Jon');
    assert.deepEqual(names(), [['Ines', null]]);
    await put({ ...keyed, settledBy: 'x' }, 'Jon');
    await put({ ...keyed, settledBy: 'Jon' }, 'Ines');
    assert.deepEqual(names(), [['Ines', 'Jon']]);
  });
});
