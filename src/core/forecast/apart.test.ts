/** Of whom shares are assumed apart: which conditions a question can have, and what the new one begins with. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import { apartProblem, withApart } from './apart';

it('they begin with the shares of all, behind those told apart before', () => {
  const where = [{ if: 'a = 1', shares: { 1: 1 } }];
  assert.deepEqual(withApart({ shares: { 1: 0.2 }, blank: 0.1, source: 'a survey', where }, ' a = 2 '), {
    ...{ shares: { 1: 0.2 }, blank: 0.1, source: 'a survey' },
    where: [...where, { if: 'a = 2', shares: { 1: 0.2 }, blank: 0.1 }],
  });
  const ranges = [{ from: 1, to: 2, share: 1 }];
  assert.deepEqual(withApart({ ranges }, 'a = 2'), { ranges, where: [{ if: 'a = 2', ranges }] });
});

it('a condition has to be one on what is known before, and a new one', () => {
  const where = [{ if: 'a = 1', shares: { 1: 1 } }];
  const study = questionnaire([section('s', [ask('a', 2), ask('b', 2, { assume: { where } }), ask('c', 2)])]);
  const problem = (condition: string) => apartProblem(study, 'b', condition);
  assert.match(problem(' ') ?? '', /^Say of whom/);
  assert.match(problem(' a = 1 ') ?? '', /own here already/);
  assert.equal(problem('a = 2'), null);
  assert.equal(apartProblem(study, 'c', 'a = 1'), null);
  for (const wrong of ['a =', 'd = 1', 'c = 1']) assert.match(problem(wrong) ?? '', /^[A-Z“].*\.$/, wrong);
});
