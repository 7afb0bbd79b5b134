/** Picked conditions read back as what was picked, and join without changing what they mean. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import { planOf } from '../routing/planner';
import { variablesOf, type Variable } from '../document/variables';
import { parseCondition } from '../condition/parse';
import { firstTest, joinConditions, pickedCondition, pickedOf, relationsFor, takes } from './picking';

const options = [1, 2, 98].map((code) => ({ code, label: `${code}` }));
const document = questionnaire([
  section('a', [
    ask('one', 3),
    ask('many', { type: 'multiple', options }),
    ask('age', { type: 'number', min: 0, max: 120 }),
    ask('words', { type: 'text' }),
    ask('day', { type: 'date' }),
    ask('table', { type: 'grid', rows: [{ name: 'row', label: 'Row' }], options }),
  ]),
]);
const variables = variablesOf(document);
const SAMPLE = {
  number: ['1', '2'],
  set: ['1', '2'],
  order: ['1'],
  text: ["it's"],
  date: ['2026-01-01', '2026-02-01'],
};

it('what can be said of a variable depends on what it holds', () => {
  const states = ['was answered', 'was left blank', 'was asked', 'was not asked'];
  const order = ['is at least', 'is at most', 'is more than', 'is less than', 'is between'];
  const cases = [
    ['one', ['is', 'is not', ...states]],
    ['many', ['includes any', 'includes all', 'includes none', ...states]],
    ['age', [...order, 'is', 'is not', ...states]],
    ['words', ['is the text', ...states]],
    ['day', [...order, ...states]],
    ['table', states],
    ['row', ['is', 'is not', ...states]],
  ] as const;
  for (const [name, relations] of cases) {
    const variable = variables.get(name);
    assert.ok(variable !== undefined, name);
    assert.deepEqual(relationsFor(variable), relations, name);
  }
  const arms = questionnaire([section('a', [ask('one')])], {
    given: [{ name: 'arm', label: 'Arm', answer: { type: 'single', options: [...options] } }],
  });
  // A given value is never asked for.
  assert.deepEqual(relationsFor(variablesOf(arms).get('arm') as Variable), ['is', 'is not']);
});

describe('picking a condition', () => {
  it('gives, for every question and relation it offers, a condition without problems', () => {
    for (const variable of variables.values()) {
      for (const relation of relationsFor(variable)) {
        const sample = SAMPLE[variable.kind as keyof typeof SAMPLE] ?? [];
        const count = { codes: 2, one: 1, two: 2, none: 0 }[takes(variable, relation)];
        const text = pickedCondition(variable, relation, sample.slice(0, count));
        assert.ok(text !== null, `${variable.name} ${relation}`);
        const later = questionnaire([...document.sections, section('b', [ask('last', 2, { askIf: text })])]);
        assert.deepEqual(planOf(later).problems, [], text);
        // What is written is shown as it was picked.
        const parsed = parseCondition(text);
        const back = parsed.ok ? pickedOf(parsed.tree, variables) : null;
        assert.deepEqual(back, { variable, relation, values: sample.slice(0, count) }, text);
      }
    }
  });

  it('leaves what cannot be picked to be written', () => {
    for (const text of ['one = many', 'count(many) >= 2', 'one in (1, 3..4)', 'age + 1 > 3', '18 <= age']) {
      const parsed = parseCondition(text);
      if (parsed.ok) assert.equal(pickedOf(parsed.tree, variables), null, text);
    }
  });

  it('begins with a test that is complete', () => {
    for (const variable of variables.values())
      assert.ok(parseCondition(firstTest(variable)).ok, variable.name);
  });

  it('waits until there is enough to go on', () => {
    const age = variables.get('age') as Variable;
    assert.equal(pickedCondition(age, 'is between', ['18']), null);
    assert.equal(pickedCondition(age, 'is at least', ['']), null);
    assert.equal(pickedCondition(age, 'is at least', ['eighteen or so']), null);
  });

  it('joins with brackets only where they are needed', () => {
    assert.equal(joinConditions('', 'and', 'a = 1'), 'a = 1');
    assert.equal(joinConditions('a = 1 or b = 2', 'and', 'c = 3'), '(a = 1 or b = 2) and c = 3');
    assert.equal(joinConditions('a = 1 or b = 2', 'or', 'c = 3'), 'a = 1 or b = 2 or c = 3');
    assert.equal(joinConditions('a = ', 'or', 'c = 3'), 'a =  or c = 3');
  });
});
