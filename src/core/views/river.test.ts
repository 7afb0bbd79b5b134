/** The drawing of the river: ribbons of even width, sizes that fit, and room taken out without anything crossing. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { compacted, ribbonPath, sizesFor } from './river';

describe('the sizes of a river', () => {
  it('fit thirty sections into one screen, and stay readable beyond', () => {
    for (const nodes of [1, 12, 30]) {
      const { height, gap } = sizesFor(nodes, 680);
      assert.ok(nodes * (height + gap) <= 690 && height >= 10, `${nodes}: ${height} and ${gap}`);
    }
    const { height, gap } = sizesFor(1000, 680);
    assert.ok(height + gap >= 22);
  });
});

describe('a ribbon', () => {
  it('is as wide at its end as at its start', () => {
    const path = ribbonPath(
      [
        { x: 10, y: 0 },
        { x: 50, y: 40 },
      ],
      8,
    );
    assert.equal(path, 'M6 0 C6 20 46 20 46 40 L54 40 C54 20 14 20 14 0 Z');
  });
});

describe('a layout with less room', () => {
  it('keeps the order of everything, the size of nodes and at least the gap', () => {
    const room = fc.integer({ min: 12, max: 900 });
    fc.assert(
      fc.property(fc.array(room, { minLength: 1, maxLength: 12 }), (rooms) => {
        const tops = rooms.reduce<number[]>((all, each) => [...all, (all.at(-1) ?? 0) + 10 + each], [0]);
        const nodes = tops.map((_, n) => ({ id: `n${n}`, width: 10 }));
        const points = tops.flatMap((y) => [y, y + 10, y + 15]).map((y) => ({ x: 0, y }));
        const layout = {
          width: 10,
          height: (tops.at(-1) ?? 0) + 22,
          nodes: Object.fromEntries(tops.map((y, n) => [`n${n}`, { x: 0, y }])),
          ribbons: { all: points },
        };
        const moved = compacted(layout, { nodes, ribbons: [], height: 10, gap: 12 });
        const ys = moved.ribbons.all?.map(({ y }) => y) ?? [];
        assert.ok(
          ys.every((y, n) => n === 0 || y > (ys[n - 1] ?? 0)),
          'in order',
        );
        tops.forEach((_, n) => {
          const top = moved.nodes[`n${n}`]?.y ?? NaN;
          assert.ok(Math.abs((ys[3 * n + 1] ?? 0) - top - 10) < 1e-9, 'as high as before');
          if (n > 0) assert.ok(top - (moved.nodes[`n${n - 1}`]?.y ?? 0) - 10 >= 12 - 1e-9, 'the gap');
        });
      }),
    );
  });
});
