/** Splitting the sample: who is asked what afterwards, counted by walking, and what cannot be cut is said. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, say, section } from '../../../tests/support/questionnaire';
import type { Questionnaire } from '../document/types';
import { sharesOf } from '../analysis';
import { planOf } from '../routing/planner';
import { applyChange } from './change';
import { askInHalves, askOfHalf, cutOf } from './split-sample';

const STUDY = questionnaire([
  section('screen', [ask('age', 2)], { kind: 'screening' }),
  section('b', [
    say('intro', { text: 'Now about {age}.' }),
    ask('owns', 2),
    ask('car', 2, { askIf: 'owns = 1' }),
    ask('bike', 2),
    ask('bus', 2, { askIf: 'age = 1 or age = 2' }),
  ]),
  section('c', [ask('one', 2), ask('two', 2, { askIf: 'one = 1' })]),
]);
const shares = (document: Questionnaire) => {
  const found = sharesOf(planOf(document));
  return Object.fromEntries([...(found?.items ?? [])].map(([name, { share }]) => [name, share]));
};

describe('a split sample', () => {
  it('has some items asked of a random half of those who were asked them', () => {
    const change = askOfHalf(STUDY, ['car', 'bus'], 'travel');
    const { document } = applyChange(STUDY, change);
    assert.equal(change.arm, 'half_of_travel');
    const before = shares(STUDY);
    assert.deepEqual(shares(document), { ...before, car: 0.25, bus: 0.5 });
    assert.deepEqual(planOf(document).problems, []);
  });

  it('cuts a block near its middle where nothing later reads what is before, and asks each half its part', () => {
    const cut = cutOf(planFor(STUDY), 1);
    assert.deepEqual(cut, { section: 1, at: 3 });
    assert.ok(typeof cut !== 'string');
    const { document } = applyChange(STUDY, askInHalves(STUDY, cut));
    const { intro, owns, car, bike, bus } = shares(document);
    assert.deepEqual([intro, owns, car, bike, bus], [0.5, 0.5, 0.25, 0.5, 0.5]);
  });

  it('takes another name where one is taken', () => {
    const once = applyChange(STUDY, askOfHalf(STUDY, ['bike'], 'bike')).document;
    assert.notEqual(askOfHalf(once, ['bus'], 'bike').arm, 'half_of_bike');
  });

  it('says why a block cannot be cut', () => {
    const plan = planFor(STUDY);
    assert.match(String(cutOf(plan, 0)), /Everybody has to go through/);
    const drawn = questionnaire([section('d', [ask('x'), ask('y')], { draw: 1 })]);
    assert.match(String(cutOf(planFor(drawn), 0)), /draws some of its questions/);
    assert.match(String(cutOf(plan, 2)), /hang on the earlier ones wherever it is cut/);
    assert.match(
      String(cutOf(planFor(questionnaire([section('a', [ask('q', 2)])])), 0)),
      /only one question/,
    );
  });
});
