/** What would double a base, against the forecast under just that assumption. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import type { MultipleAnswer } from '../document/types';
import { sharesOfPicks } from '../routing/pick-shares';
import { Forecaster } from './forecast';

const base = (item: string) => ({ item, pass: null });

describe('what would double a base', () => {
  const plan = planFor(
    questionnaire([
      section('a', [
        ask('heats', 3, { required: true, assume: { shares: { 1: 0.2, 2: 0.5, 3: 0.3 } } }),
        ask('fuels', {
          type: 'multiple',
          options: [1, 2].map((code) => ({ code, label: `${code}` })),
        }),
        ask('pump', 2, { askIf: 'heats = 1 and fuels has 1' }),
        ask('late', 2),
      ]),
    ]),
  );

  it('is the share at which the forecast has twice as many, or how far it goes at most', () => {
    const forecaster = new Forecaster(plan);
    const [heats, fuels] = forecaster.doublings(base('pump')) ?? [];
    assert.deepEqual([heats?.name, heats?.answer, heats?.from], ['heats', { code: 1 }, 0.2]);
    assert.ok(Math.abs((heats?.to ?? 0) - 0.4) < 1e-3, `${heats?.to}`);
    assert.ok(Math.abs((heats?.most ?? 0) - 5) < 1e-9);
    // Two of three sets of picks have it: at most half as many more.
    assert.deepEqual([fuels?.name, fuels?.to], ['fuels', null]);
    assert.ok(Math.abs((fuels?.most ?? 0) - 1.5) < 1e-9);
    const pump = forecaster
      .forecast({ starts: 1, breakOff: 0 })
      .items.find(({ group }) => 'item' in group && group.item === 'pump');
    assert.ok(Math.abs((pump?.share ?? 0) - 0.2 * (2 / 3)) < 1e-12, 'what was tried is forgotten again');
  });

  it('of picks is told in shares of those who answer: one point more of a pick is one more of a hundred who have it', () => {
    const picks: MultipleAnswer = {
      type: 'multiple',
      options: [
        { code: 1, label: 'gas' },
        { code: 2, label: 'wood' },
        { code: 9, label: 'none', exclusive: true },
      ],
    };
    const assume = { shares: { 1: 0.1, 2: 0.6, 9: 0.3 } };
    const forecaster = new Forecaster(
      planFor(
        questionnaire([
          section('a', [
            ask('burns', picks, { required: true, assume }),
            ask('gas', 2, { askIf: 'burns has 1' }),
          ]),
        ]),
      ),
    );
    const [share = 0] = sharesOfPicks(picks, assume);
    const [effect] = forecaster.effects({ group: base('gas') }) ?? [];
    assert.deepEqual([effect?.name, effect?.answer], ['burns', { code: 1 }]);
    assert.ok(Math.abs((effect?.perPoint ?? 0) - 0.01) < 1e-9, `${effect?.perPoint}`);
    const [doubled] = forecaster.doublings(base('gas')) ?? [];
    assert.ok(Math.abs((doubled?.from ?? 0) - share) < 1e-12);
    assert.ok(Math.abs((doubled?.to ?? 0) - 2 * share) < 1e-3, `${doubled?.to}`);
  });

  it('is nothing for a base of everybody', () => {
    assert.deepEqual(new Forecaster(plan).doublings(base('late')), []);
    assert.equal(new Forecaster(plan).doublings(base('gone')), null);
  });
});
