/** The thread in which a made-up panel lives: its members ask the doors of this server over HTTP, as pages do. Bundled by itself. */
import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import { parentPort, workerData } from 'node:worker_threads';
import * as v from 'valibot';
import { CLOCK_HEADER } from '../../server/inner.mjs';
import { readDocumentText } from '../core/document/read';
import type { Plan } from '../core/routing/plan';
import { planOf } from '../core/routing/planner';
import { PanelStartSchema, ToPanelSchema, type FromPanel, type ToPanel } from './panel-messages';
import { PanelRun, type PanelMeans } from './panel-run';

/** The clock is told as often as somebody can see it move, in milliseconds. */
const EVERY = 100;

const start = v.parse(PanelStartSchema, workerData);
const tell = (told: FromPanel) => parentPort?.postMessage(told);

let posted: ((to: Extract<ToPanel, { is: 'posted' }>['to']) => void) | null = null;
let toldAt = 0;
let clock = start.clock;

/** As a page does, a member asks again where no answer comes: what is sent twice counts once. */
const TRIES = 5;

const ask: PanelMeans['ask'] = async (door, body, at) => {
  for (let tried = 1; ; tried += 1) {
    try {
      const response = await fetch(`${start.address}/api/answer/${start.link}/${door}`, {
        method: 'POST',
        headers: {
          'Content-Type': 'application/json',
          'X-Jolly-Fork-Token': start.programToken,
          [CLOCK_HEADER]: String(at),
        },
        body: JSON.stringify(body),
      });
      return { status: response.status, body: (await response.json()) as unknown };
    } catch (error) {
      if (tried === TRIES) throw error;
      await pause(tried * 200);
    }
  }
};

function planOfText(text: string): Plan {
  const read = readDocumentText(text);
  if (!read.ok) throw new Error('the questionnaire of the link cannot be read');
  return planOf(read.document);
}

const { documents, ...panel } = start;
const run = new PanelRun(
  { ...panel, plans: documents.map(planOfText) },
  {
    ask,
    post: (at) =>
      new Promise((resolve) => {
        posted = resolve;
        tell({ is: 'post', at });
      }),
    newId: randomUUID,
    now: () => performance.now(),
    wait: (milliseconds) => pause(milliseconds),
    told(at) {
      clock = at;
      if (performance.now() - toldAt < EVERY) return;
      toldAt = performance.now();
      tell({ is: 'clock', at });
    },
  },
);

parentPort?.on('message', (message: unknown) => {
  const asked = v.parse(ToPanelSchema, message);
  switch (asked.is) {
    case 'run':
      run
        .run(asked)
        .then(() => tell({ is: 'rests', at: run.clock, problem: null }))
        .catch((error: unknown) => tell({ is: 'rests', at: clock, problem: String(error) }));
      return;
    case 'pause':
      run.pause();
      return;
    case 'posted':
      posted?.(asked.to);
      posted = null;
      return;
    default:
      asked satisfies never;
  }
});
