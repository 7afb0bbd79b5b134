/**
 * `npm run bench -- load`: fifty authors who write in studies of their own all at once, and what thousands of saves leave
 * on the disk. Writes docs/performance-load.md.
 */
import { mkdtempSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { format, resolveConfig } from 'prettier';
import { BuiltServer } from '../tests/support/server';
import { markdown } from './timing';

const root = process.cwd();
const study = path.join(root, 'demo', 'tern-valley-home-heating.fork.json');
const CLIENTS = 50;
const SECONDS = 60;
/** In milliseconds: as an open study saves while somebody types on, and looks for what others saved. */
const SAVE_EVERY = 2000;
const LOOK_EVERY = 4000;
const OPEN_EVERY = 15_000;
const SAVES = 5000;

interface Times {
  readonly what: string;
  readonly ms: number[];
}

export async function measureLoad(): Promise<void> {
  const document = JSON.parse(readFileSync(study, 'utf8')) as { title: string };
  const folder = mkdtempSync(path.join(tmpdir(), 'jolly-fork-load-'));
  const server = new BuiltServer(folder);
  await server.start();
  const saves: Times = { what: 'a save of one edit', ms: [] };
  const looks: Times = { what: 'a look for newer versions', ms: [] };
  const opens: Times = { what: 'a study read as a whole', ms: [] };
  const lists: Times = { what: 'the list of 50 studies', ms: [] };

  async function timed(times: Times, method: string, route: string, body?: unknown): Promise<unknown> {
    const began = performance.now();
    const reply = await server.call(method, route, body);
    times.ms.push(performance.now() - began);
    if (reply.status !== 200) throw new Error(`${method} ${route} was answered with ${reply.status}`);
    return reply.body;
  }

  async function add(): Promise<string> {
    const reply = await server.call('POST', '/api/studies', { document });
    return `/api/studies/${(reply.body as { id: string }).id}`;
  }

  /** One edit: the title, as an operation on the revision before. */
  const edit = (before: string, after: string, revision: number) => ({
    revision,
    operations: [{ do: 'set', part: 'study', field: 'title', before, after }],
  });

  async function client(n: number): Promise<void> {
    const api = await add();
    let [title, revision] = [document.title, 1];
    const until = performance.now() + SECONDS * 1000;
    const every = async (pauseMs: number, work: () => Promise<void>) => {
      await pause((n / CLIENTS) * pauseMs);
      while (performance.now() < until) {
        const began = performance.now();
        await work();
        await pause(Math.max(0, pauseMs - (performance.now() - began)));
      }
    };
    await Promise.all([
      every(SAVE_EVERY, async () => {
        const next = `Title ${revision} of ${n}`;
        await timed(saves, 'PATCH', api, edit(title, next, revision));
        [title, revision] = [next, revision + 1];
      }),
      every(LOOK_EVERY, async () => void (await timed(looks, 'GET', `${api}?after=${revision}`))),
      every(OPEN_EVERY, async () => {
        await timed(opens, 'GET', api);
        await timed(lists, 'GET', '/api/studies');
      }),
    ]);
  }

  await Promise.all(Array.from({ length: CLIENTS }, (_, n) => client(n)));

  // One after the other, as fast as they are answered.
  const alone: Times = { what: 'a save, alone', ms: [] };
  const size = () =>
    readdirSync(folder).reduce((sum, name) => sum + statSync(path.join(folder, name)).size, 0) / 1e6;
  const before = size();
  const api = await add();
  let [title, revision] = [document.title, 1];
  for (let n = 0; n < SAVES; n += 1) {
    await timed(alone, 'PATCH', api, edit(title, `Title ${n}`, revision));
    [title, revision] = [`Title ${n}`, revision + 1];
  }
  const after = size();
  await server.end('SIGTERM');

  const row = ({ what, ms }: Times) => {
    const sorted = [...ms].sort((a, b) => a - b);
    const at = (share: number) => (sorted[Math.floor(share * (sorted.length - 1))] ?? 0).toFixed(1);
    return [what, sorted.length.toLocaleString('en'), at(0.5), at(0.95), at(0.99), at(1)];
  };
  const text = `# Many at once

Written by \`npm run bench -- load\` on ${new Date().toISOString().slice(0, 10)}: Node ${process.versions.node}, ${availableParallelism()} cores, shared with others and with the ${CLIENTS}
clients. Each client has a copy of the Tern Valley demo (55 items) and saves an edit every ${SAVE_EVERY / 1000} s, looks for newer
versions every ${LOOK_EVERY / 1000} s and reads it and the list every ${OPEN_EVERY / 1000} s, for ${SECONDS} s. Milliseconds until the answer has come.

${markdown(['what', 'times', 'median', '95 of 100', '99 of 100', 'longest'], [saves, looks, opens, lists, alone].map(row))}

${SAVES.toLocaleString('en')} saves of one study, one after the other, left the data folder at ${after.toFixed(1)} MB (${before.toFixed(1)} MB before).
`;
  const page = path.join(root, 'docs', 'performance-load.md');
  writeFileSync(page, await format(text, { ...(await resolveConfig(page)), parser: 'markdown' }));
  console.log(text);
}
