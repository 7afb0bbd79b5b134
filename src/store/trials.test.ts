/** Links and their responses: who may begin, what is kept of whom, and places in quotas, on a database in memory. */
import assert from 'node:assert/strict';
import { randomUUID } from 'node:crypto';
import { describe, it } from 'node:test';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { ask, planFor, questionnaire, section } from '../../tests/support/questionnaire';
import type { Answers, Questionnaire } from '../core/document/types';
import { rowOfCase } from '../core/responding/case-data';
import { pagesOfCase } from '../core/responding/kept-case';
import { USUAL_TRIAL, type TrialSettings } from '../core/responding/trial-settings';
import type { Turn } from '../core/responding/turn';
import { humanCheckOf } from '../core/wording/human-check';
import { openStore } from './open';
import { addPeople, listPeople } from './people';
import {
  beginResponse,
  findResponse,
  findSitting,
  listResponses,
  removeAllStopped,
  removeStopped,
  type StoredResponse,
  type ToBegin,
} from './responses';
import { places, responses } from './schema';
import { addStudy, saveStudy, removeStudy } from './studies';
import { addTrial, changeTrial, findTrial, listTrials, type TrialToAdd } from './trials';
import { passHumanCheck, storeTurn } from './turns';

const MINUTE = 60_000;
/** Answers page by page, to the end. */
const WAY: readonly Answers[] = [{ agrees: 1 }, { sex: 2 }, { last: 1 }];
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
const STUDY_SEX = [1, 2].map((code) => ({ code, label: `Sex ${code}` }));

/** A link to the study, in a database of its own. */
function linked(
  settings: Partial<TrialSettings> = {},
  document: Questionnaire = STUDY,
  followUps: TrialToAdd['followUps'] = [],
) {
  const db = openStore(':memory:');
  const { id } = addStudy(db, document, 0);
  const trial = addTrial(
    db,
    id,
    { name: 'Colleagues', version: 2, document, settings: { ...USUAL_TRIAL, ...settings }, followUps },
    0,
  );
  const { token } = trial;
  const begin = (now = 1, by: Partial<ToBegin> = {}) =>
    beginResponse(
      db,
      token,
      { ticket: randomUUID(), device: 'narrow', browser: null, key: null, ...by },
      now,
    );
  const begun = (now = 1, by: Partial<ToBegin> = {}): StoredResponse => {
    const result = begin(now, by);
    assert.ok(result.ok);
    return result.response;
  };
  /** The next turn of a response as it stands, with the answers to the items of its page. */
  const turnOf = (key: string, answers: Answers, go: Turn['go'] = 'next'): Turn => {
    const stored = findResponse(db, token, key);
    assert.ok(stored);
    const { kept } = stored;
    const asked = stored.questionnaire === 0 ? document : followUps[stored.questionnaire - 1]?.document;
    const page = pagesOfCase(planFor(asked ?? document), kept)[kept.at];
    const given = Object.entries(answers).filter(([name]) => page?.steps.some((step) => step.key === name));
    return {
      turn: kept.turns + 1,
      key: randomUUID(),
      page: page?.key ?? '',
      answers: Object.fromEntries(given),
      go,
    };
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
    assert.deepEqual(findSitting(db, token, { code: ` ${one?.code.toUpperCase()} ` })?.id, one?.id);
    assert.equal(findResponse(db, 'another', one?.id ?? ''), null);
  });
});

describe('a response', () => {
  it('is kept after every turn, counts a turn sent again once, and is coded at its ending', () => {
    const { db, token, begun, turn, turnOf } = linked();
    const { id } = begun();
    const first = turnOf(id, { agrees: 1 });
    for (let times = 0; times < 3; times += 1) assert.equal(told(storeTurn(db, token, id, first, 2)), 'ok');
    assert.equal(findResponse(db, token, id)?.kept.turns, 1);
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
    assert.equal(findResponse(db, token, id), null);
  });
});

describe('who may answer, and how often', () => {
  const BROWSER = randomUUID();
  const complete = ({ turn }: ReturnType<typeof linked>, { id }: StoredResponse) => {
    for (const answers of WAY) assert.equal(told(turn(id, answers)), 'ok');
  };

  it('a response begun twice with one ticket is one', () => {
    const { db, id, begun } = linked();
    const ticket = randomUUID();
    assert.deepEqual(begun(1, { ticket }), begun(5, { ticket }));
    assert.equal(listTrials(db, id)[0]?.begun, 1);
  });

  it('a browser goes on with what it began, and answers as often as it may', () => {
    const link = linked({ toldApart: 'browser', attempts: 2 });
    const first = link.begun(1, { browser: BROWSER });
    // Of a second tab, with a ticket of its own.
    assert.equal(link.begun(2, { browser: BROWSER }).id, first.id);
    complete(link, first);
    const second = link.begun(3, { browser: BROWSER });
    assert.notEqual(second.id, first.id);
    complete(link, second);
    assert.match(told(link.begin(4, { browser: BROWSER })), /answered.*as often as/);
    assert.notEqual(link.begun(4, { browser: randomUUID() }).id, first.id);
  });

  it('people with links of their own answer once, with what is known of them; others do not', () => {
    const document = {
      ...STUDY,
      given: [
        ...(STUDY.given ?? []),
        {
          name: 'region',
          label: 'Region',
          answer: { type: 'number' as const, min: 1, max: 9, decimals: 0, unit: '' },
        },
      ],
    };
    for (const mayReturn of [true, false]) {
      const link = linked({ toldApart: 'personal', mayReturn }, document);
      const { db, token } = link;
      const twice = [
        { name: 'A. Fenn', given: { region: 4 } },
        { name: 'B. Moss', given: { region: 5 } },
      ];
      assert.deepEqual(addPeople(db, token, twice, 1), []);
      assert.deepEqual(addPeople(db, token, [{ name: 'C', given: {} }, ...twice], 1), ['A. Fenn', 'B. Moss']);
      const [fenn, moss] = listPeople(db, token);
      assert.equal(listPeople(db, token).length, 2);
      assert.match(told(link.begin()), /stranger/);
      assert.match(told(link.begin(1, { key: 'another' })), /stranger/);
      const first = link.begun(1, { key: fenn?.key ?? '' });
      assert.equal(first.kept.given.region, 4);
      // From another browser.
      if (mayReturn) assert.equal(link.begun(2, { key: fenn?.key ?? '' }).id, first.id);
      else assert.match(told(link.begin(2, { key: fenn?.key ?? '' })), /elsewhere/);
      complete(link, first);
      assert.match(told(link.begin(3, { key: fenn?.key ?? '' })), /answered.*already/);
      assert.equal(link.begun(3, { key: moss?.key ?? '' }).kept.given.region, 5);
    }
  });

  it('nobody goes on before they have shown that a person answers, where that is asked for', () => {
    const { db, token, begun, turn } = linked({ humanCheck: true });
    const response = begun();
    const { id } = response;
    assert.match(told(turn(id, { agrees: 1 })), /unchecked/);
    const tries = 3;
    const { task } = humanCheckOf(response.kept.seed + tries);
    const right = [
      'zero',
      'one',
      'two',
      'three',
      'four',
      'five',
      'six',
      'seven',
      'eight',
      'nine',
      'ten',
    ].find((word) => task.includes(word) && humanCheckOf(response.kept.seed + tries).solves(word));
    assert.equal(passHumanCheck(db, token, id, { tries, written: 'eleven' }), false);
    assert.equal(passHumanCheck(db, token, 'another', { tries, written: right ?? '' }), false);
    assert.equal(passHumanCheck(db, token, id, { tries, written: right ?? '' }), true);
    assert.equal(told(turn(id, { agrees: 1 })), 'ok');
  });

  it('when the time for the whole is over, the page in hand is taken, and nothing after it', () => {
    const link = linked({ minutes: 2 });
    const { db, token, turn } = link;
    const [first, late, slow] = [link.begun(0), link.begun(0), link.begun(0)];
    for (const { id } of [first, late, slow]) turn(id, { agrees: 1 }, 10);
    assert.match(told(turn(first.id, { sex: 2 }, MINUTE, 'over')), /no-limit/);
    assert.equal(told(turn(first.id, { sex: 2 }, 2 * MINUTE, 'over')), 'ok');
    assert.equal(told(turn(late.id, { sex: 2 }, 3 * MINUTE + 1)), 'ok');
    // Pressed in time, and long on its way: the page is taken, and it is the last.
    assert.equal(told(turn(slow.id, { sex: 1 }, 2 * MINUTE + 30_000)), 'ok');
    const rows = [first, late, slow].map(({ id }) => {
      const stored = findResponse(db, token, id);
      assert.equal(stored?.closedBy, 'time');
      return rowOfCase(plan, stored.kept);
    });
    assert.deepEqual(
      rows.map(({ sex, last }) => [sex, last]),
      [
        [2, -4],
        [-3, -4],
        [1, -4],
      ],
    );
    assert.match(told(turn(late.id, { sex: 2 }, 4 * MINUTE)), /closed/);
  });

  it('what is left for long is taken away where it is not to be kept, and else stays', () => {
    for (const [stopped, all] of [
      ['keep', false],
      ['keep', true],
      ['remove', false],
      ['remove', true],
    ] as const) {
      const link = linked({ stopped, stoppedAfter: 2 });
      const { db, token, turn } = link;
      const [away, under, done] = [link.begun(1), link.begun(1), link.begun(1)];
      complete(link, done);
      turn(under.id, { agrees: 1 }, 60 * MINUTE);
      const trial = findTrial(db, token) ?? assert.fail();
      // Not a minute too early; whoever looks at the link, and the hour that looks at all of them, do the same.
      removeAllStopped(db, 119 * MINUTE);
      assert.ok(findResponse(db, token, away.id));
      if (all) removeAllStopped(db, 121 * MINUTE);
      else removeStopped(db, trial, 121 * MINUTE);
      assert.equal(findResponse(db, token, away.id) === null, stopped === 'remove');
      assert.ok(findResponse(db, token, under.id));
      assert.ok(findResponse(db, token, done.id));
      assert.equal(findTrial(db, token)?.removed, stopped === 'remove' ? 1 : 0);
    }
  });
});

describe('handing on in one sitting', () => {
  const diary = questionnaire(
    [section('d', [ask('again', 2, { skips: [{ if: 'again = 2', to: { ending: 'no' } }] })])],
    {
      given: [{ name: 'sex', label: 'Sex', answer: { type: 'single', options: STUDY_SEX } }],
      endings: [
        { id: 'end', kind: 'complete', messages: [] },
        { id: 'no', kind: 'declined', messages: [] },
      ],
    },
  );
  const handing = (carry: string[]): Questionnaire => ({
    ...STUDY,
    endings: STUDY.endings.map((ending) =>
      ending.id === 'done' ? { ...ending, next: { questionnaire: 'diary', carry } } : ending,
    ),
  });

  it('begins the follow-up with what is carried, under the same case, found by ticket and code', () => {
    const link = linked({}, handing(['sex']), [{ named: 'diary', version: null, document: diary }]);
    const { db, token, turn } = link;
    const first = link.begun();
    for (const answers of WAY.slice(0, -1)) turn(first.id, answers);
    const last = link.turnOf(first.id, { last: 1 });
    storeTurn(db, token, first.id, last, 3);
    const second = findSitting(db, token, { id: first.id });
    assert.deepEqual(
      [second?.part, second?.questionnaire, second?.number, second?.kept.id, second?.kept.given],
      [1, 1, first.number, first.kept.id, { sex: 2 }],
    );
    assert.equal(findSitting(db, token, { code: first.code })?.id, second?.id);
    // The last page of the first sent again begins nothing anew.
    assert.deepEqual(storeTurn(db, token, first.id, last, 3), {
      ...{ ok: true, again: true, response: second },
      kept: findResponse(db, token, first.id)?.kept,
    });
    turn(second?.id ?? '', { again: 1 });
    assert.deepEqual(
      listResponses(db, token).map(({ number, ending }) => [number, ending]),
      [
        [1, 'done'],
        [1, 'end'],
      ],
    );
  });

  it('keeps what was answered before of whoever declines the follow-up, and counts them once', () => {
    const link = linked({}, handing(['sex']), [{ named: 'diary', version: null, document: diary }]);
    const { db, id, token, turn } = link;
    const first = link.begun();
    for (const answers of WAY) turn(first.id, answers);
    turn(findSitting(db, token, { id: first.id })?.id ?? '', { again: 2 });
    assert.deepEqual(
      listResponses(db, token).map(({ part, ending }) => [part, ending]),
      [[0, 'done']],
    );
    const [trial] = listTrials(db, id);
    assert.deepEqual([trial?.begun, trial?.declined], [1, 0]);
  });

  it('ends where the follow-up cannot be begun with what is carried', () => {
    const link = linked({}, handing([]), [{ named: 'diary', version: null, document: diary }]);
    const first = link.begun();
    for (const answers of WAY) link.turn(first.id, answers);
    assert.equal(findSitting(link.db, link.token, { id: first.id })?.part, 0);
  });
});

describe('quotas of stored responses', () => {
  const toSex = ({ begun, turn }: ReturnType<typeof linked>) => {
    const { id } = begun();
    turn(id, { agrees: 1 });
    return id;
  };
  const endingOf = ({ db, token }: ReturnType<typeof linked>, id: string) =>
    findResponse(db, token, id)?.ending;

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
