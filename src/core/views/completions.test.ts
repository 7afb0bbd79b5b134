/** Completion offers what may stand at the caret: earlier names, relations, the codes of the question in hand. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import { planOf } from '../routing/planner';
import { completionsAt, exampleAt, pipesBefore } from './completions';
import { possibleTargets } from '../wording/targets';

const document = questionnaire([
  section('a', [ask('tenure', 3), ask('fuels', { type: 'multiple', options: [{ code: 7, label: 'Gas' }] })]),
  section('b', [ask('landlord'), ask('later'), ask('last')]),
  section('c', [ask('inside'), ask('deep')], { draw: 1 }),
]);
const plan = planOf(document);
const offered = (text: string) =>
  completionsAt(plan, { section: 1, item: 0 }, text, text.length).list.map(({ label }) => label);

describe('completion', () => {
  it('offers earlier names at the start and after a joining word, nearest first', () => {
    assert.deepEqual(offered('').slice(0, 2), ['fuels', 'tenure']);
    assert.ok(!offered('').includes('later'));
    assert.deepEqual(offered('tenure = 1 and t').slice(0, 2), ['fuels', 'tenure']);
    assert.equal(completionsAt(plan, { section: 1, item: 0 }, 'not te', 6).from, 4);
  });

  it('offers relations after a name and codes after a relation', () => {
    assert.ok(offered('tenure ').includes('in ('));
    assert.ok(offered('fuels ').includes('has'));
    assert.deepEqual(offered('tenure = '), ['1', '2', '3']);
    assert.deepEqual(offered('tenure in (1, '), ['1', '2', '3']);
    assert.deepEqual(offered('fuels has any ('), ['7']);
    assert.deepEqual(offered('tenure in (1, 2) '), ['and', 'or']);
  });
});

describe('what can be piped', () => {
  it('is what the pass is about, in a repeated section, before the answers', () => {
    const repeated = (repeat: object) => {
      const sections = [
        document.sections[0]!,
        { ...document.sections[1]!, repeat },
      ] as typeof document.sections;
      const labels = pipesBefore(planOf({ ...document, sections }), { section: 1, item: 0 });
      return labels.map(({ label }) => label).slice(0, 3);
    };
    assert.deepEqual(repeated({ times: 'tenure', max: 3 }), ['pass', 'fuels', 'tenure']);
    assert.deepEqual(repeated({ each: 'fuels', max: 3 }), ['each', 'pass', 'fuels']);
    assert.equal(pipesBefore(plan, { section: 1, item: 0 })[0]?.label, 'fuels');
  });
});

describe('an example of a condition', () => {
  it('is written in names of the study that can be read there, and resolves', () => {
    assert.equal(exampleAt(plan, { section: 1, item: 0 }), 'fuels has 7');
    assert.equal(exampleAt(plan, { section: 0, item: 1 }), 'tenure = 1');
    assert.equal(exampleAt(plan, { section: 0, item: 0 }), null);
  });
});

describe('targets to choose from', () => {
  it('start with the likely ones and hold nothing that would loop or enter a draw part-way', () => {
    const labels = possibleTargets(document, 1, 0).map(({ label }) => label);
    assert.deepEqual(labels, ['last', 'C c', 'Screened out', 'Complete']);
    assert.deepEqual(
      possibleTargets(document, 0, null).map(({ label }) => label),
      ['B b', 'Screened out', 'Complete', 'later', 'last', 'C c'],
    );
  });
});
