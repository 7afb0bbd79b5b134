/** Parts that an edit left alone are found again in a document that came anew, and nothing else is taken for them. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { intOf, retouch } from '../../../tests/agree/changes';
import { randomChain } from '../../../tests/agree/documents';
import { seedsToTry } from '../../../tests/agree/seeds';
import { applyChange } from '../editing/change';
import { withPartsOf } from './shared-parts';

const SEEDS = seedsToTry([], 60);

describe('parts that were there before', () => {
  it('are the same objects, of any two values, and the value is what it would be without', () => {
    fc.assert(
      fc.property(fc.jsonValue(), fc.jsonValue(), (before, now) => {
        const [kept, came] = [JSON.stringify(before), JSON.stringify(now)];
        const result = withPartsOf(before, now);
        assert.equal(JSON.stringify(result), came);
        assert.equal(JSON.stringify(before), kept);
        assert.equal(withPartsOf(before, structuredClone(before)), before);
      }),
      { numRuns: 500 },
    );
  });

  it('are all but those on the way to what was changed', () => {
    for (const seed of SEEDS.all) {
      const document = randomChain(seed);
      const next = applyChange(document, {
        label: 'retouch',
        apply: (draft) => retouch(draft, intOf(seed)),
      }).document;
      const came = withPartsOf(document, structuredClone(next));
      assert.deepEqual(came, next, `seed ${seed}`);
      // Whatever the edit left as an object it was is that object here as well.
      next.sections.forEach((section, s) => {
        if (document.sections.includes(section)) assert.equal(came.sections[s], section, `seed ${seed}`);
        section.items.forEach((item, i) => {
          if (document.sections.some(({ items }) => items.includes(item)))
            assert.ok(sameAsBefore(document, came.sections[s]?.items[i]), `seed ${seed}, item ${i}`);
        });
      });
    }
  });

  it('are known by their names where they stand in another place, and not by a name of another kind', () => {
    const before = { items: [{ name: 'a', text: 'A' }, { name: 'b', text: 'B' }, { id: 'c' }] };
    const [a, b] = before.items;
    const came = withPartsOf(before, structuredClone({ items: [b, { name: 'c' }, a] }));
    assert.equal(came.items[0], b);
    assert.deepEqual(came.items[1], { name: 'c' });
    assert.equal(came.items[2], a);
  });

  it('are others where their properties stand in another order, which is written in a file', () => {
    const before = { a: 1, b: 2 };
    const came = withPartsOf(before, { b: 2, a: 1 });
    assert.notEqual(came, before);
    assert.equal(JSON.stringify(came), '{"b":2,"a":1}');
  });
});

function sameAsBefore({ sections }: ReturnType<typeof randomChain>, item: unknown): boolean {
  return sections.some(({ items }) => (items as readonly unknown[]).includes(item));
}
