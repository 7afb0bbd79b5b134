/** Settings of a link as they are typed: read as they were shown, and refused in a sentence. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { USUAL_TRIAL, type TrialSettings } from '../../../core/responding/trial-settings';
import { readSettings, settingsText, settingsWords } from './settings-text';

const FULL: TrialSettings = {
  ...USUAL_TRIAL,
  opensAt: new Date(2026, 10, 2, 9, 0).getTime(),
  closesAt: new Date(2026, 10, 30, 18, 30).getTime(),
  mostResponses: 1500,
  toldApart: 'browser',
  attempts: 2,
  minutes: 40,
  mayGoBack: false,
  mayReturn: false,
  humanCheck: true,
  language: 'cy',
  closing: 'Until soon.',
  whenClosed: 'It is over.',
  stopped: 'remove',
  stoppedAfter: 48,
  embeddedIn: 'https://example.org',
  signed: false,
};

it('reads the settings that it wrote', () => {
  for (const settings of [USUAL_TRIAL, FULL])
    assert.deepEqual(readSettings(settingsText(settings)), { ok: true, settings });
});

it('takes numbers and addresses as people write them, and says what is wrong with the others', () => {
  const usual = settingsText();
  const read = (change: Partial<typeof usual>) => readSettings({ ...usual, ...change });
  const taken = read({
    mostResponses: ' 1,500 ',
    embeddedIn: ' https://Example.org/a/page?x ',
    closing: '  ',
  });
  assert.deepEqual(taken, {
    ok: true,
    settings: { ...USUAL_TRIAL, mostResponses: 1500, embeddedIn: 'https://example.org' },
  });
  for (const [change, words] of [
    [{ mostResponses: 'many' }, 'The number of responses is a whole number from 1 to 1,000,000.'],
    [{ minutes: '0' }, 'The time for the whole is from 1 to 1,440 minutes.'],
    [{ opensAt: '2026-11-02T09:00', closesAt: '2026-11-01T09:00' }, 'A link opens before it closes.'],
    [{ language: 'not a tag' }, 'A language is a tag like en-GB or cy.'],
    [{ embeddedIn: 'example.org' }, 'A site is written like https://example.org.'],
  ] as const)
    assert.deepEqual(read(change), { ok: false, problem: words });
});

it('says in a few words what is other than usual', () => {
  assert.deepEqual(settingsWords(USUAL_TRIAL), []);
  assert.deepEqual(settingsWords(FULL), [
    'told apart by browser',
    'each at most 2 times',
    'opens 2 Nov 2026, 09:00',
    'closes 30 Nov 2026, 18:30',
    'at most 1,500 responses',
    '40 min for the whole',
    'no way back',
    'no return from another browser',
    'human check',
    'language cy',
    'who stops is removed after 48 h',
    'inside https://example.org',
  ]);
  assert.deepEqual(settingsWords({ ...USUAL_TRIAL, toldApart: 'personal', attempts: 1, humanCheck: false }), [
    'by links of their own',
    'each once',
    'no human check',
  ]);
});
