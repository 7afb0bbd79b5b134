/**
 * A respondent's page and the server's doors together, over a network that loses requests and answers, with tabs that are closed and
 * opened, and a second one beside: what is kept codes to the row of whoever was walked straight through, once.
 */
import assert from 'node:assert/strict';
import { randomUUID } from 'node:crypto';
import { describe, it } from 'node:test';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import * as v from 'valibot';
import heating from '../../demo/tern-valley-home-heating.fork.json';
import { columnsOf } from '../../src/core/coding/columns';
import type { Questionnaire } from '../../src/core/document/types';
import { rowOfCase } from '../../src/core/responding/case-data';
import { USUAL_TRIAL, type TrialSettings } from '../../src/core/responding/trial-settings';
import { planOf } from '../../src/core/routing/planner';
import { madeUpRespondents } from '../../src/core/simulate/respondents';
import type { Answered, Ask } from '../../src/respondent/doors';
import { Keeping, type Kept } from '../../src/respondent/keeping';
import { Sitter, type SitterState } from '../../src/respondent/sitter';
import { answerPage, type Program } from '../../src/server/answer-page';
import { addStudy } from '../../src/store/studies';
import { addTrial, listTrials, type TrialToAdd } from '../../src/store/trials';
import { listResponses } from '../../src/store/responses';
import { AnswerPageSchema, AnswerRefusal, SittingSchema } from '../../src/wire/answer';
import { ask } from '../support/doors';
import { fill, storage } from '../support/respondent';
import { ask as question, planFor, questionnaire, section } from '../support/questionnaire';

process.env.JOLLY_FORK_DATA = ':memory:';
const { store } = await import('../../src/store/open');

const PROGRAM: Program = {
  drawn: () => '<p>drawn</p>',
  address: '/answer/program/x.js',
  styles: '',
  fonts: { 'Instrument Sans': ['/a', '/b'], 'JetBrains Mono': ['/c', '/d'] },
};
const KEY = randomUUID();

/** A link to a study of its own. */
function linkTo(
  document: Questionnaire,
  settings: Partial<TrialSettings> = {},
  followUps: TrialToAdd['followUps'] = [],
) {
  const { id } = addStudy(store(), document, 0);
  const of = { name: 'Try', version: null, document, settings: { ...USUAL_TRIAL, ...settings }, followUps };
  return { id, token: addTrial(store(), id, of, 0).token };
}

/** As a browser reads it from the page that it is sent. */
function pageOf(token: string, key: string | null = null) {
  const { html } = answerPage(store(), PROGRAM, { token, key }, Date.now());
  const written = /id="questionnaire">(.*)<\/script>/.exec(html)?.[1] ?? 'null';
  return v.parse(AnswerPageSchema, JSON.parse(written));
}

/** The doors as a page asks them. */
const doors =
  (token: string): Ask =>
  async (door, body): Promise<Answered> => {
    const response = await ask('answer/[token]/[door].ts', 'POST', { params: { token, door }, body });
    const json = (await response.json()) as unknown;
    if (response.ok) return { is: 'sitting', sitting: v.parse(SittingSchema, json) };
    const { problem, why = null, sitting = null } = v.parse(AnswerRefusal, json);
    return { is: 'refused', problem, why, sitting };
  };

/** A tab of a browser on the link. */
function tab(token: string, browser: Kept, means: { ask?: Ask; told?: () => void } = {}) {
  const page = pageOf(token);
  const plan = planOf(page.document as Questionnaire);
  const sitter = new Sitter(page, plan, {
    ask: means.ask ?? doors(token),
    keeping: new Keeping(browser, token),
    device: () => 'narrow',
    now: () => Date.now(),
    newId: () => randomUUID(),
    chance: () => 0.5,
    wait: () => {
      means.told?.();
      return Promise.resolve();
    },
  });
  return sitter;
}

const closedIn = ({ phase }: SitterState) => (phase.is === 'sitting' ? phase.sitting.kept.closed : null);

describe('a sitting over a network that fails', () => {
  it('is kept once, and codes to the row of whoever was walked straight through', async () => {
    const whole = heating as unknown as Questionnaire;
    // What is drawn for somebody is drawn by the seed of their response: the people here are made up before.
    const sections = whole.sections.map(({ draw: _draw, ...section }) => section);
    const document = { ...whole, quotas: [], sections };
    const plan = planFor(document);
    const columns = columnsOf(plan).map(({ name }) => name);
    const people = [...madeUpRespondents(plan, 14, 11)].filter(({ ending }) => ending !== null);
    const { id, token } = linkTo(document);
    const random = xoroshiro128plus(3);
    const chance = (percent: number) => uniformInt(random, 1, 100) <= percent;
    let [lost, reopened, twoTabs] = [0, 0, 0];
    const failing: Ask = async (door, body) => {
      if (chance(15)) {
        lost += 1;
        return { is: 'away', problem: 'there is no connection' };
      }
      const answered = await doors(token)(door, body);
      if (!chance(15)) return answered;
      lost += 1;
      return { is: 'away', problem: 'no answer came' };
    };
    const expected: unknown[] = [];
    let declined = 0;
    for (const person of people) {
      const browser = storage();
      let sitter = tab(token, browser, { ask: failing });
      await sitter.open();
      for (let pages = 0; closedIn(sitter.get()) === null && pages < 400; pages += 1) {
        if (chance(10)) {
          reopened += 1;
          // Half filled in, and closed: what was typed is there again.
          fill(sitter, person.answers);
          const typed = sitter.get().draft?.answers;
          sitter = tab(token, browser, { ask: failing });
          await sitter.open();
          assert.deepEqual(sitter.get().draft?.answers, typed);
        }
        if (chance(8)) {
          twoTabs += 1;
          const other = tab(token, browser, { ask: failing });
          await other.open();
          await other.go('back');
        }
        fill(sitter, person.answers);
        await sitter.go('next');
      }
      assert.notEqual(closedIn(sitter.get()), null);
      const kind = document.endings[person.ending ?? -1]?.kind;
      if (kind === 'declined') declined += 1;
      else expected.push(person.row());
    }
    const stored = listResponses(store(), token).filter(({ questionnaire }) => questionnaire === 0);
    assert.deepEqual(
      stored.map(({ kept }) => {
        const row = rowOfCase(plan, kept);
        return columns.map((name) => row[name]);
      }),
      expected,
    );
    const [trial] = listTrials(store(), id);
    assert.deepEqual([trial?.begun, trial?.declined], [people.length, declined]);
    assert.ok(
      lost > 30 && reopened > 3 && twoTabs > 3 && declined > 0,
      JSON.stringify({ lost, reopened, twoTabs, declined }),
    );
  });
});

const SMALL = questionnaire(
  [
    section('a', [
      question('agrees', 2, { required: true, skips: [{ if: 'agrees = 2', to: { ending: 'no' } }] }),
    ]),
    section('b', [question('sex', 2, { required: true })]),
  ],
  {
    title: 'A <script>alert(1)</script> & “more”',
    endings: [
      { id: 'done', kind: 'complete', messages: [] },
      { id: 'no', kind: 'declined', messages: [] },
    ],
  },
);

describe('a respondent’s page', () => {
  it('keeps what is typed while the server is away, sends it once it is back, and says so', async () => {
    const { token } = linkTo(SMALL);
    const browser = storage();
    let isAway = false;
    const seen: (string | null)[] = [];
    const sitter = tab(token, browser, {
      ask: (door, body) =>
        isAway
          ? Promise.resolve({ is: 'away', problem: 'there is no connection' })
          : doors(token)(door, body),
      told() {
        seen.push(sitter.get().away);
        isAway = seen.length < 3;
      },
    });
    await sitter.open();
    sitter.answer('agrees', 1);
    isAway = true;
    await sitter.go('next');
    assert.deepEqual(seen, Array(3).fill('there is no connection'));
    assert.equal(sitter.get().notice, 'The connection is back: your answers have arrived.');
    assert.equal(sitter.shown()?.kept.turns, 1);
  });

  it('ends as declined, though the answer of the server is lost and nothing is known there any more', async () => {
    const { token } = linkTo(SMALL);
    const browser = storage();
    let lose = false;
    const sitter = tab(token, browser, {
      async ask(door, body) {
        const answered = await doors(token)(door, body);
        if (!lose) return answered;
        lose = false;
        return { is: 'away', problem: 'no answer came' };
      },
    });
    await sitter.open();
    sitter.answer('agrees', 2);
    lose = true;
    await sitter.go('next');
    assert.equal(closedIn(sitter.get())?.by, 'ending');
    assert.equal(listResponses(store(), token).length, 0);
    // The next who comes to this browser begins anew.
    const again = tab(token, browser);
    await again.open();
    assert.equal(again.shown()?.kept.turns, 0);
  });

  it('shows whoever went on elsewhere where it stands, and begins anew where that is allowed', async () => {
    const { token } = linkTo(SMALL);
    const browser = storage();
    const first = tab(token, browser);
    await first.open();
    const second = tab(token, browser);
    await second.open();
    assert.equal(second.shown()?.id, first.shown()?.id);
    first.answer('agrees', 1);
    await first.go('next');
    second.answer('agrees', 1);
    await second.go('next');
    assert.match(second.get().notice ?? '', /gone on with in another place/);
    assert.equal(second.shown()?.kept.turns, 1);
    second.answer('sex', 2);
    await second.go('next');
    const back = tab(token, browser);
    await back.open();
    const { phase } = back.get();
    assert.ok(phase.is === 'sitting' && phase.cameBack);
    await back.beginAnew();
    assert.equal(back.shown()?.kept.turns, 0);
    assert.equal(listResponses(store(), token).length, 2);
  });

  it('goes on in a new browser by the code, and tells what is wrong with one', async () => {
    const { token } = linkTo(SMALL);
    const first = tab(token, storage());
    await first.open();
    first.answer('agrees', 1);
    await first.go('next');
    const { phase } = first.get();
    const code = phase.is === 'sitting' ? phase.sitting.code : null;
    const elsewhere = storage();
    const second = tab(token, elsewhere);
    await second.open();
    assert.match((await second.comeBack('nonsense')) ?? '', /not known here/);
    assert.equal(await second.comeBack(`${code?.slice(0, 4)} ${code?.slice(4).toUpperCase()}`), null);
    assert.equal(second.shown()?.id, first.shown()?.id);
    assert.equal(second.shown()?.kept.turns, 1);
    // Closed and opened again there, it is still that one.
    const third = tab(token, elsewhere);
    await third.open();
    assert.equal(third.shown()?.id, first.shown()?.id);
  });

  it('goes on in the questionnaire that it is handed on to, with what is carried along', async () => {
    const options = [1, 2].map((code) => ({ code, label: `Sex ${code}` }));
    const diary = questionnaire([section('d', [question('again', 2)])], {
      title: 'Diary',
      given: [{ name: 'sex', label: 'Sex', answer: { type: 'single', options } }],
      endings: [{ id: 'end', kind: 'complete', messages: [] }],
    });
    const [done, ...others] = SMALL.endings;
    const handing = {
      ...SMALL,
      endings: [{ ...(done ?? assert.fail()), next: { questionnaire: 'diary', carry: ['sex'] } }, ...others],
    };
    const { token } = linkTo(handing, {}, [{ named: 'diary', version: null, document: diary }]);
    const browser = storage();
    const first = tab(token, browser);
    await first.open();
    first.answer('agrees', 1);
    await first.go('next');
    first.answer('sex', 2);
    await first.go('next');
    assert.equal(first.shown()?.plan.document.title, 'Diary');
    assert.deepEqual(first.shown()?.kept.given, { sex: 2 });
    // Opened anew, too.
    const second = tab(token, browser);
    await second.open();
    assert.equal(second.shown()?.plan.document.title, 'Diary');
    second.answer('again', 1);
    await second.go('next');
    assert.equal(closedIn(second.get())?.by, 'ending');
    assert.deepEqual(
      listResponses(store(), token).map(({ number, part, ending }) => [number, part, ending]),
      [
        [1, 0, 'done'],
        [1, 1, 'end'],
      ],
    );
  });

  it('has no text of an author that ends its script, and is shown inside of no page but the one that is named', () => {
    const at = (token: string) => answerPage(store(), PROGRAM, { token, key: null }, Date.now());
    const { token } = linkTo(SMALL);
    const { html, policy } = at(token);
    assert.ok(!html.includes('<script>alert'));
    assert.equal(pageOf(token).title, SMALL.title);
    assert.match(policy, /frame-ancestors 'none'/);
    assert.match(
      at(linkTo(SMALL, { embeddedIn: 'https://example.org' }).token).policy,
      /frame-ancestors https:\/\/example.org$/,
    );
    assert.equal(at('made-up').status, 404);
  });
});

describe('the doors of a respondent’s page', () => {
  const send = async (token: string, door: string, body: unknown, method = 'POST') => {
    const response = await ask('answer/[token]/[door].ts', method, { params: { token, door }, body });
    return [response.status, ((await response.json()) as { problem?: string }).problem ?? ''] as const;
  };

  it('refuse in words what no page of ours sends, and nothing is half done', async () => {
    const { id, token } = linkTo(SMALL);
    const ticket = randomUUID();
    const begin = { ticket, device: 'wide', browser: null, key: null };
    assert.equal((await send(token, 'begin', begin))[0], 200);
    const turn = (change: object) =>
      send(token, 'turn', {
        id: ticket,
        turn: { turn: 1, key: KEY, page: '0/0/0', answers: { agrees: 1 }, go: 'next', ...change },
      });
    const before = JSON.stringify(listResponses(store(), token));
    const refusals = await Promise.all([
      send('made-up', 'begin', begin),
      send(token, 'constructor', begin),
      send(token, 'begin', { ...begin, ticket: 'x' }),
      send(token, 'begin', { ...begin, more: 1 }),
      send(token, 'begin', begin, 'GET'),
      send(token, 'resume', { id: randomUUID() }),
      send(token, 'check', { id: ticket, tries: 0, written: 'x' }),
      turn({ page: '1/0/0', answers: { sex: 1 } }),
      turn({ answers: { agrees: 1, sex: 1 } }),
      turn({ answers: { agrees: 9 } }),
      turn({ answers: {} }),
      turn({ turn: 5 }),
      turn({ go: 'back' }),
      turn({ go: 'over' }),
      turn({ answers: { agrees: 'x'.repeat(1_000_000) } }),
      send(token, 'turn', {
        id: randomUUID(),
        turn: { turn: 1, key: KEY, page: '0/0/0', answers: {}, go: 'next' },
      }),
    ]);
    assert.deepEqual(
      refusals.map(([status]) => status),
      [404, 404, 400, 400, 404, 404, 403, 409, 400, 422, 422, 409, 422, 400, 413, 404],
    );
    for (const [, problem] of refusals) assert.match(problem, /\w.{10}/s);
    assert.equal(JSON.stringify(listResponses(store(), token)), before);
    assert.equal(listTrials(store(), id)[0]?.begun, 1);
    assert.equal((await turn({}))[0], 200);
  });

  it('are shut to guessing of codes', async () => {
    const { token } = linkTo(SMALL);
    const answers = [];
    for (let tries = 0; tries < 12; tries += 1)
      answers.push(await send(token, 'resume', { code: `made-up${tries}` }));
    assert.deepEqual([answers[0]?.[0], answers.at(-1)?.[0]], [404, 429]);
    assert.match(answers.at(-1)?.[1] ?? '', /too many codes/);
  });
});
