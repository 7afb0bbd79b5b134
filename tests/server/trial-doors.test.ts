/** Links as their authors make, watch and change them: what is refused and why, what is taken along, what the data says. */
import assert from 'node:assert/strict';
import { randomUUID } from 'node:crypto';
import { beforeEach, describe, it } from 'node:test';
import Papa from 'papaparse';
import * as v from 'valibot';
import type { Questionnaire } from '../../src/core/document/types';
import type { TrialRecord } from '../../src/core/responding/trial-data';
import { USUAL_TRIAL, type TrialSettings } from '../../src/core/responding/trial-settings';
import { addStudy, saveStudy } from '../../src/store/studies';
import { addVersion } from '../../src/store/versions';
import { SittingSchema } from '../../src/wire/answer';
import { TrialSchema, type Trial } from '../../src/wire/trials';
import { ask, askStudy } from '../support/doors';
import { ask as question, questionnaire, section } from '../support/questionnaire';

process.env.JOLLY_FORK_DATA = ':memory:';
const { store } = await import('../../src/store/open');

const options = [1, 2].map((code) => ({ code, label: `Option ${code}` }));
const DIARY = (id: string): Questionnaire =>
  questionnaire([section('d', [question('again', 2)])], {
    title: `Diary of ${id}`,
    given: [{ name: 'home', label: 'Home', answer: { type: 'single', options } }],
    endings: [{ id: 'end', kind: 'complete', messages: [] }],
  });
const STUDY = (id: string): Questionnaire =>
  questionnaire(
    [
      { ...section('a', [question('home', 2, { required: true }), question('case', 2)]) },
      { ...section('b', [question('one', 2), question('two', 2), question('three', 2)]), draw: 1 },
    ],
    {
      title: `Study ${id}`,
      endings: [
        {
          id: 'done',
          kind: 'complete',
          messages: [],
          next: { questionnaire: `diary-${id}`, carry: ['home'] },
        },
      ],
    },
  );

let id = '';
beforeEach(() => {
  id = randomUUID();
  addStudy(store(), STUDY(id), 1, id);
  addStudy(store(), DIARY(id), 1, `diary-${id}`);
});

const freeze = (of: string, frozen: boolean, revision = 1) =>
  addVersion(store(), of, { frozen, revision, note: '', author: 'A. Fenn', at: 5, gate: null, reason: null });

async function make(settings: Partial<TrialSettings> = {}, version: number | null = null) {
  const body = { name: 'Try', version, settings: { ...USUAL_TRIAL, ...settings } };
  const response = await askStudy(id, 'trials/index', 'POST', { body });
  return { status: response.status, json: (await response.json()) as Trial & { problem?: string } };
}
const of = (token: string, door: string, method: string, more: { body?: unknown; search?: string } = {}) =>
  askStudy(id, `trials/[token]/${door}`, method, { params: { token }, ...more });
const listed = async () => {
  const all = v.parse(v.array(TrialSchema), await (await askStudy(id, 'trials/index', 'GET')).json());
  return all[0] ?? assert.fail();
};

/** Begins, and answers page by page; gives where it stands at the end. */
async function answered(token: string, ...pages: readonly object[]) {
  const door = async (name: string, body: object) =>
    v.parse(
      SittingSchema,
      await (await ask('answer/[token]/[door].ts', 'POST', { params: { token, door: name }, body })).json(),
    );
  let at = await door('begin', { ticket: randomUUID(), device: 'wide', browser: null, key: null });
  for (const [n, answers] of pages.entries()) {
    const page = `${n > 1 ? 0 : n}/0/0`;
    const turn = { turn: at.kept.turns + 1, key: randomUUID(), page, answers, go: 'next' };
    at = await door('turn', { id: at.id, turn });
  }
  return at;
}

describe('making a link', () => {
  it('is refused in words for what would lead respondents astray, or is not frozen', async () => {
    const problem = async (...asked: Parameters<typeof make>) => (await make(...asked)).json.problem ?? '';
    assert.match(await problem({}, 1), /There is no version 1/);
    freeze(id, false);
    assert.match(await problem({}, 1), /Version 1 is kept, not frozen/);
    const broken = STUDY(id);
    saveStudy(
      store(),
      id,
      1,
      { ...broken, sections: [section('a', [question('x', 2, { askIf: 'y = 1' })])] },
      6,
    );
    assert.match(await problem(), /the draft leads respondents astray/);
    saveStudy(store(), id, 2, DIARY(id), 7);
    assert.match(await problem(), /home is known before the start, so each person needs a link/);
    const personal = await make({ toldApart: 'personal' });
    assert.equal(personal.status, 201);
    const body = { token: personal.json.token, settings: USUAL_TRIAL };
    assert.equal((await askStudy(id, 'trials/index', 'PATCH', { body })).status, 422);
    for (const settings of [
      { opensAt: 5, closesAt: 5 },
      { attempts: 0 },
      { minutes: 1441 },
      { language: 'x y' },
      { embeddedIn: 'https://example.org/page' },
      { embeddedIn: "'unsafe-inline'; script-src *" },
    ] as const)
      assert.equal((await make(settings)).status, 400, JSON.stringify(settings));
  });

  it('takes along what is handed on to: frozen where the first is frozen, else as it is now', async () => {
    freeze(id, true);
    freeze(`diary-${id}`, true);
    saveStudy(store(), `diary-${id}`, 1, { ...DIARY(id), title: `Diary of ${id}`, language: 'cy' }, 9);
    const languages = [];
    for (const version of [1, null]) {
      const { token } = (await make({}, version)).json;
      const { document } = await answered(token, { home: 1 }, {});
      languages.push((document as Questionnaire).language);
    }
    assert.deepEqual(languages, ['en', 'cy']);
  });
});

describe('a link that is answered', () => {
  it('is counted, paused, opened, closed and extended', async () => {
    const { token } = (await make({ mostResponses: 2 })).json;
    await answered(token, { home: 1 }, {}, { again: 1 });
    await answered(token, { home: 1 });
    const begun = async () => {
      const body = { ticket: randomUUID(), device: 'wide', browser: null, key: null };
      return (await ask('answer/[token]/[door].ts', 'POST', { params: { token, door: 'begin' }, body }))
        .status;
    };
    const change = (body: object) => askStudy(id, 'trials/index', 'PATCH', { body: { token, ...body } });
    const { begun: count, complete, elsewhere, followUps } = await listed();
    assert.deepEqual(
      { count, complete, elsewhere, handed: followUps.map((each) => each.begun) },
      { count: 2, complete: 1, elsewhere: 0, handed: [1] },
    );
    assert.equal(await begun(), 403);
    await change({ settings: { ...USUAL_TRIAL, mostResponses: 9 } });
    assert.equal(await begun(), 200);
    for (const [state, status] of [
      ['paused', 403],
      ['open', 200],
      ['closed', 403],
    ] as const) {
      await change({ state });
      assert.equal(await begun(), status, state);
    }
    assert.equal((await change({ token: 'another', state: 'open' })).status, 404);
  });

  it('gives its data: a row each, joined by the case, and all that is kept', async () => {
    const { token } = (await make()).json;
    await answered(token, { home: 2, case: 1 }, {}, { again: 1 });
    await answered(token, { home: 1 });
    const rows = async (search: string) => {
      const text = await (await of(token, 'data', 'GET', { search })).text();
      return Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
        header: true,
        skipEmptyLines: true,
      }).data;
    };
    const main = await rows('?as=csv');
    // A question that is called the same keeps its name.
    assert.deepEqual(
      main.map((row) => [row._case, row.case, row.state, row.ending, row.home, row.version, row.pages]),
      [
        ['1', '1', 'ended', 'done', '2', 'Draft', '2'],
        ['2', '-3', 'answering', '-4', '1', 'Draft', '1'],
      ],
    );
    assert.deepEqual(
      (await rows('?as=csv&questionnaire=1')).map((row) => [row.case, row.part, row.home, row.again]),
      [['1', '2', '2', '1']],
    );
    const all = JSON.parse(await (await of(token, 'data', 'GET', { search: '?as=json' })).text()) as {
      responses: TrialRecord[];
    };
    const [first] = all.responses;
    assert.equal(first?.draws.b?.length, 1);
    assert.deepEqual(
      first?.pages.map(({ first: item }) => item),
      ['home', first?.draws.b?.[0]],
    );
    assert.deepEqual([first?.answers.home, first?.device, first?.person], [2, 'wide', null]);
    assert.equal((await of(token, 'data', 'GET', { search: '?as=xml' })).status, 400);
    assert.equal((await of('another', 'data', 'GET', { search: '?as=csv' })).status, 404);
  });

  it('takes people from a file, all or none, and gives the keys of their links', async () => {
    const { token } = (await make({ toldApart: 'personal' })).json;
    const add = async (csv: string) => {
      const response = await of(token, 'people', 'POST', { body: { csv } });
      const { added, problem } = (await response.json()) as { added?: number; problem?: string };
      return added ?? problem ?? '';
    };
    assert.equal(await add('id\nA. Fenn\nB. Moss\n'), 2);
    assert.match(String(await add('id\nC\nA. Fenn\n')), /Nobody was added: A. Fenn has a link already/);
    assert.match(String(await add('id\n')), /Nobody was added. There is no line/);
    const people = (await (await of(token, 'people', 'GET')).json()) as { name: string; key: string }[];
    assert.deepEqual(
      people.map(({ name }) => name),
      ['A. Fenn', 'B. Moss'],
    );
    assert.equal((await listed()).people, 2);
  });
});
