/** Shuffled orders: every one possible, the same for a seed, and what has to come last is last. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section, walked } from '../../../tests/support/questionnaire';
import { pagesOf } from './pages';
import { shuffledIndices, shuffledOptions } from './shuffle';

describe('a shuffled order', () => {
  it('is the same for the same seed and place, and every order comes up about as often', () => {
    assert.deepEqual(shuffledIndices(9, 4, 'q'), shuffledIndices(9, 4, 'q'));
    const counts = new Map<string, number>();
    for (let seed = 1; seed <= 6000; seed += 1) {
      const order = shuffledIndices(3, seed, 'q').join('');
      counts.set(order, (counts.get(order) ?? 0) + 1);
    }
    assert.equal(counts.size, 6);
    // Of 6,000 draws about 1,000 each; beyond 5 standard deviations something is wrong.
    for (const [order, count] of counts) assert.ok(Math.abs(count - 1000) < 145, `${order}: ${count}`);
  });

  it('leaves what excludes the others, and missing answers, at the end', () => {
    const options = [
      { code: 1, label: 'One' },
      { code: 9, label: 'None of these', exclusive: true },
      { code: 2, label: 'Two' },
      { code: 98, label: 'Don’t know', missing: 'dont_know' as const },
      { code: 3, label: 'Three' },
    ];
    for (let seed = 1; seed < 50; seed += 1) {
      const order = shuffledOptions(options, seed, 'q');
      assert.deepEqual(order.slice(3), [1, 3]);
      assert.deepEqual([...order].sort(), [0, 1, 2, 3, 4]);
    }
  });

  it('of a section shows the same items on its pages, in another order', () => {
    const names = ['a', 'b', 'c', 'd', 'e'];
    const plan = planFor(
      questionnaire([
        section('first', [ask('x')]),
        section(
          'mixed',
          names.map((name) => ask(name)),
          { shuffle: true },
        ),
      ]),
    );
    const walk = walked(plan, { answers: {} });
    const shown = (seed: number) =>
      pagesOf(plan, walk, seed).map(({ steps }) => steps.map(({ key }) => key).join(''));
    const orders = new Set(Array.from({ length: 40 }, (_, n) => shown(n + 1)[1]));
    assert.ok(orders.size > 10);
    for (const order of orders) assert.equal([...(order ?? '')].sort().join(''), 'abcde');
    assert.equal(shown(3)[0], 'x');
  });
});

it('pages are cut at every break of a section, and a page of which nothing is asked is none', () => {
  const cut = { kind: 'page_break' } as const;
  const plan = planFor(
    questionnaire([
      section('a', [ask('one'), cut, ask('two', 2, { askIf: 'one = 1' }), cut, ask('three'), ask('four')]),
      section('b', [ask('five')]),
    ]),
  );
  const pages = (one: number) =>
    pagesOf(plan, walked(plan, { answers: { one } })).map(({ steps }) =>
      steps.map(({ key }) => key).join(' '),
    );
  assert.deepEqual(pages(1), ['one', 'two', 'three four', 'five']);
  assert.deepEqual(pages(2), ['one', 'three four', 'five']);
});
