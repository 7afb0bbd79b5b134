/** Links and their responses: who may begin, what is kept of whom, and places in quotas, on a database in memory. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { ask, planFor, questionnaire, section } from '../../tests/support/questionnaire';
import type { Answers, Questionnaire } from '../core/document/types';
import { rowOfCase } from '../core/responding/case-data';
import { pagesOfCase } from '../core/responding/kept-case';
import { USUAL_TRIAL, type TrialSettings } from '../core/responding/trial-settings';
import type { Turn } from '../core/responding/turn';
import { openStore } from './open';
import { beginResponse, findResponse, listResponses, storeTurn, type StoredResponse } from './responses';
import { places, responses } from './schema';
import { addStudy, saveStudy, removeStudy } from './studies';
import { addTrial, changeTrial, findTrial, listTrials } from './trials';

const MINUTE = 60_000;
const STUDY = questionnaire(
  [
    section('a', [ask('agrees', 2, { required: true, skips: [{ if: 'agrees = 2', to: { ending: 'no' } }] })]),
    section('b', [ask('sex', 2, { required: true })]),
    section('c', [ask('last', 2)]),
  ],
  {
    given: [
      {
        ...{ name: 'arm', label: 'Arm', random: true },
        answer: { type: 'single', options: [1, 2].map((code) => ({ code, label: `Arm ${code}` })) },
      },
    ],
    quotas: [{ id: 'men', label: 'Men', if: 'sex = 1', target: 3, at: 'sex', to: { ending: 'full' } }],
    endings: [
      { id: 'done', kind: 'complete', messages: [] },
      { id: 'no', kind: 'declined', messages: [] },
      { id: 'full', kind: 'quota_full', messages: [] },
    ],
  },
);
const plan = planFor(STUDY);

/** A link to the study, in a database of its own. */
function linked(settings: Partial<TrialSettings> = {}, document: Questionnaire = STUDY) {
  const db = openStore(':memory:');
  const { id } = addStudy(db, document, 0);
  const trial = addTrial(
    db,
    id,
    { name: 'Colleagues', version: 2, document, settings: { ...USUAL_TRIAL, ...settings } },
    0,
  );
  const { token } = trial;
  const begin = (now = 1) => beginResponse(db, token, 'narrow', now);
  const begun = (now = 1): StoredResponse => {
    const result = begin(now);
    assert.ok(result.ok);
    return result.response;
  };
  /** The next turn of a response as it stands, with the answers to the items of its page. */
  const turnOf = (key: string, answers: Answers, go: Turn['go'] = 'next'): Turn => {
    const kept = findResponse(db, token, { id: key })?.kept;
    assert.ok(kept);
    const page = pagesOfCase(plan, kept)[kept.at];
    const asked = Object.entries(answers).filter(([name]) => page?.steps.some((step) => step.key === name));
    return { turn: kept.turns + 1, page: page?.key ?? '', answers: Object.fromEntries(asked), go };
  };
  const turn = (key: string, answers: Answers, now = 2, go: Turn['go'] = 'next') =>
    storeTurn(db, token, key, turnOf(key, answers, go), now);
  return { db, id, token, begin, begun, turn, turnOf };
}

const told = (result: { readonly ok: boolean }) => (result.ok ? 'ok' : JSON.stringify(Object.values(result)));

describe('a link for respondents', () => {
  it('keeps the questionnaire as it was, whatever is edited later', () => {
    const { db, id, token, begun } = linked();
    saveStudy(db, id, 1, { ...STUDY, title: 'Another', sections: [section('z', [ask('other')])] }, 5);
    assert.deepEqual(Object.keys(begun().kept.given), ['arm']);
    assert.equal(JSON.parse(findTrial(db, token)?.document ?? '').title, STUDY.title);
    assert.deepEqual(
      listTrials(db, id).map(({ name, version, begun: of, state }) => [name, version, of, state]),
      [['Colleagues', 2, 1, 'open']],
    );
  });

  it('lets in while it is open, from when until when it is, and as many as were asked for', () => {
    const { db, id, token, begin, turn, begun } = linked({ opensAt: 10, closesAt: 100, mostResponses: 2 });
    assert.match(told(begin(9)), /opens on 1970-01-01 at 00:00 UTC/);
    const first = begun(10);
    begun(11);
    assert.match(told(begin(12)), /As many people as were asked for/);
    // Whoever is under way goes on, until it is closed.
    assert.equal(told(turn(first.id, { agrees: 1 }, 99)), 'ok');
    assert.match(told(turn(first.id, { sex: 2 }, 100)), /halted.*closed/);
    changeTrial(db, id, token, { settings: { ...USUAL_TRIAL }, state: 'paused' });
    assert.match(told(begin(101)), /paused/);
    assert.match(told(turn(first.id, { sex: 2 }, 101)), /halted.*paused/);
    changeTrial(db, id, token, { state: 'open' });
    assert.equal(told(turn(first.id, { sex: 2 }, 102)), 'ok');
    assert.equal(changeTrial(db, 'another', token, { state: 'closed' }), false);
    removeStudy(db, id, 103);
    assert.match(told(begin(104)), /no questionnaire at this address/);
  });

  it('allots arms in balance and gives each a code of its own, by which it is found', () => {
    const { db, token, begun } = linked();
    const all = Array.from({ length: 40 }, () => begun());
    assert.equal(all.filter(({ kept }) => kept.given.arm === 1).length, 20);
    assert.deepEqual(
      all.map(({ number }) => number),
      Array.from({ length: 40 }, (_, n) => n + 1),
    );
    assert.equal(new Set(all.map(({ code }) => code)).size, 40);
    assert.ok(new Set(all.map(({ kept }) => kept.seed)).size > 30);
    const [one] = all;
    assert.deepEqual(findResponse(db, token, { code: ` ${one?.code.toUpperCase()} ` })?.id, one?.id);
    assert.equal(findResponse(db, 'another', { id: one?.id ?? '' }), null);
  });
});

describe('a response', () => {
  it('is kept after every turn, counts a turn sent again once, and is coded at its ending', () => {
    const { db, token, begun, turn, turnOf } = linked();
    const { id } = begun();
    const first = turnOf(id, { agrees: 1 });
    for (let times = 0; times < 3; times += 1) assert.equal(told(storeTurn(db, token, id, first, 2)), 'ok');
    assert.equal(findResponse(db, token, { id })?.kept.turns, 1);
    assert.match(told(storeTurn(db, token, id, { ...first, turn: 2 }, 2)), /elsewhere/);
    turn(id, { sex: 2 });
    turn(id, { last: 1 });
    const [stored] = listResponses(db, token);
    assert.equal(stored?.ending, 'done');
    assert.deepEqual(
      { ...rowOfCase(plan, stored?.kept ?? assert.fail()), arm: 0 },
      { arm: 0, agrees: 1, sex: 2, last: 1, ending: 'done' },
    );
    assert.match(told(storeTurn(db, token, 'another', first, 2)), /no-response/);
  });

  it('that declines leaves nothing but a count', () => {
    const { db, id: study, token, begun, turn } = linked();
    const { id } = begun();
    begun();
    assert.equal(told(turn(id, { agrees: 2 })), 'ok');
    assert.deepEqual(db.select({ number: responses.number }).from(responses).all(), [{ number: 2 }]);
    const [trial] = listTrials(db, study);
    assert.deepEqual([trial?.declined, trial?.begun], [1, 2]);
    assert.equal(findResponse(db, token, { id }), null);
  });
});

describe('quotas of stored responses', () => {
  const toSex = ({ begun, turn }: ReturnType<typeof linked>) => {
    const { id } = begun();
    turn(id, { agrees: 1 });
    return id;
  };
  const endingOf = ({ db, token }: ReturnType<typeof linked>, id: string) =>
    findResponse(db, token, { id })?.ending;

  it('are never over their target, however many are under way at once', () => {
    const link = linked();
    const random = xoroshiro128plus(5);
    const ids = Array.from({ length: 40 }, () => toSex(link));
    const under = new Set(ids);
    while (under.size > 0) {
      const id = ids[uniformInt(random, 0, ids.length - 1)] ?? '';
      if (!under.has(id)) continue;
      link.turn(id, { sex: 1, last: 1 });
      if (endingOf(link, id) !== null) under.delete(id);
    }
    const endings = ids.map((id) => endingOf(link, id));
    assert.deepEqual(
      ['done', 'full'].map((ending) => endings.filter((each) => each === ending).length),
      [3, 37],
    );
  });

  it('give the place of whoever is away for long to others, and turn them away where it is gone', () => {
    const link = linked();
    const [away, back, ...more] = Array.from({ length: 6 }, () => toSex(link)) as [
      string,
      string,
      ...string[],
    ];
    for (const id of [away, back]) link.turn(id, { sex: 1 }, 10);
    const later = 10 + 31 * MINUTE;
    // Two places of three are free again, and a third was never taken.
    for (const id of more.slice(0, 2)) link.turn(id, { sex: 1 }, later);
    // One comes back in time, and has theirs still.
    assert.equal(told(link.turn(back, { last: 1 }, later + 1)), 'ok');
    assert.equal(endingOf(link, back), 'done');
    for (const id of more.slice(2)) link.turn(id, { sex: 1 }, later + 2);
    assert.deepEqual(
      more.map((id) => endingOf(link, id) ?? null),
      [null, null, 'full', 'full'],
    );
    assert.match(told(link.turn(away, { last: 1 }, later + 3)), /closed/);
    assert.equal(endingOf(link, away), 'full');
    assert.equal(link.db.select().from(places).all().length, 3);
  });
});
