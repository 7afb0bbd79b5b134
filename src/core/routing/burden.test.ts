/** Seconds of items, against sums done by hand. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, say, section } from '../../../tests/support/questionnaire';
import type { Answer } from '../document/types';
import { hasOwnPace, USUAL_PACE } from './pace';
import { secondsAlong, secondsByName, secondsOf } from './burden';

const words = (count: number) => Array.from({ length: count }, () => 'word').join(' ');
const near = (found: number, expected: number) =>
  assert.ok(Math.abs(found - expected) < 1e-6, `${found}, expected ${expected}`);

describe('the time an item takes', () => {
  it('is reading what is shown, and answering', () => {
    // 238 words are a minute.
    near(secondsOf(say('intro', { text: words(238) }), USUAL_PACE), 60);
    const options = (count: number) =>
      Array.from({ length: count }, (_, n) => ({ code: n + 1, label: 'two words' }));
    const shown = (count: number, act: number) => (count * 60) / 238 + act;
    const cases: [Answer, number][] = [
      [{ type: 'single', options: options(3) }, shown(6, 2)],
      // Of two options, each picked one time in two and at least one: four picks in three sets.
      [{ type: 'multiple', options: options(2) }, shown(4, (1.5 * 4) / 3)],
      [{ type: 'scale', min: 1, max: 5, lowLabel: 'not at all' }, shown(3, 3)],
      [{ type: 'number', min: 0, max: 9 }, 5],
      [{ type: 'text', lines: 'many' }, 25],
      [{ type: 'rank', options: options(3), top: 2 }, shown(6, 6)],
      [{ type: 'grid', rows: [{ name: 'r', label: 'row' }], options: options(2) }, shown(5, 3)],
    ];
    for (const [answer, seconds] of cases)
      near(secondsOf(ask('q', answer, { text: '' }), USUAL_PACE), seconds);
    near(secondsOf(ask('q', 2, { seconds: 7 }), USUAL_PACE), 7);
  });

  it('is a study’s own where it has one in anything, whatever it is known from', () => {
    const own = (pace?: object) =>
      hasOwnPace(questionnaire([], pace === undefined ? {} : { settings: { pace } }));
    assert.deepEqual(
      [own(), own({}), own({ source: 'timed' }), own({ scale: 7 }), own({ words: 119, source: 'timed' })],
      [false, false, false, true, true],
    );
  });

  it('is by the study’s own pace, where it has one, and as usual in the rest', () => {
    const plan = planFor(
      questionnaire(
        [section('a', [ask('q', { type: 'scale', min: 1, max: 5 }, { text: words(119) }), ask('r')])],
        {
          settings: { pace: { words: 119, scale: 7, source: 'timed' } },
        },
      ),
    );
    const usual = planFor(questionnaire([section('a', [ask('r', 2, { text: '' })])]));
    near(secondsByName(plan)('q'), 67);
    near(secondsByName(usual)('r'), 2 + (60 * 4) / 238);
  });

  it('adds up along a route, each pass anew', () => {
    const plan = planFor(
      questionnaire([
        section('a', [ask('n', { type: 'number', min: 0, max: 2 }, { seconds: 3 })]),
        section('b', [ask('x', 2, { seconds: 10 })], { repeat: { times: 'n', max: 2 } }),
      ]),
    );
    near(secondsAlong(secondsByName(plan), ['n', 'x#1', 'x#2']), 23);
  });
});
