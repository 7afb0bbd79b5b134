import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { Answers, Questionnaire } from '../document/types';
import { caseBegun } from '../responding/kept-case';
import { turnedCase, type TurnedCase } from '../responding/turn';
import { ask, planFor, questionnaire, say, section } from '../../../tests/support/questionnaire';
import { daysBetween, daysIn } from './days';
import { figuresOf, type Monitored } from './figures';
import { isFastBy, paceOf, quartilesOf } from './pace';
import { hasLeft, pickedBy, type Picked } from './picked';
import { freeAt, quotaPace } from './quota-pace';
import { eligibleShare, ratesOf } from './rates';
import { summaryOf, type ResponseSummary } from './summary';

const DAY = 86_400_000;
const HOUR = 3_600_000;
const NOON = Date.UTC(2026, 10, 29, 12);

const STUDY: Questionnaire = questionnaire(
  [
    section('screen', [ask('owner', 2, { skips: [{ if: 'owner = 2', to: { ending: 'out' } }] })], {
      kind: 'screening',
    }),
    section('views', [
      say('intro'),
      ask('levels', {
        type: 'grid',
        rows: ['a', 'b', 'c'].map((name) => ({ name, label: name })),
        options: [1, 2, 3].map((code) => ({ code, label: `${code}` })),
      }),
      ask('rooms', {
        type: 'number',
        min: 1,
        max: 9,
        specials: [{ code: -7, label: 'Not sure', missing: 'dont_know' }],
      }),
    ]),
    section('more', [ask('why', { type: 'text' }), ask('pump', 2, { askIf: 'rooms > 5' })]),
  ],
  {
    endings: [
      { id: 'done', kind: 'complete', messages: [{ text: 'Thank you.' }] },
      { id: 'out', kind: 'screened_out', messages: [{ text: 'Goodbye.' }] },
      { id: 'no', kind: 'declined', messages: [{ text: 'Thank you.' }] },
    ],
    quotas: [
      { id: 'large', label: 'Large homes', if: 'rooms > 3', target: 2, at: 'rooms', to: { ending: 'out' } },
    ],
  },
);
const plan = planFor(STUDY);

interface Of {
  readonly answers?: Answers;
  /** The page in hand. */
  readonly at?: number;
  readonly closed?: TurnedCase['closed'];
  readonly seconds?: number;
  readonly startedAt?: number;
  readonly changedAt?: number;
  readonly held?: string[];
  readonly person?: string;
}

let last = 0;
function response(of: Of): ResponseSummary {
  const { answers = {}, at = 9, closed = null, seconds = 60, startedAt = NOON - DAY } = of;
  last += 1;
  const key = crypto.randomUUID();
  const begun = turnedCase(caseBegun(plan, { key, id: `${last}`, seed: 1, given: {} }, startedAt));
  const pages = ['0/0/0', '1/0/0', '2/0/0'].slice(0, Math.min(at, 3));
  const visits = pages.map((page) => ({ page, first: '', seconds: seconds / pages.length }));
  const kept = { ...begun, answers: { ...answers }, at, visits, closed, held: of.held ?? [] } as TurnedCase;
  return summaryOf(plan, {
    ...{ id: key, number: last, person: of.person ?? null, device: 'wide', kept },
    changedAt: of.changedAt ?? closed?.at ?? startedAt,
  });
}

const FULL: Answers = { owner: 1, a: 1, b: 2, c: 3, rooms: 4, why: 'so' };
const done = (of: Of = {}) => response({ answers: FULL, closed: { at: NOON, by: 'ending' }, ...of });

function monitored(responses: readonly ResponseSummary[], more: Partial<Monitored> = {}): Monitored {
  return {
    ...{ plan, responses, now: NOON, partialFrom: null, counted: [], invitedAt: null, declinedPeople: 0 },
    ...{ since: NOON - 3 * DAY, closesAt: null, dayOf: daysIn('UTC') },
    ...more,
  };
}

describe('what became of those who began', () => {
  it('is told of each once: by their ending, as left after half an hour, or as under way', () => {
    const left = response({ answers: { owner: 1 }, at: 1, changedAt: NOON - 31 * 60_000 });
    const responses = [
      done(),
      response({ answers: { owner: 2 }, at: 1, closed: { at: NOON, by: 'ending' } }),
      left,
      response({ answers: { owner: 1 }, at: 1, changedAt: NOON - 29 * 60_000 }),
      response({ answers: { owner: 1, rooms: 4 }, at: 2, closed: { at: NOON, by: 'time' } }),
    ];
    const counted = [
      { what: 'declined' as const, at: NOON - DAY, count: 2 },
      { what: 'removed' as const, at: null, count: 1 },
    ];
    const figures = figuresOf(monitored(responses, { counted, partialFrom: 2 }));
    const { complete, screened_out, declined, partial, broken_off, under_way } = figures.outcomes;
    assert.deepEqual(
      { complete, screened_out, declined, partial, broken_off, under_way },
      { complete: 1, screened_out: 1, declined: 2, partial: 1, broken_off: 2, under_way: 1 },
    );
    assert.equal(figures.begun, 8);
    assert.deepEqual(
      figures.endings.map(({ id, count }) => [id, count]),
      [
        ['done', 1],
        ['out', 1],
        ['no', 2],
      ],
    );
    assert.equal(hasLeft(left, { now: NOON, partialFrom: null }, '1/0'), true);
  });

  it('stands on the day it came about, in the zone of those who look, with days between that had nothing', () => {
    const late = Date.UTC(2026, 10, 27, 23, 30);
    const responses = [
      done({ startedAt: late }),
      done({ startedAt: NOON, closed: { at: NOON + HOUR, by: 'ending' } }),
    ];
    const days = (zone: string) =>
      figuresOf(monitored(responses, { dayOf: daysIn(zone) })).days.map(({ day, begun, outcomes }) => [
        day.slice(-2),
        begun,
        outcomes.complete ?? 0,
      ]);
    assert.deepEqual(days('UTC'), [
      ['27', 1, 0],
      ['28', 0, 0],
      ['29', 1, 2],
    ]);
    assert.deepEqual(days('Europe/Zurich'), [
      ['28', 1, 0],
      ['29', 1, 2],
    ]);
    assert.deepEqual(daysBetween('2026-12-30', '2027-01-02').length, 4);
    const ahead = (closesAt: number | null) =>
      figuresOf(monitored([done({ startedAt: NOON })], { closesAt })).days.map(
        ({ day, isAhead }) => `${day.slice(-2)}${isAhead ? ' ahead' : ''}`,
      );
    assert.deepEqual(ahead(Date.UTC(2026, 11, 2)), ['29', '30 ahead', '01 ahead']);
    assert.deepEqual(ahead(NOON + 40 * DAY), ['29']);
    assert.deepEqual(ahead(0), ['29']);
  });

  it('adds up, whoever answered what', () => {
    const some = fc.record({
      answers: fc.record(
        { owner: fc.constantFrom(1, 2), rooms: fc.constantFrom(2, 8, -7) },
        { requiredKeys: ['owner'] },
      ),
      at: fc.integer({ min: 0, max: 2 }),
      ago: fc.integer({ min: 0, max: 100 }),
      isDone: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(some, { maxLength: 12 }), (all) => {
        const responses = all.map(({ answers, at, ago, isDone }) => {
          const moment = NOON - ago * 60_000;
          return isDone
            ? response({ answers, closed: { at: moment, by: 'ending' } })
            : response({ answers, at: Math.min(at, answers.owner === 2 ? 0 : 2), changedAt: moment });
        });
        const of = monitored(responses);
        const figures = figuresOf(of);
        const within = { ...of, isFast: isFastBy(paceOf(responses)) };
        const behind = (picked: Picked) => responses.filter(pickedBy(picked, within) ?? (() => false)).length;
        const sum = (numbers: readonly number[]) => numbers.reduce((a, b) => a + b, 0);
        assert.equal(sum(Object.values(figures.outcomes)), responses.length);
        assert.equal(sum(figures.days.map(({ begun }) => begun)), responses.length);
        assert.equal(sum(figures.days.flatMap(({ outcomes }) => Object.values(outcomes))), responses.length);
        assert.equal(sum(figures.pages.map(({ left }) => left)), figures.outcomes.broken_off);
        for (const { place, shown, left } of figures.pages) {
          assert.equal(behind({ of: 'page', place, is: 'shown' }), shown);
          assert.equal(behind({ of: 'page', place, is: 'left' }), left);
        }
        for (const { name, ...counts } of figures.items)
          for (const is of ['asked', 'blank', 'dont_know', 'refused', 'left'] as const)
            assert.equal(behind({ of: 'item', name, is }), counts[is], `${name} ${is}`);
        for (const { at, came } of figures.forks) assert.equal(behind({ of: 'fork', at }), came);
      }),
      { numRuns: 60 },
    );
  });
});

describe('what items met with', () => {
  it('tells blanks from don’t knows, and both from the page that somebody left', () => {
    const { items, unreached } = figuresOf(
      monitored([
        done(),
        done({ answers: { owner: 1, a: 1, rooms: -7 } }),
        response({ answers: { owner: 1 }, at: 1, changedAt: 0 }),
      ]),
    );
    assert.deepEqual(
      items.map(({ name, asked, blank, dont_know, left }) => [name, asked, blank, dont_know, left]),
      [
        ['owner', 3, 0, 0, 0],
        ['intro', 3, 0, 0, 0],
        ['levels', 3, 1, 0, 1],
        ['rooms', 3, 0, 1, 1],
        ['why', 2, 1, 0, 0],
      ],
    );
    assert.deepEqual(unreached, ['pump']);
  });

  it('names outcomes of forks that nobody met, those that most came to first; a page not sent decides nothing', () => {
    const words = (responses: ResponseSummary[]) =>
      figuresOf(monitored(responses)).forks.map((fork) => `${fork.words} ${fork.came}`);
    const left = response({ answers: { owner: 2 }, at: 0, changedAt: 0 });
    assert.ok(words([left]).includes('owner: the skip to Screened out 0'));
    const after = words([done(), done()]);
    assert.ok(after.includes('owner: the skip to Screened out 2'));
    assert.ok(after.includes('pump: the ask-if holds 2'));
    // Of those who declined nothing is kept, least of all their way there.
    const counted = [{ what: 'declined' as const, at: NOON, count: 3 }];
    const declined = figuresOf(monitored([done()], { counted })).forks.map((fork) => fork.words);
    assert.ok(after.includes('ends at Declined 2') && !declined.includes('ends at Declined'));
    assert.ok(!after.some((each) => each.startsWith('pump: the ask-if does not')));
    assert.ok(
      !words([done({ answers: { ...FULL, rooms: 8 } }), done()]).some((each) => each.startsWith('pump:')),
    );
  });
});

describe('how long it took', () => {
  it('has quartiles between values, and names who took less than half of the usual time for what they were asked', () => {
    assert.deepEqual(quartilesOf([4, 1, 3, 2]), { lower: 1.75, median: 2.5, upper: 3.25 });
    assert.deepEqual(quartilesOf([5]), { lower: 5, median: 5, upper: 5 });
    const usual = Array.from({ length: 10 }, () => done({ seconds: 100 }));
    const [slow, fast] = [done({ seconds: 51 }), done({ seconds: 49 })];
    const all = [...usual, slow, fast];
    const { fast: told, minutes } = figuresOf(monitored(all));
    assert.equal(told?.count, 1);
    assert.equal(minutes.took?.median, 100);
    assert.equal(minutes.expected?.median, done().expected);
    const isFast = isFastBy(paceOf(all));
    assert.deepEqual([isFast(slow), isFast(fast)], [false, true]);
    assert.equal(figuresOf(monitored(all.slice(-3))).fast, null);
  });

  it('marks a grid with one answer in all rows, none that is not answered whole', () => {
    const { grids } = figuresOf(
      monitored([
        done(),
        done({ answers: { ...FULL, a: 2, b: 2, c: 2 } }),
        done({ answers: { owner: 1, a: 2, b: 2, rooms: 4 } }),
      ]),
    );
    assert.deepEqual(grids, [{ name: 'levels', whole: 2, straight: 1 }]);
  });

  it('says when a quota will be full at the pace of the last week, or was', () => {
    const now = 20 * DAY;
    const taken = [1, 15, 16, 17, 18].map((day) => day * DAY);
    const pace = quotaPace(9, taken, { since: 0, now });
    assert.deepEqual([pace.count, pace.perDay], [5, 4 / 7]);
    assert.equal(pace.fullAt, now + 7 * DAY);
    assert.equal(quotaPace(2, taken, { since: 0, now }).fullAt, 15 * DAY);
    assert.equal(quotaPace(9, [DAY], { since: 0, now }).fullAt, null);
    assert.equal(freeAt(9, pace, now, now + 3.5 * DAY), 2);
    assert.equal(freeAt(9, pace, now, now + 7 * DAY), 0);
    // Two in the first hour are no 48 a day.
    assert.equal(quotaPace(9, [now, now], { since: now - HOUR, now }).perDay, 2);
    const figures = figuresOf(monitored([done({ held: ['large'] }), response({ held: ['large'], at: 2 })]));
    assert.equal(figures.quotas[0]?.count, 1);
  });
});

describe('rates of those invited', () => {
  it('are those of the Standard Definitions', () => {
    const of = { complete: 60, partial: 10, refusal: 30, unknown: 100, ineligible: 25, eligibleRefusal: 5 };
    assert.equal(eligibleShare(of), 0.75);
    const rates = Object.fromEntries(
      ratesOf(of).map(({ name, numerator, denominator }) => [name, numerator / denominator]),
    );
    assert.deepEqual(rates, {
      ...{ RR1: 60 / 200, RR2: 70 / 200, RR3: 60 / 175, RR4: 70 / 175, RR5: 0.6, RR6: 0.7 },
      ...{ COOP1: 0.6, COOP2: 0.7, REF1: 30 / 200, REF2: 30 / 175, REF3: 0.3, CON1: 0.5, CON2: 100 / 175 },
    });
  });

  it('count people, each by the furthest they came; whoever declined or left is a refusal, nobody screened out is', () => {
    const person = (key: string, of: Of) => ({ ...of, person: `link ${key}` });
    const responses = [
      response(person('a', { answers: { owner: 1 }, at: 1, changedAt: 0 })),
      done(person('a', {})),
      response(person('b', { answers: { owner: 1 }, at: 1, changedAt: 0 })),
      response(person('c', { answers: {}, at: 0, changedAt: 0 })),
      response(person('d', { answers: { owner: 2 }, closed: { at: NOON, by: 'ending' } })),
      response(person('e', { answers: { owner: 1 }, at: 1, changedAt: NOON })),
    ];
    const { invited, unheard, rates } = figuresOf(
      monitored(responses, { invitedAt: Array.from({ length: 10 }, () => 0), declinedPeople: 1 }),
    );
    assert.deepEqual([invited, unheard], [10, 4]);
    // Of a complete one, one who left past the screening and one screened out, two are eligible.
    assert.equal(rates?.eligible, 2 / 3);
    const rate = (name: string) => {
      const found = rates?.list.find((each) => each.name === name);
      return [found?.numerator, found?.denominator];
    };
    assert.deepEqual(rate('RR1'), [1, 9]);
    assert.deepEqual(rate('COOP1'), [1, 4]);
    assert.deepEqual(rate('REF1'), [3, 9]);
    assert.equal(rate('RR2')[0], undefined);
    assert.equal(figuresOf(monitored(responses)).rates, null);
  });
});
