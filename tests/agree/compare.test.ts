/**
 * Two versions held against each other, against walking every respondent through both: routes lost, gained and changed,
 * and the share of the sample that is shown anything else.
 */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { readDocument } from '../../src/core/document/read';
import type { Questionnaire } from '../../src/core/document/types';
import { applyChange } from '../../src/core/editing/change';
import { answeredAs, renamedTo } from '../../src/core/release/aligned';
import { bothSides } from '../../src/core/release/both-sides';
import { compareVersions } from '../../src/core/release/compare';
import { DIFFERING, differingRoutes } from '../../src/core/release/differing-routes';
import { matchItems } from '../../src/core/release/matching';
import { shownOf } from '../../src/core/release/shown';
import { versionsOf } from '../../src/core/release/versions';
import type { Plan } from '../../src/core/routing/plan';
import { planOf } from '../../src/core/routing/planner';
import { walk, type WalkInput } from '../../src/core/routing/walk';
import { repeatedCodes } from '../../src/core/snags/repeated-codes';
import { allRoutes, TooMany, type PlainRoute } from './brute-force';
import { everyRespondent, withAssumptions } from './chances';
import { anyChange, intOf, retouch } from './changes';
import { randomChain, randomDocument } from './documents';
import { seedsToTry } from './seeds';

const SEEDS = seedsToTry([20053, 20259], 40);
/** Of each list, so many are led through both versions: each is walked twice. */
const MOST_LED = 6;
/** And so many are looked at. */
const MOST_LISTED = 40;

/** A version made of another by one to three edits of the kind that authors make. */
function editedOf(document: Questionnaire, seed: number): Questionnaire {
  const int = intOf(seed + 5000);
  let now = document;
  for (let edits = int(1, 3); edits > 0; edits -= 1) {
    const change =
      int(0, 1) === 0 ? anyChange(now, int) : { label: '', apply: (draft: never) => retouch(draft, int) };
    const next = change === null ? now : applyChange(now, change as never).document;
    // Answers are told apart by their codes.
    if (readDocument(next).ok && repeatedCodes(next).length === 0) now = next;
  }
  return now;
}

const told = ({ items, ending }: PlainRoute) => `${items.join(' ')} > ${ending}`;

function shownOn(plan: Plan, { items, ending }: PlainRoute): string {
  const marks = shownOf(plan);
  const of = items.map((key) => {
    const [name = '', pass] = key.split('#');
    return marks.item(name, pass === undefined ? null : Number(pass));
  });
  return [...of, marks.ending(ending)].join('\n');
}

/** Null where there are too many routes to list. */
function listed(plan: Plan): PlainRoute[] | null {
  try {
    return allRoutes(plan, 4000);
  } catch (error) {
    if (error instanceof TooMany) return null;
    throw error;
  }
}

function routesAgree(old: Questionnaire, now: Questionnaire, about: string): boolean {
  const before = planOf(renamedTo(old, now, matchItems(old, now)));
  const after = planOf(now);
  const [first, second] = [listed(before), listed(after)];
  if (first === null || second === null) return false;
  const { routes } = compareVersions(old, now);
  const was = new Map(first.map((route) => [told(route), shownOn(before, route)]));
  const is = new Map(second.map((route) => [told(route), shownOn(after, route)]));
  const common = [...is].filter(([words]) => was.has(words));
  assert.deepEqual(
    [routes.old, routes.now, routes.lost, routes.gained, routes.changed].map(Number),
    [
      first.length,
      second.length,
      first.length - common.length,
      second.length - common.length,
      common.filter(([words, shown]) => was.get(words) !== shown).length,
    ],
    about,
  );
  // Each list is gone through in its order, and somebody who takes the route is led along it.
  const versions = versionsOf(old, now);
  const lists = differingRoutes(versions);
  const expected = {
    lost: [...was.keys()].filter((words) => !is.has(words)),
    gained: [...is.keys()].filter((words) => !was.has(words)),
    changed: common.filter(([words, shown]) => was.get(words) !== shown).map(([words]) => words),
  };
  for (const which of DIFFERING) {
    const own = which === 'lost' ? versions.first : versions.second;
    const side = which === 'lost' ? 'old' : 'now';
    const some = expected[which].slice(0, MOST_LISTED);
    const found = some.map((_, n) => {
      const number = lists[which]?.numberOf(BigInt(n + 1)) ?? 0n;
      const outline = own.outline(number);
      const sides = n < MOST_LED ? bothSides(versions, lists, which, BigInt(n + 1)) : null;
      // Somebody is found for nearly every route; who is takes it on its own side, whatever becomes of them on the other.
      if (sides !== null) {
        assert.equal(sides[side].number, number, `${about}: ${which} ${n + 1}`);
        const keys = sides.rows.flatMap((row) => row[side]?.key ?? []);
        assert.deepEqual(keys, outline?.items, `${about}: ${which} ${n + 1}`);
      }
      return outline === null ? '' : told(outline);
    });
    assert.deepEqual(found, some, `${about}: ${which}`);
    const { length } = expected[which];
    assert.equal(lists[which]?.total, BigInt(length));
    assert.equal(lists[which]?.numberOf(BigInt(length + 1)), null);
  }
  return true;
}

/** Whether the respondents of the new version could be weighed one by one. */
function sharesAgree(old: Questionnaire, now: Questionnaire, about: string): boolean {
  const matching = matchItems(old, now);
  const renamed = renamedTo(old, now, matching);
  const [before, after] = [planOf(answeredAs(renamed, now)), planOf(now)];
  const [shown, shownNow] = [shownOf(planOf(renamed)), shownOf(after)];
  const { share } = compareVersions(old, now).routes;
  if (share === null) return false;
  let differing = 0;
  let isSure = true;
  const isWhole = everyRespondent(after, (done, input, chance) => {
    const ending = after.endings[done.ending ?? -1]?.ending.id ?? '';
    const names = done.steps.map(({ planItem }) => planItem.item.name);
    const isOther =
      names.some(
        (name) => shown.item(name, null) !== shownNow.item(name, null) || matching.moved.includes(name),
      ) || shown.ending(ending) !== shownNow.ending(ending);
    const earlier = walk(before, drawnAs(before, input));
    if (!earlier.ok) isSure = false;
    else {
      const at = earlier.walk.ending === null ? '' : before.endings[earlier.walk.ending]?.ending.id;
      const keys = (steps: readonly { readonly key: string }[]) => steps.map(({ key }) => key).join(' ');
      if (isOther || at !== ending || keys(earlier.walk.steps) !== keys(done.steps)) differing += chance;
    }
  });
  if (!isWhole || !isSure) return false;
  assert.ok(Math.abs(share - differing) < 1e-9, `${about}: ${share}, expected ${differing}`);
  return true;
}

/** What the other version draws alike; what it draws otherwise, it is not given. */
function drawnAs(plan: Plan, input: WalkInput): WalkInput {
  const ids = new Set(
    plan.sections.flatMap(({ section }) => (section.draw === undefined ? [] : [section.id])),
  );
  const draws = Object.entries(input.draws ?? {}).filter(([key]) => ids.has(key.split('#')[0] ?? ''));
  const names = new Set((plan.document.given ?? []).map(({ name }) => name));
  const given = Object.entries(input.given ?? {}).filter(([name]) => names.has(name));
  return { ...input, draws: Object.fromEntries(draws), given: Object.fromEntries(given) };
}

describe('two versions held against each other, and brute force, agree', () => {
  it(`on routes, ${SEEDS.words}`, () => {
    let compared = 0;
    for (const seed of SEEDS.all)
      for (const make of [randomDocument, randomChain])
        if (routesAgree(make(seed), editedOf(make(seed), seed), `${make.name} ${seed}`)) compared += 1;
    assert.ok(compared > SEEDS.count, `only ${compared} could be compared`);
  });

  it(`on the share of the sample that meets a difference, ${SEEDS.words}`, () => {
    let compared = 0;
    for (const seed of SEEDS.all)
      for (const make of [randomDocument, randomChain]) {
        const old = withAssumptions(make(seed), seed);
        if (sharesAgree(old, editedOf(old, seed), `${make.name} ${seed}`)) compared += 1;
      }
    assert.ok(compared > SEEDS.count, `only ${compared} could be compared`);
  });
});
