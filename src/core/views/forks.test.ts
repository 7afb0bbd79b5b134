/** The river: shares that add up wherever it is folded, routes along ribbons, and ways made and aimed on it. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { randomDocument } from '../../../tests/agree/documents';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { analyse, sharesOf, transitionsOf } from '../analysis';
import { applyChange } from '../editing/change';
import { addWay, reaimWay, removeWay } from '../editing/fork-edits';
import { forksOf, routesAlong, waysAlong } from './forks';

const document = questionnaire([
  section('a', [
    ask('start', 3, {
      required: true,
      skips: [
        { if: 'start = 1', to: { section: 'c' } },
        { if: 'start = 3', to: { ending: 'out' } },
      ],
    }),
  ]),
  section('b', [
    ask('b1', 2, { required: true, skips: [{ if: 'b1 = 2', to: { item: 'b3' } }] }),
    ask('b2'),
    ask('b3'),
  ]),
  section('c', [ask('c1'), ask('c2', 2, { askIf: 'start = 2' })]),
]);
const plan = planFor(document);
const shares = sharesOf(plan);
const transitions = transitionsOf(plan, shares) ?? [];
const model = (...unfolded: string[]) => forksOf(plan, transitions, new Set(unfolded));
const near = (a: number | null | undefined, b: number) =>
  assert.ok(Math.abs((a ?? NaN) - b) < 1e-9, `${a}, not ${b}`);

describe('the river', () => {
  it('has a node a section, and one an item where it is unfolded', () => {
    assert.deepEqual(
      model().nodes.map(({ id }) => id),
      ['section:a', 'section:b', 'section:c', 'ending:done'],
    );
    assert.deepEqual(
      model('b').nodes.map(({ id }) => id),
      ['section:a', 'item:b1', 'item:b2', 'item:b3', 'section:c', 'ending:done'],
    );
  });

  it('tells how many flow along, and who ends early', () => {
    const { ribbons, exits, nodes } = model();
    const share = (id: string) => ribbons.find((ribbon) => ribbon.id === id)?.share;
    near(share('section:a > section:b'), 1 / 3);
    near(share('section:a > section:c'), 1 / 3);
    near(share('section:b > section:c'), 1 / 3);
    assert.deepEqual(
      exits.map(({ from, to }) => [from, to]),
      [['section:a', 'ending:out']],
    );
    near(nodes.find(({ id }) => id === 'section:c')?.share, 2 / 3);
  });

  it('loses nobody on the way, however it is folded, on random questionnaires', () => {
    let compared = 0;
    for (let seed = 1; seed <= 60; seed += 1) {
      const document = randomDocument(seed);
      // Where a check that nobody gets past keeps some from going on, they go nowhere.
      if (JSON.stringify(document).includes('"hard"')) continue;
      const random = planFor(document);
      const weighed = sharesOf(random);
      compared += 1;
      const flowing = transitionsOf(random, weighed);
      if (flowing === null || flowing.some(({ share }) => share === null)) continue;
      const ids = random.sections.map(({ section: { id } }) => id);
      for (const unfolded of [[], ids, ids.slice(1)]) {
        const { nodes, ribbons, exits } = forksOf(random, flowing, new Set(unfolded));
        for (const node of nodes) {
          if (node.ending !== null || random.sections.some(({ repeat }) => repeat !== null)) continue;
          const out = [...ribbons, ...exits].filter(({ from }) => from === node.id);
          near(
            out.reduce((sum, { share }) => sum + (share ?? 0), 0),
            node.share ?? 0,
          );
        }
      }
    }
    assert.ok(compared > 20, `only ${compared} in which nobody is stuck`);
  });

  it('counts the routes along each ribbon as those that have the one straight after the other', () => {
    const analysis = analyse(plan);
    const routes = Array.from({ length: Number(analysis.routes) }, (_, n) => analysis.outline(BigInt(n + 1)));
    for (const unfolded of [[], ['a', 'b', 'c']]) {
      const shown = model(...unfolded);
      const homeOf = (name: string) => shown.nodes.find(({ items }) => items.includes(name))?.id ?? '';
      for (const ribbon of [...shown.ribbons, ...shown.exits]) {
        const expected = routes.filter((route) => {
          const stops = [...(route?.items ?? []).map(homeOf), `ending:${route?.ending}`];
          return stops.some((stop, n) => stop === ribbon.from && stops[n + 1] === ribbon.to);
        });
        const along = routesAlong(plan, shown, ribbon);
        assert.ok(along);
        const { ending, ...filter } = along;
        const { total } = analysis.filtered({ ...filter, ...(ending === null ? {} : { ending }) });
        assert.equal(total, BigInt(expected.length), ribbon.id);
      }
    }
  });
});

describe('ways on the river', () => {
  const ribbon = (id: string) => {
    const found = [...model().ribbons, ...model().exits].find((each) => each.id === id);
    assert.ok(found, id);
    return found;
  };

  it('are told by the ribbon that they lead along', () => {
    assert.deepEqual(waysAlong(plan, model(), ribbon('section:a > section:c')), [{ item: 'start', skip: 0 }]);
    assert.deepEqual(waysAlong(plan, model(), ribbon('section:a > ending:out')), [
      { item: 'start', skip: 1 },
    ]);
    assert.deepEqual(waysAlong(plan, model(), ribbon('section:a > section:b')), []);
  });

  it('are made, aimed and deleted, forward only', () => {
    const made = addWay(plan, { section: 'b' }, { ending: 'out' });
    assert.ok(typeof made === 'object');
    const once = applyChange(document, made).document;
    assert.deepEqual(once.sections[1]?.onward, [{ to: { ending: 'out' } }]);
    const aimed = reaimWay(planFor(once), { item: 'start', skip: 0 }, { item: 'b3' });
    assert.ok(typeof aimed === 'object');
    const twice = applyChange(once, aimed).document;
    const [start] = twice.sections[0]?.items ?? [];
    assert.deepEqual(start?.kind === 'question' && start.skips?.[0], { if: 'start = 1', to: { item: 'b3' } });
    const gone = applyChange(twice, removeWay({ section: 'b', onward: 0 })).document;
    assert.equal(gone.sections[1]?.onward, undefined);
    assert.match(String(addWay(plan, { item: 'b2' }, { item: 'b1' })), /forward only/);
  });
});
