/** Shares of routes, one after the other: all of them are told, whatever was asked before. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../tests/support/questionnaire';
import { analyse, DEFAULT_CAPS, sharesOf, TooMuch, type Shares } from '../core/analysis';
import { RouteShares } from './route-shares';

const ROUTE = { items: ['a'], ending: 'done' };

/** Shares that tell of so many routes and then have no room left. */
function roomFor(count: number): Shares {
  let left = count;
  const ofRoute = () => {
    if ((left -= 1) < 0) throw new TooMuch('no room');
    return 0.5;
  };
  return { ofRoute } as unknown as Shares;
}

it('are made once, and anew where many were told and there is no room for more', () => {
  let made = 0;
  const shares = new RouteShares(() => {
    made += 1;
    return roomFor(50);
  });
  const told = Array.from({ length: 120 }, () => shares.ofRoute(ROUTE));
  assert.deepEqual([new Set(told), made], [new Set([0.5]), 3]);
});

it('are not known of a route that is too much by itself, and nothing is made anew for it', () => {
  let made = 0;
  const shares = new RouteShares(() => {
    made += 1;
    return roomFor(49);
  });
  const told = Array.from({ length: 60 }, () => shares.ofRoute(ROUTE));
  assert.deepEqual([told.filter((share) => share === null).length, made], [11, 1]);
  assert.equal(new RouteShares(() => null).ofRoute(ROUTE), null);
  const faulty = { ofRoute: () => assert.fail('a fault') } as unknown as Shares;
  assert.throws(() => new RouteShares(() => faulty).ofRoute(ROUTE), /a fault/);
});

it('take as many steps for each question as for the first', () => {
  const must = { required: true };
  const plan = planFor(
    questionnaire([
      section('a', [
        ask('own', 3, must),
        ...Array.from({ length: 12 }, (_, n) => ask(`q${n}`, 2, { ...must, askIf: `own = ${1 + (n % 3)}` })),
      ]),
    ]),
  );
  const found = sharesOf(plan, { ...DEFAULT_CAPS, steps: 20_000 });
  const outline = analyse(plan).outline(1n);
  assert.ok(found !== null && outline !== null);
  const first = found.ofRoute(outline);
  assert.ok(first > 0);
  for (let n = 0; n < 5000; n += 1) assert.equal(found.ofRoute(outline), first);
  assert.deepEqual(found.likeliest(1).routes.length, 1);
  for (let n = 0; n < 200; n += 1) found.transitions();
});
