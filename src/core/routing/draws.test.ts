/** Values that are drawn at the start, by their assumed shares. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import type { Answer, Given } from '../document/types';
import { drawGiven } from './draws';

const option = (code: number, rest: object = {}) => ({ code, label: `Answer ${code}`, ...rest });
const given = (answer: Answer, shares?: Record<string, number>): Given => ({
  name: 'arm',
  label: 'Arm',
  answer,
  random: true,
  ...(shares === undefined ? {} : { assume: { shares } }),
});

/** How often each value comes in 4,000 seeds. */
function drawn(of: Given): Map<string, number> {
  const counts = new Map<string, number>();
  for (let seed = 1; seed <= 4000; seed += 1) {
    const value = JSON.stringify(drawGiven(of, seed));
    counts.set(value, (counts.get(value) ?? 0) + 1);
  }
  return counts;
}

/** Five standard deviations of so many draws with that chance. */
const near = (count: number | undefined, share: number) =>
  Math.abs((count ?? 0) - 4000 * share) <= 5 * Math.sqrt(4000 * share * (1 - share));

it('options come by their shares, and what is not listed never where some are', () => {
  const options = [option(1), option(2), option(3), option(9, { missing: 'dont_know' })];
  const even = drawn(given({ type: 'single', options }));
  assert.deepEqual([...even.keys()].sort(), ['1', '2', '3']);
  for (const count of even.values()) assert.ok(near(count, 1 / 3));
  const uneven = drawn(given({ type: 'single', options }, { '1': 0.6, '3': 0.2 }));
  assert.deepEqual([...uneven.keys()].sort(), ['1', '3']);
  assert.ok(near(uneven.get('1'), 0.75));
  assert.deepEqual([...drawn(given({ type: 'multiple', options: options.slice(0, 1) })).keys()], ['[1]']);
  assert.equal(drawGiven(given({ type: 'single', options: options.slice(3) }), 1), null);
  assert.equal(
    drawGiven(given({ type: 'single', options }), 7),
    drawGiven(given({ type: 'single', options }), 7),
  );
});

it('numbers come evenly, both limits among them, on their steps', () => {
  const whole = drawn(given({ type: 'number', min: 2, max: 4 }));
  assert.deepEqual([...whole.keys()].sort(), ['2', '3', '4']);
  for (const count of whole.values()) assert.ok(near(count, 1 / 3));
  assert.deepEqual([...drawn(given({ type: 'scale', min: 0, max: 10, step: 5 })).keys()].sort(), [
    '0',
    '10',
    '5',
  ]);
});
