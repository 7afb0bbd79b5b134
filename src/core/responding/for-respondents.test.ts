/** What a respondent's page is handed: nothing of the office, and the same walk. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import heating from '../../../demo/tern-valley-home-heating.fork.json';
import type { Questionnaire } from '../document/types';
import { readDocument, writeDocument } from '../document/read';
import { planOf } from '../routing/planner';
import { walk } from '../routing/walk';
import { madeUpRespondents } from '../simulate/respondents';
import { forRespondents } from './for-respondents';

const study = heating as unknown as Questionnaire;
const demo: Questionnaire = {
  ...study,
  settings: { ...study.settings, pace: { words: 200 } },
  quotas: [
    {
      id: 'rent',
      label: 'Renters of the valley',
      if: 'tenure = 2',
      target: 4321,
      at: 'tenure',
      to: { ending: 'declined' },
    },
  ],
};

const SECRETS = ['"assume"', '"prices"', '"pace"', '4321', 'Renters of the valley', '"instruction"'];

it('tells no shares, no prices, no targets and no instructions, and is a questionnaire still', () => {
  const text = writeDocument(forRespondents(demo));
  for (const secret of SECRETS)
    assert.ok(writeDocument(demo).includes(secret) || secret === '"instruction"', secret);
  for (const secret of SECRETS) assert.ok(!text.includes(secret), secret);
  assert.ok(readDocument(JSON.parse(text)).ok);
});

it('keeps what is read out by interviewers', () => {
  const [section] = demo.sections;
  const [first, ...others] = section?.items ?? [];
  assert.ok(section !== undefined && first !== undefined && first.kind !== 'page_break');
  const read: Questionnaire = {
    ...demo,
    settings: { ...demo.settings, mode: 'interviewer' },
    sections: [
      { ...section, items: [{ ...first, instruction: 'Read it slowly.' }, ...others] },
      ...demo.sections.slice(1),
    ],
  };
  assert.ok(writeDocument(forRespondents(read)).includes('Read it slowly.'));
  const itself: Questionnaire = { ...read, settings: { ...read.settings, mode: 'self' } };
  assert.ok(!writeDocument(forRespondents(itself)).includes('Read it slowly.'));
});

it('walks as the whole does, whether a quota is full or not', () => {
  const [whole, handed] = [planOf(demo), planOf(forRespondents(demo))];
  for (const { answers, draws } of madeUpRespondents(whole, 30, 5))
    for (const full of [[], ['rent']]) {
      const [a, b] = [whole, handed].map((plan) =>
        walk(plan, { answers, draws, full, seed: 2, lenient: true }),
      );
      assert.ok(a?.ok && b?.ok);
      assert.deepEqual(
        b.walk.steps.map(({ key }) => key),
        a.walk.steps.map(({ key }) => key),
      );
      assert.equal(b.walk.ending, a.walk.ending);
    }
});
