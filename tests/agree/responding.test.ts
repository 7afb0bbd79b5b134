/**
 * A case answered page by page against the respondent it copies: whatever detours it takes (going back, changing answers and
 * changing them back, closing the tab), its row is that of the respondent who was walked straight through.
 */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import * as v from 'valibot';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import heating from '../../demo/tern-valley-home-heating.fork.json';
import { passKey } from '../../src/core/document/addresses';
import type { Answers, Questionnaire } from '../../src/core/document/types';
import {
  caseAfter,
  caseBegun,
  inputsOf,
  KeptCaseSchema,
  sessionOfCase,
} from '../../src/core/responding/kept-case';
import { followed, sessionOf, type Session } from '../../src/core/responding/session';
import type { Plan } from '../../src/core/routing/plan';
import type { MadeUp } from '../../src/core/simulate/respondents';
import { randomDocument } from './documents';
import { FEATURED } from './featured';
import { seedsToTry } from './seeds';
import { comparedRows } from './straight-through';

const SEEDS = seedsToTry([], 25);
const KEY = '00000000-0000-4000-8000-000000000000';

/** A tab in which a case is answered; closed and opened again at any time. */
class Tab {
  private kept;
  private state;
  private now = 1000;

  constructor(
    private readonly plan: Plan,
    seed: number,
    given: Answers,
  ) {
    this.kept = caseBegun(plan, { key: KEY, id: '1', seed, given }, this.now);
    this.state = sessionOfCase(this.kept);
  }

  get session(): Session {
    const ways = followed(this.plan, { answers: this.kept.answers, inputs: inputsOf(this.kept) });
    return sessionOf(this.plan, this.state, ways, (action) => {
      this.now += 700;
      const after = caseAfter(this.plan, this.kept, this.state, action, this.now);
      this.kept = after.kept;
      this.state = after.session;
    });
  }

  get case() {
    return this.kept;
  }

  reopen(): void {
    this.kept = v.parse(KeptCaseSchema, JSON.parse(JSON.stringify(this.kept)));
    this.state = sessionOfCase(this.kept);
  }

  /** Gives every answer of the page, those of items that only then come up among them. */
  fill(answers: Answers): void {
    for (let times = 0; times < 40; times += 1) {
      const { page, answers: given } = this.session;
      const other = page?.steps
        .flatMap(({ parts, pass, planItem }) =>
          [
            ...parts.map(({ name }) => name),
            ...Object.keys(answers).filter(
              (key) => key.startsWith(`${planItem.item.name}_`) && key.includes('_text'),
            ),
          ].map((name) => (name.includes('#') ? name : passKey(name, pass))),
        )
        .find((key) => JSON.stringify(given[key] ?? null) !== JSON.stringify(answers[key] ?? null));
      if (other === undefined) return;
      this.session.answer(other, answers[other] ?? null);
    }
  }

  /** On to the next page; a soft check is confirmed. */
  next(): boolean {
    const { at } = this.session;
    for (let times = 0; times < 3 && this.session.at === at; times += 1) this.session.next();
    return this.session.at !== at;
  }
}

/** Through the whole questionnaire as `person`, with detours as somebody else now and then. */
function answered(plan: Plan, person: MadeUp, other: Answers, seed: number) {
  const random = xoroshiro128plus(seed);
  const chance = (percent: number) => uniformInt(random, 1, 100) <= percent;
  const tab = new Tab(plan, seed, person.given);
  for (let turns = 0; tab.session.page !== null; turns += 1) {
    assert.ok(turns < 2000, 'comes to an end');
    if (chance(15)) tab.reopen();
    if (turns < 300 && chance(20)) {
      tab.fill(other);
      const went = tab.next();
      if (tab.session.page === null) return null;
      if (went) tab.session.back();
    }
    tab.fill(person.answers);
    if (turns < 300 && chance(15) && tab.session.at > 0) {
      tab.session.back();
      tab.fill(person.answers);
    }
    assert.ok(
      tab.next(),
      `goes on from ${tab.session.page?.key}: ${JSON.stringify(tab.session.faults.map(({ fault }) => fault))}`,
    );
  }
  return tab.case;
}

describe('a case answered with detours', () => {
  it('has the row of whoever was walked straight through, on the demo and every feature', () => {
    const compared = [heating as unknown as Questionnaire, ...FEATURED].map((document, n) =>
      comparedRows(document, `document ${n}`, 12, answered),
    );
    assert.ok(compared.reduce((a, b) => a + b) > 100, String(compared));
  });

  it(`likewise on ${SEEDS.words}`, () => {
    let compared = 0;
    for (const seed of SEEDS.all) compared += comparedRows(randomDocument(seed), `seed ${seed}`, 4, answered);
    assert.ok(compared > SEEDS.count, String(compared));
  });
});
