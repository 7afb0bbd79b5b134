/** Sets of assumptions: what each comes to beside the questions' own, and that edits of the questionnaire reach them. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { applyChange, type Change } from '../editing/change';
import { withListOf } from '../editing/lists';
import { recode } from '../editing/recode';
import { renameVariable } from '../editing/rename';
import { Forecaster } from './forecast';
import { addSet, assume, assumedInSet, removeSet, renameSet, setNameProblem, setsOf } from './sets';

const STUDY = questionnaire([
  section('a', [
    ask('rents', 2),
    ask('heats', 2, {
      assume: { shares: { 1: 0.5 }, where: [{ if: 'rents = 1', shares: { 1: 0.1 } }] },
    }),
    ask('pump', 2, { askIf: 'heats = 1' }),
  ]),
]);
const after = (...changes: readonly Change[]) =>
  changes.reduce((document, change) => applyChange(document, change).document, STUDY);
const LOW = after(
  addSet(' low '),
  assume('low', 'heats', { shares: { 1: 0.2 }, where: [{ if: 'rents = 2', shares: { 1: 1 } }] }),
);

describe('a set of assumptions', () => {
  it('stands for the questions it names; of whom shares are apart is the question’s to say', () => {
    const plan = planFor(LOW);
    const share = (set: string | null) =>
      new Forecaster(plan)
        .forecast({ starts: 1, breakOff: 0, assumptions: assumedInSet(LOW, set) })
        .items.find(({ group }) => 'item' in group && group.item === 'pump')?.share;
    assert.equal(share(null), (0.1 + 0.5) / 2);
    assert.ok(Math.abs((share('low') ?? 0) - (0.1 + 0.2) / 2) < 1e-12);
    assert.equal(share('gone'), share(null));
  });

  it('follows a renamed question and other codes', () => {
    const renamed = applyChange(LOW, renameVariable('heats', 'warms')).document;
    assert.deepEqual([...assumedInSet(renamed, 'low').keys()], ['warms']);
    const other = applyChange(LOW, recode(LOW, { section: 0, item: 1 }, new Map([[1, 7]]))).document;
    assert.deepEqual(setsOf(other)[0]?.assume[0]?.shares, { 7: 0.2 });
  });

  it('says nothing of answers that are gone', () => {
    const from = {
      ...ask('heats'),
      answer: { type: 'single' as const, options: [{ code: 5, label: 'Five' }] },
    };
    const other = applyChange(LOW, withListOf({ section: 0, item: 1 }, from)).document;
    assert.deepEqual(setsOf(other)[0]?.assume, []);
  });

  it('has a name of its own, can be called otherwise, and leaves nothing behind', () => {
    assert.match(setNameProblem(LOW, 'Low', null) ?? '', /There is a set “Low” already/);
    assert.match(setNameProblem(LOW, ' expected', null) ?? '', /give the set another name/);
    assert.match(setNameProblem(LOW, ' ', null) ?? '', /Give the set a name/);
    assert.equal(setNameProblem(LOW, 'LOW', 'low'), null);
    assert.equal(setsOf(applyChange(LOW, renameSet('low', 'cautious')).document)[0]?.name, 'cautious');
    const cleared = applyChange(LOW, assume('low', 'heats', null)).document;
    assert.deepEqual(setsOf(cleared)[0]?.assume, []);
    assert.deepEqual(applyChange(LOW, removeSet('low')).document.settings?.forecast, {});
  });
});
