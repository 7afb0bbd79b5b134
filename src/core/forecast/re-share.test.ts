/** Shares changed by hand: whatever is typed, in whatever order, they add up, and a table that is copied comes out as it is. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { Answer, AssumedShares, MultipleAnswer } from '../document/types';
import { sharesOfPicks } from '../routing/pick-shares';
import { addsUp, asAssumed, cannotBePicked, withShare, withTick, type AnswerShare } from './re-share';

const even = (count: number): AnswerShare[] =>
  Array.from({ length: count }, (_, n) => ({ answer: { code: n + 1 }, share: 1 / count }));
/** As it is typed: to a hundredth of a per cent. */
const percent = fc.integer({ min: 0, max: 10_000 }).map((of) => of / 10_000);
const sumOf = (all: readonly AnswerShare[]) => all.reduce((sum, { share }) => sum + share, 0);
const near = (a: number, b: number) => Math.abs(a - b) < 1e-9;

describe('a share that is set', () => {
  it('leaves all adding up to 1, with those held as they were where there is room', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 6 }),
        fc.array(fc.tuple(fc.nat(5), percent), { maxLength: 8 }),
        fc.uniqueArray(fc.nat(5)),
        (count, steps, held) => {
          let all = even(count);
          for (const [place, share] of steps) {
            const at = place % count;
            const kept = new Set(held.filter((n) => n !== at && n < count));
            const next = withShare(all, at, share, true, kept);
            assert.ok(near(sumOf(next), 1) && next.every((each) => each.share >= 0));
            assert.equal(next[at]?.share, share);
            const ofHeld = [...kept].reduce((sum, n) => sum + (all[n]?.share ?? 0), 0);
            if (kept.size < count - 1 && share + ofHeld <= 1)
              for (const n of kept) assert.equal(next[n]?.share, all[n]?.share);
            all = next;
          }
        },
      ),
      // What is left for others is nothing, which is not quite 0 in the machine.
      {
        examples: [
          [
            3,
            [
              [1, 0.0011],
              [0, 0.9989],
            ],
            [1],
          ],
        ],
      },
    );
  });

  it('takes a table over that is typed from the first answer to the last, or in any order', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 20 }), { minLength: 2, maxLength: 6 }),
        fc.infiniteStream(fc.double({ min: 0, max: 1, noNaN: true })),
        (parts, order) => {
          const total = parts.reduce((sum, part) => sum + part, 0);
          const places = parts
            .map((_, n) => ({ n, by: order.next().value as number }))
            .toSorted((a, b) => a.by - b.by);
          let all = even(parts.length);
          const typed = new Set<number>();
          for (const { n } of places) {
            all = withShare(all, n, (parts[n] ?? 0) / total, true, typed);
            typed.add(n);
          }
          assert.ok(all.every(({ share }, n) => near(share, (parts[n] ?? 0) / total)));
        },
      ),
    );
  });

  it('of a pick is what comes of the chances that are written, those typed before staying as they are', () => {
    const answer: MultipleAnswer = {
      type: 'multiple',
      options: [1, 2, 3].map((code) => ({ code, label: `${code}` })),
    };
    const typing = (before: AssumedShares, at: number, share: number, held: readonly number[]) => {
      const now: AnswerShare[] = sharesOfPicks(answer, before).map((of, n) => ({
        answer: { code: n + 1 },
        share: of,
      }));
      return asAssumed(answer, before, withShare(now, at, share, false), new Set(held));
    };
    const first = typing({}, 0, 0.3, []);
    const second = typing(first, 1, 0.2, [0]);
    const words = (assume: AssumedShares) => sharesOfPicks(answer, assume).map((of) => of.toFixed(3));
    assert.equal(words(first)[0], '0.300');
    assert.deepEqual(words(second).slice(0, 2), ['0.300', '0.200']);
    // Whoever answers picks something: a third of 10% leaves no room for both, and what was typed last is right.
    assert.equal(words(typing(second, 2, 0.1, [0, 1]))[2], '0.100');
    const only = { shares: { 1: 0.4, 2: 0, 3: 0 } };
    const half: AnswerShare[] = [0.5, 0, 0].map((share, n) => ({ answer: { code: n + 1 }, share }));
    assert.match(cannotBePicked(answer, only, half) ?? '', /give another answer more first/);
    const [, ...others] = sharesOfPicks(answer, first).map((share, n): AnswerShare => ({
      answer: { code: n + 1 },
      share,
    }));
    assert.equal(cannotBePicked(answer, first, [{ answer: { code: 1 }, share: 0.5 }, ...others]), null);
  });

  it('touches no other where picks have each a chance of their own, nor a blank', () => {
    const all: AnswerShare[] = [...even(2), { answer: 'blank', share: 0.1 }];
    assert.deepEqual(
      withShare(all, 0, 0.9, false).map(({ share }) => share),
      [0.9, 0.5, 0.1],
    );
    assert.deepEqual(
      withShare(all, 0, 0.9, true).map(({ share }) => Math.round(share * 1e9) / 1e9),
      [0.9, 0.1, 0.1],
    );
    assert.deepEqual(
      withShare(all, 2, 0.3, true).map(({ share }) => share),
      [0.5, 0.5, 0.3],
    );
  });
});

it('a tick that is moved gives one neighbour what it takes from the other, as far as there is any', () => {
  const all: AnswerShare[] = [0.2, 0.3, 0.5].map((share, n) => ({ answer: { code: n + 1 }, share }));
  const moved = (after: number, by: number) =>
    withTick(all, after, by).map(({ share }) => Math.round(share * 1e9) / 1e9);
  assert.deepEqual(moved(0, 0.1), [0.3, 0.2, 0.5]);
  assert.deepEqual(moved(1, -0.05), [0.2, 0.25, 0.55]);
  assert.deepEqual(moved(0, -0.9), [0, 0.5, 0.5]);
  assert.deepEqual(moved(0, 0.9), [0.5, 0, 0.5]);
  // Behind the last there is no neighbour.
  assert.deepEqual(moved(2, 0.1), [0.2, 0.3, 0.5]);
});

describe('shares as a document says them', () => {
  const age: Answer = { type: 'number', min: 0, max: 99 };
  const stretch = (from: number, to: number, share: number): AnswerShare => ({ answer: { from, to }, share });

  it('tell codes, stretches and a blank apart, to a millionth', () => {
    const single: Answer = { type: 'single', options: [1, 2].map((code) => ({ code, label: `${code}` })) };
    const all: AnswerShare[] = [
      { answer: { code: 1 }, share: 1 / 3 },
      { answer: { code: 2 }, share: 2 / 3 },
    ];
    assert.deepEqual(asAssumed(single, {}, all), { shares: { 1: 0.333333, 2: 0.666667 } });
    assert.deepEqual(asAssumed(single, { blank: 0.1 }, all), {
      ...{ shares: { 1: 0.333333, 2: 0.666667 }, blank: 0.1 },
    });
    assert.deepEqual(asAssumed(single, { blank: 0.1 }, [...all, { answer: 'blank', share: 0.25 }]), {
      ...{ shares: { 1: 0.333333, 2: 0.666667 }, blank: 0.25 },
    });
    assert.deepEqual(asAssumed(age, {}, [stretch(0, 17, 0.2), stretch(18, 99, 0.8)]), {
      ranges: [
        { from: 0, to: 17, share: 0.2 },
        { from: 18, to: 99, share: 0.8 },
      ],
    });
  });

  it('keep the proportions of ranges that the author told apart within a stretch', () => {
    const before = {
      ranges: [
        { from: 0, to: 9, share: 0.1 },
        { from: 10, to: 17, share: 0.3 },
        { from: 18, to: 99, share: 0.6 },
      ],
    };
    assert.deepEqual(asAssumed(age, before, [stretch(0, 17, 0.8), stretch(18, 99, 0.2)]).ranges, [
      { from: 0, to: 9, share: 0.2 },
      { from: 10, to: 17, share: 0.6 },
      { from: 18, to: 99, share: 0.2 },
    ]);
    // One that lies across the edge of a stretch cannot be parted by it.
    const across = { ranges: [{ from: 0, to: 50, share: 1 }] };
    assert.deepEqual(asAssumed(age, across, [stretch(0, 17, 0.8), stretch(18, 99, 0.2)]).ranges, [
      { from: 0, to: 17, share: 0.8 },
      { from: 18, to: 99, share: 0.2 },
    ]);
    // Nor does one with no share at all say how to part what is new.
    const none = {
      ranges: [
        { from: 0, to: 9, share: 0 },
        { from: 10, to: 17, share: 0 },
      ],
    };
    assert.deepEqual(asAssumed(age, none, [stretch(0, 17, 0.8)]).ranges, [{ from: 0, to: 17, share: 0.8 }]);
  });

  it('of picks keep a blank, moved or as it was', () => {
    const answer: MultipleAnswer = { type: 'multiple', options: [{ code: 1, label: 'One' }] };
    const all: AnswerShare[] = [{ answer: { code: 1 }, share: 1 }];
    assert.equal(asAssumed(answer, {}, all).blank, undefined);
    assert.equal(asAssumed(answer, { blank: 0.2 }, all).blank, 0.2);
    assert.equal(asAssumed(answer, { blank: 0.2 }, [...all, { answer: 'blank', share: 0.3 }]).blank, 0.3);
  });

  it('add up for every answer but picks, in the rows of a grid as well', () => {
    const options = [{ code: 1, label: 'One' }];
    const rows = [{ name: 'r', label: 'R' }];
    assert.deepEqual(
      [
        addsUp(age),
        addsUp({ type: 'single', options }),
        addsUp({ type: 'multiple', options }),
        addsUp({ type: 'grid', rows, options }),
      ],
      [true, true, false, true],
    );
  });

  it('cannot be too much only where something is picked', () => {
    assert.equal(cannotBePicked(age, {}, [stretch(0, 99, 0.3)]), null);
  });
});
