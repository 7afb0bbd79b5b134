/**
 * `npm run bench -- panel`: a made-up panel of 5,000 members goes through the Tern Valley demo, through the same doors as people.
 * Writes docs/performance-panel.md.
 */
import assert from 'node:assert/strict';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { format, resolveConfig } from 'prettier';
import * as v from 'valibot';
import { panelEnds, usualPanel } from '../src/core/panel/panel-settings';
import { PanelSchema } from '../src/wire/panels';
import { BuiltServer } from '../tests/support/server';
import { markdown } from './timing';

const MEMBERS = 5000;
/** Monday, 30 November 2026. */
const MONDAY = Date.UTC(2026, 10, 30);

interface Data {
  readonly begun: number;
  readonly declined: number;
  readonly responses: readonly { readonly ending: string | null; readonly pages: readonly unknown[] }[];
}

/** Milliseconds until the figures come, and that another request waits at most in the meantime. */
async function watch(server: BuiltServer, link: string) {
  const began = performance.now();
  const reply = await fetch(server.address(`${link}/monitor?zone=UTC`));
  assert.ok(reply.body);
  const told = reply.body.pipeThrough(new TextDecoderStream()).getReader();
  let [isTold, waited] = [false, 0];
  const others = (async () => {
    while (!isTold) {
      const asked = performance.now();
      await server.call('GET', '/api/studies');
      waited = Math.max(waited, performance.now() - asked);
    }
  })();
  let said = '';
  while (!/"figures":\{.*\n\n$/s.test(said)) {
    const { value = '' } = await told.read();
    said = said.endsWith('\n\n') ? value : said + value;
  }
  const first = performance.now() - began;
  isTold = true;
  await others;
  await told.cancel();
  const pressed = performance.now();
  const picked = JSON.stringify({ of: 'outcome', is: ['broken_off'] });
  const behind = await server.call(
    'GET',
    `${link}/responses?${new URLSearchParams({ zone: 'UTC', picked }).toString()}`,
  );
  assert.equal(behind.status, 200);
  return { first, waited, pressed: performance.now() - pressed, bytes: said.length };
}

export async function measurePanel(): Promise<void> {
  const server = new BuiltServer(mkdtempSync(path.join(tmpdir(), 'jolly-fork-panel-')));
  await server.start();
  await server.call('POST', '/api/demo', {});
  const studies = (await server.call('GET', '/api/studies')).body as { id: string; title: string }[];
  const study = studies.find(({ title }) => title.includes('Home Heating'))?.id ?? studies[0]?.id;
  const settings = usualPanel(MONDAY, 7);
  const made = await server.call('POST', `/api/studies/${study}/panels`, {
    ...{ name: 'Panel', version: null, sample: { count: MEMBERS }, settings },
  });
  assert.equal(made.status, 201, JSON.stringify(made.body));
  const { token } = made.body as { token: string };
  const panel = `/api/studies/${study}/trials/${token}/panel`;
  const began = performance.now();
  await server.call('PATCH', panel, { do: 'run', until: panelEnds(settings), speed: null });
  const look = async () => {
    const { status, body } = await server.call('GET', panel);
    return status === 200 ? v.parse(PanelSchema, body) : null;
  };
  let card = await look();
  while (card === null || card.isRunning) {
    await pause(1000);
    card = await look();
  }
  const seconds = (performance.now() - began) / 1000;
  assert.equal(card.problem, null);
  const data = (await server.call('GET', `/api/studies/${study}/trials/${token}/data?as=json`)).body as Data;
  const watched = await watch(server, `/api/studies/${study}/trials/${token}`);
  await server.end('SIGTERM');
  const pages = data.responses.reduce((sum, each) => sum + each.pages.length, 0);
  const ended = data.responses.filter(({ ending }) => ending !== null).length;
  const letters = card.piles.reduce((sum, { count }) => sum + count, 0);
  const text = `# A made-up panel

Written by \`npm run bench -- panel\` on ${new Date().toISOString().slice(0, 10)}: Node ${process.versions.node}, ${availableParallelism()} cores, shared with others. The members go
through the Tern Valley demo as fast as it goes, over HTTP through the doors of respondents, as usually settled; the panel is in
the field for ${settings.days} days of its own clock.

${markdown(
  [
    'members',
    'letters',
    'begun',
    'declined',
    'came to an ending',
    'pages answered',
    'seconds',
    'pages a second',
  ],
  [
    [
      ...[MEMBERS, letters, data.begun, data.declined, ended, pages].map((n) => n.toLocaleString('en')),
      ...[seconds.toFixed(0), (pages / seconds).toFixed(0)],
    ],
  ],
)}

Then somebody opens its [monitor](monitor.md): every response is read for the first time. Whoever asks something else meanwhile waits at most
as long as is said; a figure that is pressed is answered from what has been read.

${markdown(
  ['responses', 'figures after, s', 'others wait at most, ms', 'a figure pressed, ms', 'figures, kB'],
  [
    [
      data.responses.length.toLocaleString('en'),
      ...[watched.first / 1000, watched.waited, watched.pressed, watched.bytes / 1000].map((n, at) =>
        n.toFixed(at === 0 ? 1 : 0),
      ),
    ],
  ],
)}
`;
  const page = path.join(process.cwd(), 'docs', 'performance-panel.md');
  writeFileSync(page, await format(text, { ...(await resolveConfig(page)), parser: 'markdown' }));
  console.log(text);
}
