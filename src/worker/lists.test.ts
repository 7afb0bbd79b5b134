/** The ledger's lists: what is left out, put in front or asked for alone, and the answers that routes are asked by. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../tests/support/questionnaire';
import { analyse, sharesOf } from '../core/analysis';
import { ALL_ROUTES, type ListQuery } from './list-query';
import { Lists } from './lists';

const must = { required: true };
const plan = planFor(
  questionnaire([
    section('a', [
      ask('own', 3, { ...must, skips: [{ if: 'own = 3', to: { ending: 'out' } }] }),
      ask('rent', 2, { ...must, askIf: 'own = 2' }),
      ask('why', 2, { ...must, askIf: 'rent = 2' }),
    ]),
  ]),
);
const analysis = analyse(plan);
const lists = new Lists({ plan, analysis, shares: () => sharesOf(plan), versions: () => null });

/** The routes of a list, as the items they present. */
function routes(query: Partial<ListQuery>): string[] | null {
  const list = lists.of({ ...ALL_ROUTES, ...query });
  if (list === null) return null;
  return Array.from({ length: Number(list.total) }, (_, n) => {
    const outline = analysis.outline(list.numberOf(BigInt(n + 1)) ?? 0n);
    return `${outline?.items.join(' ')} > ${outline?.ending}`;
  });
}
const ALL = ['own > done', 'own rent > done', 'own rent why > done', 'own > out'].sort();

describe('lists of routes', () => {
  it('are all of them, once each, in whatever order', () => {
    for (const order of ['canonical', 'shortest', 'longest', 'forks', 'pairs', 'likeliest'] as const)
      assert.deepEqual([...(routes({ order }) ?? [])].sort(), ALL, order);
    assert.equal(routes({ order: 'longest' })?.[0], 'own rent why > done');
    assert.equal(routes({ order: 'shortest' })?.at(-1), 'own rent why > done');
    // Who does not rent, and who is screened out, are a third each.
    assert.deepEqual(
      new Set(routes({ order: 'likeliest' })?.slice(0, 2)),
      new Set(['own > done', 'own > out']),
    );
  });

  it('leave out, and keep to, the numbers that are given', () => {
    const number = String(analysis.numberOf(['own', 'rent'], 'done'));
    assert.deepEqual(routes({ leaveOut: [number, '99'] })?.includes('own rent > done'), false);
    assert.deepEqual(routes({ only: [number, '99', number] }), ['own rent > done']);
    assert.deepEqual(routes({ only: [number], leaveOut: [number] }), []);
  });

  it('put in front what is to come first, those of them that are listed, and then the others', () => {
    const numbers = [['own', 'rent', 'why'], ['own']].map((items) =>
      String(analysis.numberOf(items, 'done')),
    );
    const front = [...numbers, '99'];
    assert.deepEqual(routes({ front, order: 'forks' })?.slice(0, 2), ['own rent why > done', 'own > done']);
    assert.deepEqual([...(routes({ front }) ?? [])].sort(), ALL);
    assert.equal(lists.summary({ ...ALL_ROUTES, front }).front, 2);
    assert.equal(lists.summary({ ...ALL_ROUTES, front, through: [['why']] }).front, 1);
    assert.deepEqual(routes({ front, only: [] }), []);
  });

  it('are asked by ways taken and answers given, all of them on one walk', () => {
    const taking = [{ item: 'own', skip: 0 }];
    assert.deepEqual(routes({ taking }), ['own > out']);
    assert.deepEqual(routes({ answering: ['own = 2', 'rent = 1'] }), ['own rent > done']);
    assert.deepEqual(routes({ taking, answering: ['own = 2'] }), []);
    // An answer that nobody can give, and words that are no condition, narrow nothing.
    assert.equal(routes({ answering: ['gone = 1', 'own ='] })?.length, 4);
    assert.deepEqual(routes({ through: [['why']], ending: 'out' }), []);
  });

  it('say how many there are, that all are meant, and nothing of versions that are not known', () => {
    assert.deepEqual(lists.summary(ALL_ROUTES), { total: '4', exact: true, front: 0, refused: null });
    assert.equal(routes({ touched: true }), null);
    assert.deepEqual(lists.summary({ ...ALL_ROUTES, touched: true }).refused, 'entangled');
    assert.ok(Math.abs((lists.likely()?.together ?? 0) - 1) < 1e-9);
  });
});
