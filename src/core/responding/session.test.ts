/** A walk in the preview, page by page: what keeps somebody there, and what a change of mind takes off the route. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, say, section } from '../../../tests/support/questionnaire';
import type { Plan } from '../routing/plan';
import { followed, NO_SESSION, sessionAfter, sessionOf, type Session, type WalkInputs } from './session';

const must = { required: true };
const option = (code: number, rest: object = {}) => ({ code, label: `Answer ${code}`, ...rest });
const soft = [{ if: 'cars > 5', kind: 'soft' as const, message: 'So many?' }];
const hard = [{ if: 'cars > 9', kind: 'hard' as const, message: 'Too many.' }];
const plan = planFor(
  questionnaire(
    [
      section('a', [
        say('hello'),
        ask('drives', 2, must),
        ask(
          'cars',
          { type: 'number', min: 0, max: 99 },
          { ...must, askIf: 'drives = 1', checks: [...soft, ...hard] },
        ),
        ask(
          'make',
          { type: 'multiple', options: [option(1), option(2, { specify: true })] },
          { askIf: 'cars > 0', comment: 'What else?' },
        ),
        ask('last'),
      ]),
    ],
    { settings: { pages: 'item' } },
  ),
);

/** A session as a component would hold it; read anew after every act. */
function begin(of: Plan = plan, inputs: WalkInputs = { seed: 1 }) {
  let state = sessionAfter(NO_SESSION, { do: 'start', answers: {}, inputs, at: 0 });
  const now = (): Session =>
    sessionOf(of, state, followed(of, state), (action) => (state = sessionAfter(state, action)));
  return {
    now,
    shown: () =>
      now()
        .page?.steps.map(({ key }) => key)
        .join(' ') ?? 'ending',
    /** Answers and goes on, one page after another. */
    through(answers: Readonly<Record<string, number | readonly number[] | string>>) {
      for (const [key, value] of Object.entries(answers)) {
        now().answer(key, value as number);
        now().next();
      }
    },
  };
}

describe('a walk in the preview', () => {
  it('goes on where what is required is answered, and says what is missing only once one tried', () => {
    const walk = begin();
    walk.now().next();
    assert.equal(walk.shown(), 'drives');
    assert.deepEqual(walk.now().faults, []);
    walk.now().next();
    assert.equal(walk.shown(), 'drives');
    assert.deepEqual([walk.now().faults.length, walk.now().tries], [1, 1]);
    walk.through({ drives: 2 });
    assert.equal(walk.shown(), 'last');
    assert.deepEqual(walk.now().faults, []);
    walk.now().next();
    assert.equal(walk.shown(), 'ending');
    walk.now().back();
    assert.equal(walk.shown(), 'last');
  });

  it('asks once about a soft check, again where another holds, and never lets a hard one by', () => {
    const walk = begin();
    walk.now().next();
    walk.through({ drives: 1, cars: 7 });
    assert.equal(walk.shown(), 'cars');
    assert.deepEqual(
      walk.now().faults.map(({ fault }) => fault.kind),
      ['soft'],
    );
    walk.now().next();
    assert.equal(walk.shown(), 'make');
    walk.now().back();
    walk.now().answer('cars', 12);
    for (let times = 0; times < 2; times += 1) walk.now().next();
    assert.equal(walk.shown(), 'cars');
    // Of this one it has asked already.
    walk.now().answer('cars', 8);
    walk.now().next();
    assert.equal(walk.shown(), 'make');
  });

  it('drops what a change of mind has put off the route, with its texts, once one goes on', () => {
    const walk = begin();
    walk.now().next();
    walk.through({ drives: 1, cars: 2, make: [1, 2] });
    walk.now().answer('make_2_text', 'Steam');
    walk.now().answer('make_comment', 'Old');
    assert.equal(walk.shown(), 'last');
    walk.now().goTo(1, 'drives');
    assert.deepEqual([walk.shown(), walk.now().aim], ['drives', { key: 'drives' }]);
    walk.now().answer('drives', 2);
    assert.deepEqual(walk.now().offRoute, ['cars', 'make', 'make_2_text', 'make_comment']);
    // Until then nothing is lost: a slip of the finger is taken back by answering as before.
    walk.now().answer('drives', 1);
    assert.deepEqual(walk.now().offRoute, []);
    walk.now().answer('drives', 2);
    walk.now().next();
    assert.deepEqual(walk.now().dropped, [
      { key: 'cars', value: 2 },
      { key: 'make', value: [1, 2] },
      { key: 'make_2_text', value: 'Steam' },
      { key: 'make_comment', value: 'Old' },
    ]);
    assert.deepEqual(walk.now().answers, { drives: 2 });
    // What was answered first stays known as what was changed, however often it changes again.
    assert.deepEqual(walk.now().changed, [{ key: 'drives', from: 1 }]);
  });

  it('calls an answer changed only where it was given on an earlier visit of its page', () => {
    const walk = begin();
    walk.now().next();
    walk.now().answer('drives', 1);
    walk.now().answer('drives', 2);
    assert.deepEqual(walk.now().changed, []);
    walk.now().next();
    walk.now().back();
    walk.now().answer('drives', 1);
    assert.deepEqual(walk.now().changed, [{ key: 'drives', from: 2 }]);
  });

  it('goes to its end, or to the first page that keeps one', () => {
    const walk = begin();
    walk.now().toEnd();
    assert.equal(walk.shown(), 'drives');
    walk.now().answer('drives', 2);
    walk.now().toEnd();
    assert.equal(walk.shown(), 'ending');
    const { reached, pages } = walk.now();
    assert.equal(reached, pages.length);
  });

  it('begins at an item with all before it answered, and its answers count as filled in', () => {
    const walk = begin();
    walk.now().start({ drives: 1, cars: 3, make: [1] }, { seed: 2 }, 'make');
    assert.equal(walk.shown(), 'make');
    assert.equal(walk.now().walks, 2);
    walk.now().answer('make', [2]);
    assert.deepEqual(walk.now().changed, [{ key: 'make', from: [1] }]);
    walk.now().start({ drives: 2 }, { seed: 2 }, 'cars');
    assert.equal(walk.shown(), 'hello');
  });

  it('begins anew with other values known beforehand, and stands still while one is wanted', () => {
    const given = [
      { name: 'arm', label: 'Arm', answer: { type: 'single' as const, options: [option(1), option(2)] } },
    ];
    const drawn = planFor(
      questionnaire([section('a', [ask('x', 2, { askIf: 'arm = 2' }), ask('y')])], { given }),
    );
    const walk = begin(drawn, { seed: 1, given: { arm: 7 } });
    assert.equal(walk.now().walk, null);
    assert.match(walk.now().problem ?? '', /arm/);
    assert.deepEqual([walk.now().pages, walk.now().page, walk.now().offRoute], [[], null, []]);
    walk.now().setInputs({ seed: 1, given: { arm: 1 } });
    assert.equal(walk.now().problem, null);
    assert.deepEqual(
      walk.now().walk?.steps.map(({ key }) => key),
      ['y'],
    );
    assert.equal(walk.now().at, 0);
  });

  it('leaves a section at its end when its time has run out, whatever is not answered', () => {
    const timed = planFor(
      questionnaire(
        [
          section('a', [ask('one', 2, must), ask('two', 2, must)], { timeLimit: 30 }),
          section('b', [ask('three')]),
        ],
        { settings: { pages: 'item' } },
      ),
    );
    const walk = begin(timed);
    walk.now().timeOut();
    assert.equal(walk.shown(), 'three');
    assert.deepEqual(walk.now().inputs.timedOut, ['one']);
    assert.equal(walk.now().reached, 1);
  });
});
