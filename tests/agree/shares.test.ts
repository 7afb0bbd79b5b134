/**
 * Expected shares against adding up the chances of every single respondent, on random small questionnaires with random
 * assumptions.
 */
import assert from 'node:assert/strict';
import { describe } from 'node:test';
import { itemSharesOf, sharesOf } from '../../src/core/analysis';
import type { Questionnaire } from '../../src/core/document/types';
import { planFor } from '../support/questionnaire';
import { agreesOnMany, everyRespondent } from './chances';
import { seedsToTry } from './seeds';

/** With the seeds that once failed. */
const SEEDS = seedsToTry([], 200);
const MANY = seedsToTry([9003], 10);

function agrees(document: Questionnaire, seed: number): boolean {
  const plan = planFor(document);
  const items = new Map<string, number>();
  const endings = new Map<string, number>();
  const routes = new Map<string, { route: { items: string[]; ending: string }; share: number }>();
  const transitions = new Map<string, number>();
  const add = (to: Map<string, number>, key: string, more: number) => to.set(key, (to.get(key) ?? 0) + more);
  const isWhole = everyRespondent(plan, (done, _, share) => {
    const ending = plan.endings[done.ending ?? 0]?.ending.id ?? '';
    add(endings, ending, share);
    for (const name of new Set(done.steps.map(({ planItem }) => planItem.item.name))) add(items, name, share);
    const keys = done.steps.map(({ key }) => key);
    const names = [null, ...done.steps.map(({ planItem }) => planItem.item.name), `> ${ending}`];
    names.slice(1).forEach((name, n) => add(transitions, `${names[n]} ${name}`, share));
    const known = routes.get(`${keys.join(' ')} > ${ending}`);
    if (known === undefined)
      routes.set(`${keys.join(' ')} > ${ending}`, { route: { items: keys, ending }, share });
    else known.share += share;
  });
  if (!isWhole) return false;
  const shares = sharesOf(plan);
  assert.ok(shares !== null, `seed ${seed}`);
  const near = (found: number, expected: number, what: string) =>
    assert.ok(Math.abs(found - expected) < 1e-9, `seed ${seed}, ${what}: ${found}, expected ${expected}`);
  for (const [name, { share }] of shares.items) near(share, items.get(name) ?? 0, name);
  // Asked for alone, items have the same shares.
  const some = new Set([...shares.items.keys()].filter((_, n) => n % 2 === seed % 2));
  for (const [name, alone] of itemSharesOf(plan, some) ?? []) {
    assert.ok(some.delete(name), `seed ${seed}, ${name}`);
    assert.deepEqual(alone, shares.items.get(name), `seed ${seed}, ${name}`);
  }
  assert.deepEqual([...some], [], `seed ${seed}`);
  for (const { id, share } of shares.endings) near(share, endings.get(id) ?? 0, `> ${id}`);
  for (const [words, { route, share }] of routes) near(shares.ofRoute(route), share, words);
  const found = new Map<string, number>();
  for (const { from, to, share } of shares.transitions())
    add(found, `${from} ${'item' in to ? to.item : `> ${to.ending}`}`, share ?? -1);
  for (const key of new Set([...found.keys(), ...transitions.keys()]))
    near(found.get(key) ?? 0, transitions.get(key) ?? 0, `from ${key}`);
  const byShare = [...routes.values()].map(({ share }) => share).sort((a, b) => b - a);
  const { routes: likeliest, othersAtMost } = shares.likeliest(5);
  likeliest.forEach(({ items: shown, ending, share }, n) => {
    const words = `${shown.join(' ')} > ${ending}`;
    near(routes.get(words)?.share ?? 0, share, `likely route ${words}`);
    near(share, byShare[n] ?? 0, `${n} likelier routes`);
  });
  const next = byShare[likeliest.length] ?? 0;
  assert.ok(othersAtMost > next - 1e-9, `seed ${seed}, all others: ${othersAtMost}, but one has ${next}`);
  assert.ok(othersAtMost < (likeliest.at(-1)?.share ?? 1) + 1e-9, `seed ${seed}: more than the last told`);
  return true;
}

describe('expected shares and brute force agree', () => {
  agreesOnMany(agrees, { usual: SEEDS, ofMany: MANY });
});
