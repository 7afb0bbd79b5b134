/** The snags that speak of everybody or nobody, against every walk there is, on random small questionnaires. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { analyse } from '../../src/core/analysis';
import { holds } from '../../src/core/condition/evaluate';
import type { Condition } from '../../src/core/condition/syntax';
import { optionsOf } from '../../src/core/document/shape';
import type { Plan } from '../../src/core/routing/plan';
import type { Walk } from '../../src/core/routing/walk';
import { routedSnagsOf, type Snag } from '../../src/core/snags';
import { planFor, trail, walked } from '../support/questionnaire';
import { allRoutes, TooMany } from './brute-force';
import { randomDocument } from './documents';
import { seedsToTry } from './seeds';

/** With the seeds that once failed. */
const SEEDS = seedsToTry([]);

const DECIDED = [
  'never-asked',
  'ending-unreached',
  'never-true',
  'always-true',
  'skip-shadowed',
  'no-message',
];

/** What is met, told from walks alone: conditions by place with how they came out, items, endings, messages. */
class Met {
  readonly outcomes = new Map<string, Set<boolean>>();
  readonly taken = new Set<string>();
  readonly items = new Set<string>();
  readonly endings = new Set<string>();
  readonly untold = new Set<string>();

  constructor(private readonly plan: Plan) {}

  add(walk: Walk): void {
    const { plan } = this;
    const entered = new Set<number>();
    for (const { planItem, pass, shown, departure } of walk.steps) {
      const { item, section } = planItem;
      const here = walk.environment(section, pass);
      entered.add(section);
      this.items.add(item.name);
      if (planItem.askIf) this.note({ item: item.name }, true);
      if (item.kind === 'question') {
        const options = optionsOf(item.answer);
        planItem.optionIf.forEach((condition, o) => {
          if (condition) this.note({ item: item.name, option: options[o]?.code }, shown.options[o] === true);
        });
        const rows = item.answer.type === 'grid' ? item.answer.rows : [];
        planItem.rowIf.forEach((condition, r) => {
          if (condition) this.note({ item: item.name, row: rows[r]?.name }, shown.rows[r] === true);
        });
      }
      for (const quota of planItem.quotas) this.note({ quota: quota.id }, holds(quota.if, here));
      for (const skip of planItem.skips)
        if (skip.if) this.note({ item: item.name, skip: skip.index }, holds(skip.if, here));
      if (departure?.by === 'skip')
        this.taken.add(JSON.stringify({ item: item.name, skip: departure.skip.index }));
    }
    for (const { section, item, why } of walk.passedOver) {
      const of = plan.sections[section];
      if (item === null) {
        if (of?.gate) this.note({ section: of.section.id }, why.because !== 'section-ask-if');
        continue;
      }
      entered.add(section);
      const planItem = of?.items[item];
      if (planItem?.askIf) this.note({ item: planItem.item.name }, why.because !== 'ask-if');
    }
    for (const { section, onward } of walk.left) {
      entered.add(section);
      const of = plan.sections[section];
      const outside = walk.environment(section, null);
      for (const skip of of?.onward ?? [])
        if (skip.if) this.note({ section: of?.section.id, onward: skip.index }, holds(skip.if, outside));
      if (onward) this.taken.add(JSON.stringify({ section: of?.section.id, onward: onward.index }));
    }
    for (const section of entered) {
      const of = plan.sections[section];
      if (of?.gate) this.note({ section: of.section.id }, true);
    }
    if (walk.ending === null) return;
    const ending = plan.endings[walk.ending];
    const end = walk.environment(plan.sections.length, null);
    this.endings.add(ending?.ending.id ?? '');
    if (!ending?.messages.some((message) => message.if === null || holds(message.if, end)))
      this.untold.add(ending?.ending.id ?? '');
  }

  private note(at: object, outcome: boolean): void {
    const key = JSON.stringify(at);
    this.outcomes.set(key, (this.outcomes.get(key) ?? new Set()).add(outcome));
  }
}

function expected(plan: Plan, met: Met): string[] {
  const found: string[] = [];
  const broken = new Set(plan.problems.map(({ at }) => JSON.stringify(at)));
  const constants = new Set<string>();
  const constant = (at: object, condition: Condition | null) => {
    if (condition?.kind === 'constant') constants.add(JSON.stringify(at));
  };
  for (const { section, gate, items, onward } of plan.sections) {
    constant({ section: section.id }, gate);
    for (const skip of onward) constant({ section: section.id, onward: skip.index }, skip.if);
    for (const { item, askIf, skips, quotas, optionIf, rowIf } of items) {
      const at = JSON.stringify({ item: item.name });
      // A condition that cannot be read is told of instead.
      const shut = broken.has(at) || broken.has(JSON.stringify({ section: section.id }));
      if (!met.items.has(item.name) && !shut) found.push(`never-asked ${at}`);
      constant({ item: item.name }, askIf);
      for (const skip of skips) constant({ item: item.name, skip: skip.index }, skip.if);
      for (const quota of quotas) constant({ quota: quota.id }, quota.if);
      if (item.kind !== 'question') continue;
      optionIf.forEach((condition, o) =>
        constant({ item: item.name, option: optionsOf(item.answer)[o]?.code }, condition),
      );
      const rows = item.answer.type === 'grid' ? item.answer.rows : [];
      rowIf.forEach((condition, r) => constant({ item: item.name, row: rows[r]?.name }, condition));
    }
  }
  for (const [at, outcomes] of met.outcomes) {
    if (broken.has(at)) continue;
    if (!outcomes.has(true)) found.push(`never-true ${at}`);
    else if (!outcomes.has(false) && !constants.has(at)) found.push(`always-true ${at}`);
    if (outcomes.has(true) && /"(skip|onward)"/.test(at) && !met.taken.has(at))
      found.push(`skip-shadowed ${at}`);
  }
  for (const { ending } of plan.endings) {
    const at = JSON.stringify({ ending: ending.id });
    if (!met.endings.has(ending.id)) found.push(`ending-unreached ${at}`);
    if (met.untold.has(ending.id)) found.push(`no-message ${at}`);
  }
  return found.sort();
}

function agrees(seed: number): 'compared' | 'too many' | 'stuck' {
  const plan = planFor(randomDocument(seed));
  const met = new Met(plan);
  try {
    allRoutes(plan, 8000, (walk) => met.add(walk));
  } catch (error) {
    if (error instanceof TooMany) return 'too many';
    throw error;
  }
  const snags = routedSnagsOf(plan, analyse(plan));
  witnessesWalk(plan, snags, seed);
  // Walks that cannot be finished are not among those that brute force tells of.
  if (snags.some(({ rule }) => rule === 'stuck')) return 'stuck';
  const found = snags.filter(({ rule }) => DECIDED.includes(rule));
  const questions = plan.sections.some(({ items }) => items.some(({ item }) => item.kind === 'question'));
  const wanted = expected(plan, met).filter((each) => questions || !each.startsWith('ending-unreached'));
  assert.deepEqual(
    found.map(({ rule, at }) => `${rule} ${JSON.stringify(at)}`).sort(),
    wanted,
    `seed ${seed}`,
  );
  return 'compared';
}

/** Every witness walks as it says it does. */
function witnessesWalk(plan: Plan, snags: readonly Snag[], seed: number): void {
  for (const { rule, at, witness } of snags) {
    if (witness === undefined) continue;
    const walk = walked(plan, witness);
    const about = `seed ${seed}, ${rule} at ${JSON.stringify(at)}`;
    const shown = trail(plan, walk).split(' > ')[0];
    if (witness.ending === null) assert.ok(shown?.startsWith(witness.items.join(' ')), about);
    else assert.equal(trail(plan, walk), `${witness.items.join(' ')} > ${witness.ending}`, about);
  }
}

describe('snags and brute force agree', () => {
  it(`on ${SEEDS.words}`, () => {
    const results = SEEDS.all.map(agrees);
    const compared = results.filter((result) => result === 'compared').length;
    assert.ok(compared > SEEDS.count * 0.5, `only ${compared} were small enough to try everything`);
  });
});
