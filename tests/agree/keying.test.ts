/** Forms keyed field by field along the route come out as the rows of the respondents who filled them in. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import heating from '../../demo/tern-valley-home-heating.fork.json';
import { codedCells } from '../../src/core/coding/row';
import type { Questionnaire, Value } from '../../src/core/document/types';
import { readTyped, typedText } from '../../src/core/keying/typed';
import { Keying } from '../../src/core/keying/sheet';
import type { Plan } from '../../src/core/routing/plan';
import { isBlank } from '../../src/core/routing/answers';
import { walk } from '../../src/core/routing/walk';
import { madeUpRespondents } from '../../src/core/simulate/respondents';
import { planFor } from '../support/questionnaire';
import { randomChain, randomDocument } from './documents';
import { seedsToTry } from './seeds';

const SEEDS = seedsToTry([20649], 80);

function judge(plan: Plan, about: string, count: number): number {
  const keying = new Keying(plan);
  let keyed = 0;
  for (const { answers, given, draws, ending } of madeUpRespondents(plan, count, 3)) {
    if (ending === null) continue;
    const done = walk(plan, { answers, given, draws });
    assert.ok(done.ok);
    // Quotas that were full do not stand on a form; a blank in a draw does not show that it was drawn.
    if (done.walk.ending !== ending) continue;
    const blankInDraw = done.walk.steps.some(
      ({ planItem, parts, pass }) =>
        plan.sections[planItem.section]?.section.draw !== undefined &&
        parts.length > 0 &&
        parts.every(({ name }) => isBlank(answers[pass === null ? name : `${name}#${pass}`])),
    );
    const hidden = done.walk.passedOver.some(
      ({ section, why }) =>
        why.because === 'nothing-shown' && plan.sections[section]?.section.draw !== undefined,
    );
    if (blankInDraw || hidden) continue;
    const onForm: Readonly<Record<string, Value | null | undefined>> = { ...given, ...answers };
    const typed: Record<string, Value | null> = {};
    for (let after: string | null = null; ; keyed += 1) {
      const sheet = keying.sheet(typed);
      const field = keying.nextOpen(typed, sheet, after);
      if (field === null) break;
      const state = sheet.states[keying.fields.indexOf(field)];
      assert.ok(state?.is === 'asked');
      const read = readTyped(field, typedText(onForm[field.key]), state.shown ?? undefined);
      assert.ok(read.ok, `${about}: ${field.key} “${typedText(onForm[field.key])}”`);
      typed[field.key] = read.value;
      after = field.key;
    }
    const { row } = keying.coded(typed);
    const cells = codedCells(plan, done.walk, answers);
    assert.deepEqual(
      row.map(String),
      cells.map(({ value }) => String(value)),
      `${about}: ${JSON.stringify(onForm)}`,
    );
    assert.deepEqual(keying.flagged(typed, keying.sheet(typed)), [], about);
  }
  return keyed;
}

it('on the heating study', () => {
  assert.ok(judge(planFor(heating as unknown as Questionnaire), 'heating', 40) > 500);
});

it(`on ${SEEDS.words}`, () => {
  for (const seed of SEEDS.all) {
    judge(planFor(randomDocument(seed)), `document ${seed}`, 4);
    judge(planFor(randomChain(seed)), `chain ${seed}`, 4);
  }
});
