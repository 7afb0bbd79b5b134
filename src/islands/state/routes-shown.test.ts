/** The ledger's address: what is written comes back, and what the questionnaire lacks is left out. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { listQuery, readShown, shownSearch, type RoutesShown } from './routes-shown';

const plan = planFor(
  questionnaire([
    section('a', [ask('one', 2, { skips: [{ if: 'one = 1', to: { ending: 'out' } }] }), ask('two')]),
    section('b', [ask('three')], { onward: [{ to: { ending: 'out' } }] }),
    section('c', [ask('four'), ask('five')], { repeat: { times: 'one', max: 3 } }),
  ]),
);
const shown: RoutesShown = {
  through: ['one', 'section:b'],
  avoid: ['two'],
  ending: 'out',
  taking: ['one/0', 'section:b/0'],
  answering: ['one in (1, 2)', 'two = 1'],
  passes: ['c/2'],
  order: 'longest',
  folded: true,
  since: 'edit',
  verdict: 'open',
};

describe('the address of a ledger', () => {
  it('comes back as it was written', () => {
    assert.deepEqual(readShown(shownSearch(shown)), shown);
    assert.equal(shownSearch(readShown('')), '');
  });

  it('asks for items of sections, and for skips and onward entries by index', () => {
    const query = listQuery(plan, shown);
    assert.deepEqual(query.through, [['one'], ['three'], ['four#2', 'five#2']]);
    assert.deepEqual(query.avoid, ['two', 'four#3', 'five#3']);
    assert.deepEqual([query.touched, listQuery(plan, { ...shown, since: null }).touched], [true, false]);
    const passes = (text: string) => {
      const { through, avoid } = listQuery(plan, readShown(`?passes=${text}`));
      return [through, avoid];
    };
    assert.deepEqual(passes('c/3'), [[['four#3', 'five#3']], []]);
    assert.deepEqual(passes('c/0'), [[], ['four#1', 'five#1', 'four#2', 'five#2', 'four#3', 'five#3']]);
    assert.deepEqual(query.answering, ['one in (1, 2)', 'two = 1']);
    assert.deepEqual(query.taking, [
      { item: 'one', skip: 0 },
      { section: 'b', onward: 0 },
    ]);
  });

  it('leaves out what is not there, and what it does not understand', () => {
    const query = listQuery(
      plan,
      readShown(
        '?through=gone,section:gone&ending=gone&taking=one/7,two/0,x&order=odd&passes=a/1,c/4,c/x&answering=gone = 1;one = 1 and two = 1;one =',
      ),
    );
    const { through, avoid, ending, taking, answering, order } = query;
    assert.deepEqual(
      { through, avoid, ending, taking, answering, order },
      { through: [], avoid: [], ending: null, taking: [], answering: [], order: 'canonical' },
    );
  });
});
