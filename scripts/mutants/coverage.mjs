/** Which tests call which functions, and how long each test file takes: found by running all of them once, and kept. */
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  closeSync,
  existsSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  writeFileSync,
} from 'node:fs';
import { availableParallelism } from 'node:os';
import path from 'node:path';
import { bundled, testFiles } from '../bundle-tests.mjs';
import { root } from '../setup.mjs';
import { watched } from './faults.mjs';

const FOLDER = path.join(root, 'node_modules', '.mutants');
const KEPT = path.join(FOLDER, 'coverage.json');

/**
 * How many random questionnaires a comparison tries, the first that it passes with: a twentieth of what it tries otherwise,
 * or all, as some want to have met something often. So most are over within seconds, and a fault meets every comparison
 * instead of the first few; what one finds with these it finds with more.
 */
const COUNTS = [{ FUZZ_COUNT: '20' }, {}];

/** Runs before a test: keeps what was met when the process ends. */
const HOOK = `import { writeFileSync } from 'node:fs';
globalThis.__met = new Set();
process.on('exit', () => writeFileSync(process.env.MET, JSON.stringify([...globalThis.__met])));`;

/**
 * By `FILE:BEGIN` of a function, the test files that call it, the quickest first.
 *
 * @returns {Promise<Map<string, { file: string, seconds: number, env: Record<string, string> }[]>>} `env`: to run it with
 */
export async function coverage() {
  const mark = sourcesMark();
  const kept = existsSync(KEPT) ? JSON.parse(readFileSync(KEPT, 'utf8')) : null;
  const runs = kept?.mark === mark ? kept.runs : await allRuns();
  writeFileSync(KEPT, JSON.stringify({ mark, runs }));
  const by = new Map();
  for (const { file, seconds, env, met } of runs.toSorted((a, b) => a.seconds - b.seconds))
    for (const place of met) by.set(place, [...(by.get(place) ?? []), { file, seconds, env }]);
  return by;
}

async function allRuns() {
  const files = testFiles();
  console.log(`Finding out which of ${files.length} test files call what …`);
  const bundles = await bundled(files, '.mutants/watched', {
    change: (file, text) =>
      file.startsWith('src/') && !file.endsWith('.test.ts') ? watched(file, text) : text,
  });
  mkdirSync(FOLDER, { recursive: true });
  const hook = path.join(FOLDER, 'hook.mjs');
  writeFileSync(hook, HOOK);
  return allOf(files, availableParallelism(), async (file, n) => {
    const out = path.join(FOLDER, `met-${n}.json`);
    const log = path.join(FOLDER, `said-${n}.log`);
    for (const env of COUNTS) {
      const begun = Date.now();
      if (!(await runTest(bundles[n], { hook, env: { ...env, MET: out }, log }))) continue;
      return { file, seconds: (Date.now() - begun) / 1000, env, met: JSON.parse(readFileSync(out, 'utf8')) };
    }
    throw new Error(`${file} fails as it is: mend it first. It says so in ${log}.`);
  });
}

/** Whether a bundle's tests pass; what takes longer than `seconds` has failed. What they say goes to the file `log`. */
export function runTest(bundle, { hook = null, env = {}, seconds = 600, log = null } = {}) {
  return new Promise((done) => {
    const said = log === null ? 'ignore' : openSync(log, 'w');
    const args = ['--enable-source-maps', ...(hook === null ? [] : ['--import', hook]), bundle];
    const child = spawn('node', args, {
      cwd: root,
      env: { ...process.env, ...env },
      stdio: ['ignore', said, said],
      detached: true,
    });
    if (log !== null) closeSync(said);
    const timer = setTimeout(() => process.kill(-child.pid, 'SIGKILL'), seconds * 1000);
    child.on('exit', (code) => {
      clearTimeout(timer);
      done(code === 0);
    });
  });
}

/** Does something for each of a list, so many at once; the results in order. */
export async function allOf(list, atOnce, act) {
  const results = [];
  const waiting = list.map((each, n) => [each, n]);
  const work = async (worker) => {
    for (let next = waiting.shift(); next !== undefined; next = waiting.shift())
      results[next[1]] = await act(next[0], next[1], worker);
  };
  await Promise.all(Array.from({ length: atOnce }, (_, worker) => work(worker)));
  return results;
}

/** Of everything that a test run depends on. */
function sourcesMark() {
  const hash = createHash('sha256');
  for (const folder of ['src', 'tests', 'demo', 'scripts'])
    for (const file of readdirSync(path.join(root, folder), { recursive: true, withFileTypes: true }))
      if (file.isFile())
        hash.update(file.name).update(readFileSync(path.join(file.parentPath ?? file.path, file.name)));
  return hash.digest('hex');
}
