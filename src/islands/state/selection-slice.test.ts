/** What is selected, several items together, and what the worker tells of a study meanwhile. */
import assert from 'node:assert/strict';
import { beforeEach, describe, it } from 'node:test';
import { SUMMARY } from '../../../tests/support/analysed';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import { address, type Address } from '../../core/document/addresses';
import type { Snag } from '../../core/snags';
import type { Analysed } from '../../worker/client';
import { createStudyStore } from './store';
import { placeSelected, type StudyStore } from './study-state';

const document = questionnaire([
  section('a', [ask('one'), { kind: 'page_break' }, ask('two')]),
  section('b', [ask('three'), ask('four')]),
]);
const item = (name: string): Address => address('item', name);
let store: StudyStore;
const state = () => store.getState();
const group = () => [...state().group];

beforeEach(() => {
  Object.assign(globalThis, { sessionStorage: { getItem: () => null, setItem: () => undefined } });
  store = createStudyStore({ id: 'one', document, revision: 1, changedAt: 1 }, []);
});

it('a place is found by what is selected, and nothing by what is none', () => {
  const places = ['one', 'two', 'three', 'nobody'].map((name) => placeSelected(document, item(name)));
  assert.deepEqual(places, [{ section: 0, item: 0 }, { section: 0, item: 2 }, { section: 1, item: 0 }, null]);
  assert.deepEqual(placeSelected(document, address('section', 'b')), { section: 1, item: null });
  assert.equal(placeSelected(document, 'comments'), null);
});

describe('selecting', () => {
  it('takes one thing at a time, and unfolds the section in which it lies', () => {
    state().select(item('one'));
    assert.equal(state().selection, item('one'));
    state().fold('b', true);
    state().select(item('two'));
    assert.deepEqual([state().selection, [...state().folded]], [item('two'), ['b']]);
    state().select(item('three'));
    assert.deepEqual([state().selection, [...state().folded]], [item('three'), []]);
    state().select('comments');
    assert.deepEqual([state().selection, group()], ['comments', []]);
    state().select(null);
    assert.equal(state().selection, null);
  });

  it('takes all items from where it began to where it goes, in either direction', () => {
    state().select(item('two'));
    state().selectTo(item('three'));
    assert.deepEqual([state().selection, group()], [item('three'), [item('two'), item('three')]]);
    state().selectTo(item('four'));
    assert.deepEqual(group(), [item('two'), item('three'), item('four')]);
    state().selectTo(item('one'));
    assert.deepEqual(group(), [item('one'), item('two')]);
    // One of them is looked at without the others being let go; anything else lets them go.
    state().select(item('two'));
    assert.deepEqual(group(), [item('one'), item('two')]);
    state().select(item('four'));
    assert.deepEqual(group(), []);
    state().selectTo(item('four'));
    assert.deepEqual(group(), []);
    state().selectTo(address('item', 'gone'));
    assert.equal(state().selection, item('four'));
  });

  it('goes on from where it began while one of them is looked at, and from elsewhere once they are let go', () => {
    state().select(item('two'));
    state().selectTo(item('four'));
    state().select(item('three'));
    state().selectTo(item('one'));
    assert.deepEqual(group(), [item('one'), item('two')]);
    state().select(item('four'));
    state().selectTo(item('three'));
    assert.deepEqual(group(), [item('three'), item('four')]);
  });
});

describe('what the worker tells', () => {
  const analysed = (rest: Partial<Analysed> = {}): Analysed => ({
    ...SUMMARY,
    document,
    asked: {},
    passes: {},
    snags: null,
    sample: undefined,
    ...rest,
  });

  it('takes the place of what was known, once it is known', () => {
    const snags: Snag[] = [{ rule: 'stuck', severity: 'error', at: {}, message: 'x' }];
    state().setAnalysis(analysed({ asked: { one: 'always' }, snags }));
    assert.deepEqual(state().routed, { snags, document });
    // Of the next version the counts come first.
    state().setAnalysis(analysed({ routes: '3' }));
    assert.deepEqual([state().analysis?.routes, state().analysis?.asked], ['3', { one: 'always' }]);
    assert.deepEqual(state().routed?.snags, snags);
    state().setAnalysis(analysed({ routes: '3', asked: { one: 'two = 1' } }));
    assert.deepEqual(state().analysis?.asked, { one: 'two = 1' });
    state().setAnalysis(null, 'The analysis failed.');
    assert.deepEqual([state().analysisProblem, state().analysis?.routes], ['The analysis failed.', '3']);
    state().setAnalysis(analysed());
    assert.equal(state().analysisProblem, null);
  });
});
