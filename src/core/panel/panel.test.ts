/** Members of a made-up panel: what they are like, when they come, and what they do with the page in hand. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, say, section } from '../../../tests/support/questionnaire';
import type { Questionnaire } from '../document/types';
import { caseBegun } from '../responding/kept-case';
import { turnedCase, type TurnedCase } from '../responding/turn';
import { pageDone } from './answering';
import { letterProblems, letterTo, LETTERS, USUAL_TEXTS } from './letters';
import { chanceOf, logNormal, memberOf, occasionsOf, type LetterSent, type Member } from './member';
import { nextStep, type MemberSoFar } from './next-step';
import { DAY, HOUR, lettersDue, panelEnds, postTimes, usualPanel } from './panel-settings';
import { madeUpSample } from './sample';

const MONDAY = Date.UTC(2026, 10, 30);
const usual = usualPanel(MONDAY + 5 * HOUR, 7);
const behaviour = {
  ...usual.behaviour,
  ...{ invitation: 100, reminder: 100, second_reminder: 100, comeBack: 100 },
  ...{ refuse: 0, breakOff: 0, careless: 0 },
};
const willing = { ...usual, behaviour };
const members = (change: Partial<typeof behaviour>, count = 2000) =>
  Array.from({ length: count }, (_, n) =>
    memberOf({ seed: 3, behaviour: { ...behaviour, ...change } }, n + 1),
  );
const mean = (numbers: readonly number[]) => numbers.reduce((sum, each) => sum + each, 0) / numbers.length;

describe('a panel as it is settled', () => {
  it('begins at midnight, and sends its letters at its hour on its days', () => {
    assert.equal(usual.startsAt, MONDAY);
    assert.equal(panelEnds(usual), MONDAY + 14 * DAY);
    const times = postTimes(usual);
    assert.deepEqual(
      [times.length, times[0], times[13]],
      [14, MONDAY + 9 * HOUR, MONDAY + 13 * DAY + 9 * HOUR],
    );
    assert.deepEqual(
      times
        .flatMap((at, day) => lettersDue(usual, at).map((kind) => `${day} ${kind}`))
        .filter((due) => !due.endsWith('thanks')),
      ['0 invitation', '3 reminder', '7 second_reminder'],
    );
    assert.ok(times.every((at) => lettersDue(usual, at).at(-1) === 'thanks'));
  });

  it('has letters that put in what is known of everybody, and a link where one is needed', () => {
    const single = ask('region', 2).answer;
    const plan = planFor(
      questionnaire([section('a', [ask('a')])], {
        given: [
          { name: 'region', label: 'Region', answer: single },
          { name: 'arm', label: 'Arm', answer: single, random: true },
        ],
      }),
    );
    assert.deepEqual(letterProblems(plan, USUAL_TEXTS), []);
    const texts = {
      ...USUAL_TEXTS,
      invitation: { subject: 'In {REGION}', text: 'No link, {arm}' },
      thanks: { subject: 'Thanks, {age}', text: 'No link is needed.' },
    };
    const could = 'Put in {person}, {link}, {region}.';
    assert.deepEqual(letterProblems(plan, texts), [
      `Invitation: {arm} is not known of everybody. ${could}`,
      'Invitation: put {link} where the link of each is to stand.',
      `Thanks: {age} is not known of everybody. ${could}`,
    ]);
    assert.deepEqual(
      letterTo(
        plan,
        { subject: '{Person} of {Region}', text: '{link} {arm}.' },
        { name: 'Ada', link: 'L', given: { region: 2, arm: 1 } },
      ),
      { subject: 'Ada of Answer 2', text: 'L .' },
    );
  });

  it('has a sample of numbered people, of whom nothing is known that chance decides', () => {
    const answer = ask('region', 2).answer;
    const given = [
      { name: 'region', label: 'Region', answer, assume: { shares: { 1: 0.25, 2: 0.75 } } },
      { name: 'arm', label: 'Arm', answer, random: true as const },
    ];
    const plan = planFor(questionnaire([section('a', [ask('a')])], { given }));
    const people = madeUpSample(plan, 400, 5);
    assert.deepEqual([people[0]?.name, people[399]?.name], ['Member 001', 'Member 400']);
    assert.ok(people.every((each) => Object.keys(each.given).join() === 'region'));
    assert.ok(Math.abs(mean(people.map((each) => (each.given.region === 1 ? 1 : 0))) - 0.25) < 0.08);
    assert.deepEqual(madeUpSample(plan, 400, 5), people);
    assert.notDeepEqual(madeUpSample(plan, 400, 6), people);
  });
});

describe('a member', () => {
  it('is like what is assumed of them, as often as it is', () => {
    const some = members({ phones: 60, careless: 25, refuse: 10 });
    for (const [is, share] of [
      [({ isOnPhone }: Member) => isOnPhone, 0.6],
      [({ isCareless }: Member) => isCareless, 0.25],
      [({ refuses }: Member) => refuses, 0.1],
    ] as const)
      assert.ok(Math.abs(mean(some.map((each) => (is(each) ? 1 : 0))) - share) < 0.03);
    assert.ok(some.filter(({ isCareless }) => isCareless).every(({ pace }) => pace === 0.2));
    assert.ok(
      Math.abs(mean(some.filter(({ isCareless }) => !isCareless).map(({ pace }) => pace)) - 1) < 0.04,
    );
    for (const [percent, all] of [
      [0, false],
      [100, true],
    ] as const)
      assert.ok(members({ phones: percent }, 200).every(({ isOnPhone }) => isOnPhone === all));
    const logarithms = members({}).map(({ pace }) => Math.log(pace));
    const middle = mean(logarithms);
    assert.ok(Math.abs(mean(logarithms.map((each) => (each - middle) ** 2)) - 0.35 ** 2) < 0.016);
    assert.equal(logNormal(1, 2, 'x', 0), 1);
  });

  it('comes after a letter, in order, never at night, and not for thanks', () => {
    const sent: LetterSent[] = LETTERS.map((kind, n) => ({
      kind,
      at: MONDAY + (9 - 2 * n) * DAY + 9 * HOUR,
    }));
    const waits: number[] = [];
    for (let n = 1; n <= 500; n += 1) {
      const moments = occasionsOf(willing, n, sent, null);
      assert.equal(moments.length, 3);
      assert.deepEqual(
        moments,
        [...moments].sort((a, b) => a - b),
      );
      for (const at of moments) {
        const hour = (at / HOUR) % 24;
        assert.ok(hour >= 7 && hour < 22, `${n} comes at ${hour}`);
      }
      const [first = 0] = occasionsOf(willing, n, [{ kind: 'invitation', at: MONDAY + 9 * HOUR }], null);
      assert.ok(first >= MONDAY + 9 * HOUR);
      // As it would be without nights: nine hours on average, and what falls into nine of them waits until after.
      waits.push((first - MONDAY - 9 * HOUR) / HOUR);
    }
    assert.ok(mean(waits) > 9 && mean(waits) < 14, `${mean(waits)} hours`);
  });

  it('who had begun before a letter comes back by its own share; after the invitation by that of the invitation', () => {
    const settings = { seed: 3, behaviour: { ...behaviour, invitation: 0, reminder: 0, comeBack: 100 } };
    const at = MONDAY + 9 * HOUR;
    const comes = (kind: LetterSent['kind'], begunAt: number | null) =>
      occasionsOf(settings, 1, [{ kind, at }], begunAt).length;
    assert.deepEqual(
      [
        comes('reminder', null),
        comes('reminder', at - 1),
        comes('reminder', at),
        comes('invitation', at - 1),
      ],
      [0, 1, 0, 0],
    );
    const some = Array.from(
      { length: 2000 },
      (_, n) =>
        occasionsOf(
          { seed: 3, behaviour: { ...behaviour, invitation: 30 } },
          n + 1,
          [{ kind: 'invitation', at }],
          null,
        ).length,
    );
    assert.ok(Math.abs(mean(some) - 0.3) < 0.03);
  });
});

const GRID = {
  type: 'grid' as const,
  rows: ['heat', 'cost', 'noise'].map((name) => ({ name, label: name })),
  options: [1, 2, 3, 4, 5].map((code) => ({ code, label: `Level ${code}` })),
};
const OTHER = {
  type: 'single' as const,
  options: [{ code: 1, label: 'Other', specify: true as const }],
};

function begun(document: Questionnaire) {
  const plan = planFor(document);
  const key = '00000000-0000-4000-8000-000000000000';
  return { plan, kept: turnedCase(caseBegun(plan, { key, id: 'one', seed: 1, given: {} }, MONDAY)) };
}
const steady: Member = { n: 1, isOnPhone: false, pace: 1, isCareless: false, refuses: false };
const inHand = (
  document: Questionnaire,
  more: { at?: number; endsAt?: number | null; kept?: Partial<TurnedCase> } = {},
) => {
  const { plan, kept } = begun(document);
  return {
    plan,
    kept: { ...kept, ...more.kept },
    questionnaire: 1,
    at: more.at ?? MONDAY,
    endsAt: more.endsAt ?? null,
    occasion: 1,
  };
};
const CALM = { seed: 7, breakOff: 0 };

describe('a page in hand', () => {
  it('is answered whole, with what comes up on it, words beside options, and again where a check refuses', () => {
    const document = questionnaire([
      section('a', [
        say('hello'),
        ask('why', OTHER),
        ask('more', 1, { askIf: 'why = 1' }),
        ask(
          'rooms',
          { type: 'number', min: 1, max: 9 },
          { checks: [{ if: 'rooms < 9', kind: 'hard', message: 'Nine' }] },
        ),
        ask('views', GRID),
      ]),
    ]);
    const done = pageDone(CALM, steady, inHand(document));
    assert.ok(done !== null && !done.leaves);
    assert.deepEqual(
      Object.keys(done.answers).sort(),
      ['cost', 'heat', 'more', 'noise', 'rooms', 'why', 'why_1_text'].sort(),
    );
    assert.equal(done.answers.rooms, 9);
    assert.equal(done.go, 'next');
    assert.deepEqual(pageDone(CALM, steady, inHand(document)), done);
  });

  it('keeps nothing of what went from it because of another answer there', () => {
    const document = questionnaire([
      section('a', [
        ask('after', 2, { checks: [{ if: 'after = 1', kind: 'hard', message: 'One' }] }),
        ask('gone', OTHER, { askIf: 'after = 1' }),
      ]),
    ]);
    // Half of them answer 1 at first, and what it brings up; then they are refused, and answer 2.
    for (let n = 1; n <= 20; n += 1)
      assert.deepEqual(pageDone(CALM, { ...steady, n }, inHand(document))?.answers, { after: 2 });
  });

  it('is given up where a check lets nothing through, and where somebody refuses and nothing says no', () => {
    const stuck = questionnaire([
      section('a', [ask('one', 1, { checks: [{ if: 'one = 1', kind: 'hard', message: 'Never' }] })]),
    ]);
    assert.equal(pageDone(CALM, steady, inHand(stuck))?.leaves, true);
    const plain = questionnaire([section('a', [ask('one', 1)])]);
    const refuses = { ...steady, refuses: true };
    assert.equal(pageDone(CALM, refuses, inHand(plain))?.leaves, true);
    assert.equal(pageDone(CALM, steady, inHand(plain))?.leaves, false);
  });

  it('is declined by whoever refuses, as the questionnaire lets them; on a page of consent without that they go on', () => {
    const consent = (ending: string) =>
      questionnaire(
        [
          section('a', [ask('agree', 2, { skips: [{ if: 'agree = 2', to: { ending } }] })], {
            kind: 'consent',
          }),
        ],
        {
          endings: [
            { id: 'done', kind: 'complete', messages: [{ text: 'Thank you.' }] },
            { id: 'out', kind: 'screened_out', messages: [{ text: 'Goodbye.' }] },
            { id: 'no', kind: 'declined', messages: [{ text: 'Goodbye.' }] },
          ],
        },
      );
    for (let n = 1; n <= 20; n += 1) {
      const refuses = { ...steady, n, refuses: true };
      const said = pageDone(CALM, refuses, inHand(consent('no')));
      assert.deepEqual([said?.answers, said?.leaves], [{ agree: 2 }, false]);
      // Who is screened out has not declined.
      assert.equal(pageDone(CALM, refuses, inHand(consent('out')))?.leaves, false);
    }
    const all = Array.from({ length: 40 }, (_, n) =>
      pageDone(CALM, { ...steady, n, refuses: true }, inHand(consent('out'))),
    );
    assert.equal(new Set(all.map((done) => done?.answers.agree)).size, 2);
  });

  it('is answered alike in every row by whoever is careless, and by hardly anybody else', () => {
    const document = questionnaire([section('a', [ask('views', GRID)])]);
    const alike = (isCareless: boolean) =>
      Array.from({ length: 60 }, (_, n) =>
        pageDone(CALM, { ...steady, n, isCareless }, inHand(document)),
      ).filter((done) => new Set(Object.values(done?.answers ?? {})).size === 1).length;
    assert.equal(alike(true), 60);
    assert.ok(alike(false) < 15);
  });

  it('takes as long as its items at the pace of whoever answers, and drives out more where it is hard', () => {
    const document = questionnaire([section('a', [ask('long', 1, { seconds: 600 })])]);
    const seconds = (pace: number) =>
      mean(
        Array.from(
          { length: 300 },
          (_, n) => pageDone(CALM, { ...steady, n, pace }, inHand(document))?.seconds ?? 0,
        ),
      );
    assert.ok(Math.abs(seconds(1) - 600) < 30);
    assert.ok(Math.abs(seconds(0.5) - 300) < 15);
    const instant = questionnaire([section('a', [ask('short', 1, { seconds: 0 })])]);
    assert.equal(pageDone(CALM, steady, inHand(instant))?.seconds, 1);
    const left = (answer: Parameters<typeof ask>[1], pace = 1) =>
      mean(
        Array.from({ length: 1000 }, (_, n) =>
          pageDone(
            { seed: 7, breakOff: 5 },
            { ...steady, n, pace },
            inHand(questionnaire([section('a', [ask('one', answer, { seconds: 120 })])])),
          )?.leaves
            ? 1
            : 0,
        ),
      );
    // Of those who stay on in each of two minutes, one in twenty leaves; three times as many where it is hard.
    for (const [answer, minutes, pace] of [
      [1, 2, 1],
      [1, 4, 2],
      [GRID, 6, 1],
      [{ type: 'text', lines: 'many' }, 6, 1],
      [{ type: 'text' }, 2, 1],
    ] as const)
      assert.ok(
        Math.abs(left(answer, pace) - (1 - Math.exp(-0.05 * minutes))) < 0.035,
        JSON.stringify(answer),
      );
  });

  it('is sent as far as it is answered when the time is over, of the section or of the whole', () => {
    const document = questionnaire([
      section('a', [ask('one', 1, { seconds: 10 }), ask('two', 1, { seconds: 1000 })], { timeLimit: 100 }),
    ]);
    const over = pageDone(CALM, steady, inHand(document, { at: MONDAY + 30_000 }));
    assert.deepEqual([over?.go, over?.seconds, over?.answers], ['time-out', 71, { one: 1 }]);
    const whole = pageDone(CALM, steady, inHand(document, { at: MONDAY + 30_000, endsAt: MONDAY + 50_000 }));
    assert.deepEqual([whole?.go, whole?.seconds], ['over', 21]);
    // Where it was over before they came, a second remains to be told so.
    assert.equal(pageDone(CALM, steady, inHand(document, { at: MONDAY + 200_000 }))?.seconds, 1);
  });
});

describe('the next step of a member', () => {
  const document = questionnaire([section('a', [ask('one', 1, { seconds: 60 })])]);
  const letters: LetterSent[] = [
    { kind: 'invitation', at: MONDAY + 9 * HOUR },
    { kind: 'reminder', at: MONDAY + 3 * DAY + 9 * HOUR },
  ];
  const [first = 0, second = 0] = occasionsOf(willing, 1, letters, null);
  const soFar = (more: Partial<MemberSoFar>): MemberSoFar => ({
    member: memberOf(willing, 1),
    letters,
    sitting: null,
    isSettled: false,
    spentUntil: 0,
    ...more,
  });
  const sitting = (cameAt: number, kept: Partial<TurnedCase> = {}) => ({
    ...inHand(document, { kept: { startedAt: first, ...kept } }),
    cameAt,
  });

  it('is to begin, after what was tried before, and never once the field is closed', () => {
    assert.deepEqual(nextStep(willing, soFar({})), { do: 'begin', at: first });
    assert.deepEqual(nextStep(willing, soFar({ spentUntil: first })), { do: 'begin', at: second });
    assert.equal(nextStep(willing, soFar({ spentUntil: second })), null);
    assert.equal(nextStep(willing, soFar({ isSettled: true })), null);
    assert.equal(nextStep(willing, soFar({ letters: [] })), null);
    assert.equal(nextStep({ ...willing, days: 1 }, soFar({ spentUntil: first })), null);
  });

  it('is to send the page in hand; who has left it comes back with the next letter, unless they refuse', () => {
    const turn = nextStep(willing, soFar({ sitting: sitting(first), spentUntil: first }));
    assert.ok(turn?.do === 'turn');
    assert.equal(turn.at, Math.round(first + turn.done.seconds * 1000));
    const leaving = { ...willing, behaviour: { ...behaviour, breakOff: 100 } };
    const [, later = 0] = occasionsOf(leaving, 1, letters, first);
    const away = Array.from({ length: 40 }, (_, n) => ({ ...leaving, seed: n + 1 })).flatMap((settings) => {
      const [came = 0] = occasionsOf(settings, 1, letters, null);
      const step = nextStep(
        settings,
        soFar({ sitting: sitting(came, { startedAt: came }), spentUntil: came }),
      );
      return step?.do === 'return' ? [[step.at, occasionsOf(settings, 1, letters, came)[1]]] : [];
    });
    assert.ok(away.length > 5 && later > first);
    for (const [at, expected] of away) assert.equal(at, expected);
    // What was refused at the page's own moment is not tried there again.
    const refused = nextStep(willing, soFar({ sitting: sitting(first), spentUntil: first + 1 }));
    assert.deepEqual(refused, { do: 'return', at: second });
    const member = { ...memberOf(willing, 1), refuses: true };
    assert.equal(nextStep(willing, soFar({ member, sitting: sitting(first), spentUntil: first + 1 })), null);
    const closed = { at: first, by: 'ending' as const };
    assert.equal(nextStep(willing, soFar({ sitting: sitting(first, { closed }) })), null);
  });

  it('hangs on the seed alone', () => {
    assert.equal(chanceOf(1, 2, 'x'), chanceOf(1, 2, 'x'));
    assert.notEqual(chanceOf(1, 2, 'x'), chanceOf(1, 3, 'x'));
    assert.notEqual(chanceOf(1, 2, 'x'), chanceOf(2, 2, 'x'));
  });
});
