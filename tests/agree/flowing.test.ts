/** Who goes on from an item to the next, against everybody there can be. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { whoFlowsOn } from '../../src/core/analysis';
import { parseCondition } from '../../src/core/condition/parse';
import type { Condition } from '../../src/core/condition/syntax';
import { holds, type Environment } from '../../src/core/condition/evaluate';
import type { Plan } from '../../src/core/routing/plan';
import type { Walk } from '../../src/core/routing/walk';
import { planFor } from '../support/questionnaire';
import { randomDocument } from './documents';
import { caseOf, type Case } from './judges';
import { seedsToTry } from './seeds';

const SEEDS = seedsToTry([2, 141, 2871, 20298, 20499, 20640], 60);

it(`is what the condition says, on ${SEEDS.words}`, () => {
  const compared = SEEDS.all.filter((seed) => {
    const found = caseOf(planFor(randomDocument(seed)), `seed ${seed}`, 4000);
    if (found !== null) judgeFlowing(found);
    return found !== null;
  });
  assert.ok(
    compared.length > SEEDS.count * 0.5,
    `only ${compared.length} were small enough to try everything`,
  );
});

interface Way {
  readonly to: string;
  readonly text: string;
  readonly tree: Condition;
}

function judgeFlowing({ plan, people, about }: Case): void {
  const ways = waysFrom(plan);
  const byChance = (plan.document.quotas ?? []).length > 0;
  for (const { walk, input } of people) {
    walk.steps.forEach((step, n) => {
      const { section, item } = step.planItem;
      const next = walk.steps[n + 1];
      const to = next?.planItem.item.name ?? plan.endings[walk.ending ?? -1]?.ending.id ?? '';
      const from = ways.get(item.name) ?? [];
      const where = `${about}, ${item.name} > ${to}, with ${JSON.stringify(input)}`;
      const own = from.find((way) => way.to === to);
      assert.ok(own !== undefined, `${where}: not on the map`);
      const environment = leaving(walk, section, step.pass);
      assert.ok(holds(own.tree, environment), `${where}: not those with ${own.text}`);
      // Another way may be open to the same person where chance decides, or another pass.
      const open =
        byChance || step.pass !== null || plan.sections.some((each) => each.section.draw !== undefined);
      if (open) return;
      for (const way of from)
        assert.equal(holds(way.tree, environment), way === own, `${where}: those with ${way.text}`);
    });
  }
}

/** Names of a repeated section are of the pass that is left; its passes are counted when they are over. */
function leaving(walk: Walk, section: number, pass: number | null): Environment {
  const [within, over] = [walk.environment(section, pass), walk.environment(section, null)];
  return {
    ...{ pass: within.pass, each: within.each },
    read: (name) => within.read(name),
    passesOver: (condition) => over.passesOver(condition),
  };
}

function waysFrom(plan: Plan): ReadonlyMap<string, readonly Way[]> {
  const ways = new Map<string, Way[]>();
  const flows = whoFlowsOn(plan);
  assert.ok(flows !== null);
  for (const { from, to, who } of flows) {
    const parsed = parseCondition(who);
    assert.ok(parsed.ok, who);
    const way = { to: 'item' in to ? to.item : to.ending, text: who, tree: parsed.tree };
    ways.set(from, [...(ways.get(from) ?? []), way]);
  }
  return ways;
}
