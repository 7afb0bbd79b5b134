/** Routes in words, and two of them beside each other. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { analyse } from '../analysis';
import type { Questionnaire } from '../document/types';
import { routeChanges, routeChangeWords } from '../routing/route-changes';
import { contentMarks, routeMarks } from '../routing/route-content';
import { compareRoutes } from './compare-routes';
import { routeSentence } from './route-sentence';

/** Rooms asked about in these passes, as the sentence of their route says it. */
function roomsOf(answers: Readonly<Record<string, number>>): string {
  const items = ['agree', 'built', 'rooms', ...Object.keys(answers).filter((key) => key.startsWith('cold'))];
  const said = routeSentence(plan, { items, answers: { agree: 1, built: 1990, rooms: 3, ...answers } });
  return said.map(({ text }) => text).join('');
}

it('passes that follow each other are told from the first to the last, where there are more than two', () => {
  assert.match(roomsOf({ 'cold#1': 2 }), /“Room is cold” \(pass 1\)/);
  assert.match(roomsOf({ 'cold#1': 2, 'cold#2': 2 }), /“Room is cold” \(passes 1, 2\)/);
  assert.match(roomsOf({ 'cold#1': 2, 'cold#2': 2, 'cold#3': 2 }), /“Room is cold” \(passes 1 to 3\)/);
  assert.match(roomsOf({ 'cold#1': 2, 'cold#2': 1, 'cold#3': 2 }), /“Room is cold” \(passes 1, 3\)/);
});

const yesNo = {
  type: 'single',
  options: [
    { code: 1, label: 'Yes, I agree' },
    { code: 2, label: 'No' },
  ],
} as const;
const plan = planFor(
  questionnaire([
    section('a', [
      ask('agree', yesNo, {
        label: 'Takes part',
        required: true,
        skips: [{ if: 'agree = 2', to: { ending: 'out' } }],
      }),
      ask('built', { type: 'number', min: 1700, max: 2026 }, { label: 'Year built', required: true }),
      ask('old', 2, { askIf: 'built < 1919' }),
      ask('middle', 2, { askIf: 'built >= 1919 and built < 1980' }),
      ask('rooms', { type: 'number', min: 0, max: 3 }, { label: 'Rooms', required: true }),
    ]),
    section(
      'b',
      [ask('cold', yesNo, { label: 'Room is cold', required: true }), ask('why', 2, { askIf: 'cold = 1' })],
      {
        repeat: { times: 'rooms', max: 3 },
      },
    ),
  ]),
);
const analysis = analyse(plan);
const routes = Array.from({ length: Number(analysis.routes) }, (_, n) => analysis.route(BigInt(n + 1)));
const routeWith = (...items: string[]) => {
  const found = routes.find((route) => route?.items.join() === items.join());
  assert.ok(found, `no route with ${items.join()}`);
  return found;
};
const say = (...items: string[]) =>
  routeSentence(plan, routeWith(...items))
    .map(({ text, answer }) => (answer ? `*${text}*` : text))
    .join('');

describe('a route as a sentence', () => {
  it('tells the answers that steer, of a number the span that steers alike', () => {
    assert.equal(say('agree'), 'A respondent who says *no* to “Takes part”');
    assert.equal(
      say('agree', 'built', 'middle', 'rooms'),
      'A respondent who says *yes* to “Takes part”, and answers *1919 to 1979* to “Year built” and *0* to “Rooms”',
    );
  });

  it('speaks of everybody where nothing steers', () => {
    const straight = planFor(questionnaire([section('a', [ask('one'), ask('two')])]));
    assert.deepEqual(routeSentence(straight, { items: ['one', 'two'], answers: {} }), [
      { text: 'Every respondent', answer: false },
    ]);
  });

  it('puts passes with the same answer together', () => {
    assert.equal(
      say('agree', 'built', 'old', 'rooms', 'cold#1', 'why#1', 'cold#2', 'why#2', 'cold#3'),
      'A respondent who says *yes* to “Takes part” and “Room is cold” (passes 1, 2), says *no* to “Room is cold” (pass 3), and answers *at most 1918* to “Year built” and *3* to “Rooms”',
    );
  });
});

describe('two routes compared', () => {
  it('tell what each has alone, the answer that parts them, and why', () => {
    const first = routeWith('agree', 'built', 'old', 'rooms');
    const second = routeWith('agree', 'built', 'rooms');
    const { onlyFirst, onlySecond, parting, fork } = compareRoutes(plan, first, second);
    assert.deepEqual([onlyFirst, onlySecond], [['old'], []]);
    assert.deepEqual(
      parting.map(({ key }) => key),
      ['built'],
    );
    assert.equal(fork?.item, 'old');
    assert.match(fork?.because ?? '', /built < 1919/);
    assert.notEqual(fork?.otherwise, '');
  });

  it('part at the very first item, and not at all where both are the same', () => {
    const arms = planFor(
      questionnaire(
        [section('a', [ask('one', 2, { askIf: 'arm = 1' }), ask('two', 2, { askIf: 'arm = 2' })])],
        {
          given: [{ name: 'arm', label: 'Arm', answer: ask('arm').answer }],
        },
      ),
    );
    const on = (item: string, arm: number) => ({
      items: [item],
      ending: 'done',
      answers: {},
      given: { arm },
    });
    const { fork, parting } = compareRoutes(arms, on('one', 1), on('two', 2));
    assert.deepEqual([fork?.item, fork?.on, parting.map(({ key }) => key)], ['one', 'first', ['given arm']]);
    const same = compareRoutes(arms, on('one', 1), on('one', 1));
    assert.deepEqual([same.fork, same.onlyFirst, same.onlySecond], [null, [], []]);
  });

  it('find the fork where the second goes on and the first ends', () => {
    const { fork, endings } = compareRoutes(plan, routeWith('agree'), routeWith('agree', 'built', 'rooms'));
    assert.deepEqual([fork?.item, fork?.on, endings], ['built', 'second', ['out', 'done']]);
  });
});

describe('what became of a route', () => {
  const shown = (document: Questionnaire, items: readonly string[], ending = 'done') => ({
    items,
    marks: routeMarks(contentMarks(planFor(document)), items, ending),
  });
  const items = [ask('one'), ask('two'), ask('three')] as const;
  const before = questionnaire([section('a', items)]);
  const told = (document: Questionnaire, now: readonly string[], ending?: string) =>
    routeChanges(shown(before, ['one', 'two', 'three']), shown(document, now, ending)).map(routeChangeWords);

  it('tells other words, items that came and went, another ending and another order', () => {
    const after = questionnaire([
      section('a', [ask('new'), items[0], { ...items[1], text: 'Two, really?' }, items[2]]),
    ]);
    assert.deepEqual(told(after, ['new', 'one', 'two'], 'out'), [
      'new is asked now',
      'two shows something else',
      'three is not asked any more',
      'it ends otherwise',
    ]);
    assert.deepEqual(told(before, ['two', 'one', 'three']), ['the same in another order']);
  });

  it('tells nothing of a rename', () => {
    const renamed = questionnaire([section('a', [{ ...items[0], name: 'first' }, items[1], items[2]])]);
    assert.deepEqual(told(renamed, ['first', 'two', 'three']), []);
  });
});
