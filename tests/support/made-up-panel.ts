/** A made-up panel through the doors of respondents, run in the process of a test with the database in memory. */
import assert from 'node:assert/strict';
import { randomUUID } from 'node:crypto';
import { CLOCK_HEADER, PROGRAM_HEADER } from '../../server/inner.mjs';
import type { Questionnaire } from '../../src/core/document/types';
import { usualPanel, type PanelSettings } from '../../src/core/panel/panel-settings';
import type { Plan } from '../../src/core/routing/plan';
import { planOf } from '../../src/core/routing/planner';
import { PanelRun, type PanelMeans } from '../../src/server/panel-run';
import { askStudy } from './doors';
import { ask as question, questionnaire, say, section } from './questionnaire';

process.env.JOLLY_FORK_DATA = ':memory:';
const { store } = await import('../../src/store/open');
const { panelStart, postLetters } = await import('../../src/server/panels');
const { addStudy } = await import('../../src/store/studies');
const { moveClock } = await import('../../src/store/panels');
const { findTrial } = await import('../../src/store/trials');

export const MONDAY = Date.UTC(2026, 10, 30);
const YES_NO = {
  type: 'single' as const,
  options: [
    { code: 1, label: 'Yes' },
    { code: 2, label: 'No' },
  ],
};

/** Consent, a screening, a grid, an open question, a check that refuses some answers, a limit of time, and a follow-up. */
export const STUDY: Questionnaire = questionnaire(
  [
    section(
      'agree',
      [say('hello'), question('consent', YES_NO, { required: true, assume: { shares: { 1: 0.9, 2: 0.1 } } })],
      {
        kind: 'consent',
        items: [
          say('hello'),
          question('consent', YES_NO, {
            required: true,
            assume: { shares: { 1: 0.9, 2: 0.1 } },
            skips: [{ if: 'consent = 2', to: { ending: 'no' } }],
          }),
        ],
      },
    ),
    section('screen', [question('owner', YES_NO, { skips: [{ if: 'owner = 2', to: { ending: 'out' } }] })], {
      kind: 'screening',
    }),
    section('views', [
      question('views', {
        type: 'grid',
        pick: 'one',
        rows: ['heat', 'cost', 'noise'].map((name) => ({ name, label: name })),
        options: [1, 2, 3, 4].map((code) => ({ code, label: `Level ${code}` })),
      }),
      question('words', { type: 'text', lines: 'many' }),
    ]),
    section(
      'figures',
      [
        question('rooms', { type: 'number', min: 1, max: 9 }, { required: true }),
        question(
          'beds',
          { type: 'number', min: 1, max: 9 },
          {
            checks: [{ if: 'beds > rooms', kind: 'hard', message: 'More beds than rooms?' }],
          },
        ),
        question('last', YES_NO),
      ],
      { timeLimit: 20 },
    ),
  ],
  {
    given: [
      {
        name: 'region',
        label: 'Region',
        answer: {
          type: 'single',
          options: [
            { code: 1, label: 'North' },
            { code: 2, label: 'South' },
          ],
        },
      },
    ],
    endings: [
      { id: 'done', kind: 'complete', messages: [{ text: 'Thank you.' }] },
      { id: 'out', kind: 'screened_out', messages: [{ text: 'Goodbye.' }] },
      { id: 'no', kind: 'declined', messages: [{ text: 'Thank you.' }] },
    ],
  },
);

export const settings = (more: Partial<PanelSettings['behaviour']> = {}): PanelSettings => {
  const usual = usualPanel(MONDAY, 7);
  return { ...usual, behaviour: { ...usual.behaviour, invitation: 50, breakOff: 40, ...more } };
};

export async function panelOf(document: Questionnaire, of: PanelSettings, count = 60) {
  const { id } = addStudy(store(), document, 0);
  const body = { name: 'Panel', version: null, sample: { count }, settings: of };
  const made = await askStudy(id, 'panels/index', 'POST', { body });
  const card = (await made.json()) as { token: string; problem?: string };
  assert.equal(made.status, 201, card.problem);
  return { id, token: card.token };
}

export const doors =
  (token: string, lost: () => boolean): PanelMeans['ask'] =>
  async (door, body, at) => {
    if (lost()) throw new Error('no answer');
    const { ALL } = (await import('../../src/pages/api/answer/[token]/[door]')) as {
      ALL: (context: unknown) => Promise<Response>;
    };
    const request = new Request('http://127.0.0.1/', {
      method: 'POST',
      body: JSON.stringify(body),
      headers: { [PROGRAM_HEADER]: 'yes', [CLOCK_HEADER]: String(at) },
    });
    const response = await ALL({ params: { token, door }, request });
    return { status: response.status, body: await response.json() };
  };

/** As a thread begins after a break: from what is stored. */
export function opened(token: string, lost = () => false): PanelRun {
  const trial = findTrial(store(), token);
  assert.ok(trial);
  const { documents, ...start } = panelStart(store(), trial);
  const plans = documents.map((text): Plan => planOf(JSON.parse(text) as Questionnaire));
  return new PanelRun(
    { ...start, plans },
    {
      ask: doors(token, lost),
      post: (at) => Promise.resolve(postLetters(store(), trial, at)),
      newId: randomUUID,
      now: () => performance.now(),
      wait: () => new Promise((resolve) => setTimeout(resolve, 1)),
      told: (clock) => moveClock(store(), token, clock),
    },
  );
}
