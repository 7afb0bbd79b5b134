/** Turns one by one: what is taken, what is refused and why, and which quotas are looked at. */
import assert from 'node:assert/strict';
import { randomUUID } from 'node:crypto';
import { describe, it } from 'node:test';
import * as v from 'valibot';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import type { Answers } from '../document/types';
import type { Plan } from '../routing/plan';
import { rowOfCase } from './case-data';
import { caseBegun, pagesOfCase } from './kept-case';
import { turnedCase, turnTaken, TurnSchema, withoutPlaces, type Turn, type TurnMeans } from './turn';

const plan = planFor(
  questionnaire([
    section('a', [
      ask('drives', 2, { required: true }),
      ask('far', 2, { askIf: 'drives = 1', comment: 'Why?' }),
    ]),
    section('b', [ask('make', 2, { askIf: 'drives = 1', required: true }), ask('bus', 2)], { timeLimit: 60 }),
    section('c', [ask('last', 2)]),
  ]),
);

/** A respondent's turns, one after the other, at seconds that are told. */
function begin(of: Plan = plan, means: Partial<TurnMeans> = {}) {
  const begun = { key: '00000000-0000-4000-8000-000000000000', id: '1', seed: 3, given: {} };
  let kept = turnedCase(caseBegun(of, begun, 0));
  return {
    kept: () => kept,
    /** Why it was refused; or the first item of the page that comes, or the ending. */
    turn(answers: Answers, go: Turn['go'] = 'next', second = 1): string {
      const page = pagesOfCase(of, kept)[kept.at]?.key ?? '';
      const taken = turnTaken(
        of,
        kept,
        { turn: kept.turns + 1, key: randomUUID(), page, answers, go },
        { now: second * 1000, isFull: () => false, mayGoBack: true, endsAt: null, ...means },
      );
      if (!taken.ok) return `${taken.why}: ${taken.message}`;
      kept = taken.kept;
      return pagesOfCase(of, kept)[kept.at]?.steps[0]?.key ?? 'ending';
    },
  };
}

describe('a turn', () => {
  it('keeps whoever has not answered what must be, on the page and in its words', () => {
    const one = begin();
    assert.match(one.turn({}), /^unfinished: Please answer this question/);
    assert.equal(one.turn({ drives: 1, far: 2, far_comment: 'Hills' }), 'make');
    assert.match(one.turn({ bus: 1 }), /^unfinished/);
    assert.deepEqual(one.kept().answers, { drives: 1, far: 2, far_comment: 'Hills' });
  });

  it('drops what a change of mind has put off the route, on the page and on others', () => {
    const one = begin();
    one.turn({ drives: 1, far: 2 });
    one.turn({ make: 1, bus: 1 });
    assert.equal(one.turn({}, 'back'), 'make');
    assert.equal(one.turn({}, 'back'), 'drives');
    assert.match(one.turn({ drives: 2, far: 1 }), /^not-asked: Nothing on this page asks for “far”/);
    assert.equal(one.turn({ drives: 2 }), 'bus');
    assert.deepEqual(one.kept().answers, { drives: 2, bus: 1 });
    assert.deepEqual(one.kept().dropped, [
      { key: 'far', value: 2 },
      { key: 'make', value: 1 },
    ]);
    assert.deepEqual(one.kept().changed, [{ key: 'drives', from: 1 }]);
  });

  it('leaves a section at the end of its time, as its own clock has it, and not before', () => {
    const one = begin();
    one.turn({ drives: 1 }, 'next', 10);
    assert.match(one.turn({}, 'time-out', 60), /^no-limit/);
    assert.equal(one.turn({}, 'time-out', 70), 'last');
    assert.match(one.turn({}, 'time-out', 700), /^no-limit/);
    one.turn({ last: 1 }, 'next', 701);
    const wanted = { drives: 1, far: -3, far_comment: '', make: -3, bus: -3, last: 1, ending: 'done' };
    assert.deepEqual(rowOfCase(plan, one.kept()), wanted);
  });

  it('goes back only where that is allowed, and never before the first page', () => {
    assert.match(begin().turn({}, 'back'), /^not-allowed: There is no way back/);
    const one = begin(plan, { mayGoBack: false });
    one.turn({ drives: 2 });
    assert.match(one.turn({}, 'back'), /^not-allowed: There is no way back/);
  });

  it('is of the page in hand and the next in number, or nothing is taken of it', () => {
    const one = begin();
    one.turn({ drives: 2 });
    const before = one.kept();
    const means = { now: 5000, isFull: () => false, mayGoBack: true, endsAt: null };
    const page = pagesOfCase(plan, before)[before.at]?.key ?? '';
    const key = randomUUID();
    const taken = (turn: number, of: string, own: string = key) => {
      const sent = { turn, key: own, page: of, answers: { bus: 1 }, go: 'next' as const };
      const result = turnTaken(plan, before, sent, means);
      return result.ok ? result.again : result.why;
    };
    assert.deepEqual(
      [taken(2, page), taken(3, page), taken(2, '0/0/0'), taken(1, page, before.lastTurn ?? '')],
      [false, 'elsewhere', 'elsewhere', true],
    );
    // One of the same number, from another tab.
    assert.deepEqual([taken(1, page), taken(1, '0/0/0')], ['elsewhere', 'elsewhere']);
  });

  it('is read only where it is one', () => {
    const turn = { turn: 1, key: randomUUID(), page: '0/0/0', answers: { drives: 1 }, go: 'next' };
    assert.ok(v.is(TurnSchema, turn));
    for (const wrong of [
      { turn: 0 },
      { turn: 1.5 },
      { go: 'end' },
      { answers: { drives: {} } },
      { answers: Object.fromEntries(Array.from({ length: 2001 }, (_, n) => [`a${n}`, 1])) },
      { page: 'x'.repeat(101) },
      { more: 1 },
    ])
      assert.ok(!v.is(TurnSchema, { ...turn, ...wrong }), JSON.stringify(wrong).slice(0, 60));
  });
});

describe('quotas on the way', () => {
  const quota = (id: string, condition: string, at: string) => ({
    ...{ id, label: id, if: condition, target: 1, at },
    to: { ending: 'full' },
  });
  const limited = planFor(
    questionnaire([section('a', [ask('sex', 2), ask('age', 2)]), section('b', [ask('last', 2)])], {
      quotas: [
        quota('men', 'sex = 1', 'sex'),
        quota('all', 'sex > 0', 'sex'),
        quota('young', 'age = 1', 'age'),
      ],
      endings: [
        { id: 'done', kind: 'complete', messages: [] },
        { id: 'full', kind: 'quota_full', messages: [] },
      ],
    }),
  );
  const looking = (...full: readonly string[]) => {
    const looked: string[] = [];
    const one = begin(limited, {
      isFull: (id) => {
        looked.push(id);
        return full.includes(id);
      },
    });
    return { ...one, looked };
  };

  it('are looked at once each, those that the respondent comes to', () => {
    const one = looking();
    assert.equal(one.turn({ sex: 1, age: 2 }), 'last');
    assert.deepEqual(one.looked, ['men', 'all']);
    one.turn({}, 'back');
    one.turn({ age: 1 });
    assert.deepEqual(one.looked, ['men', 'all', 'young']);
    assert.deepEqual(one.kept().held, ['men', 'all', 'young']);
  });

  it('turn away at the first that is full, and none behind it is looked at', () => {
    const one = looking('men');
    assert.equal(one.turn({ sex: 1, age: 1 }), 'ending');
    assert.deepEqual(one.looked, ['men']);
    assert.deepEqual([one.kept().full, one.kept().held], [['men'], []]);
  });

  it('give a place back to be asked for anew where an answer is changed away and back', () => {
    const one = looking();
    one.turn({ sex: 1, age: 2 });
    one.turn({}, 'back');
    one.turn({ sex: 2 });
    assert.deepEqual(one.kept().held, ['all']);
    one.turn({}, 'back');
    one.turn({ sex: 1 });
    assert.deepEqual(one.looked, ['men', 'all', 'men']);
  });

  it('that went to others are full to whoever was away, who goes on from there', () => {
    const one = looking();
    one.turn({ sex: 1, age: 2 });
    const kept = one.kept();
    assert.equal(withoutPlaces(limited, kept, [], 9000), kept);
    const without = withoutPlaces(limited, kept, ['men'], 9000);
    assert.deepEqual([without.held, without.full], [['all'], ['men']]);
    // They were turned away at the first page, and stood on the second.
    assert.deepEqual(without.closed, { at: 9000, by: 'ending' });
    assert.equal(withoutPlaces(limited, without, ['all'], 9001), without);
  });
});
