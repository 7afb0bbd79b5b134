/**
 * Plants one small fault at a time, runs the unit tests that call the function it stands in, and lists the faults that no
 * test minds. `--count N` faults (60), drawn by `--seed S` (1) over all folders alike; `--only PART` of a path; a fault's
 * tests are run, the quickest first, as far as they come to `--seconds T` (60) of what they took before. The same count and
 * seed plant the same faults. `--again FILE` plants those instead that an earlier run, whose lines are in the file, let by.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { bundled } from './bundle-tests.mjs';
import { allOf, coverage, runTest } from './mutants/coverage.mjs';
import { faultsIn, planted } from './mutants/faults.mjs';
import { root } from './setup.mjs';

const { values } = parseArgs({
  options: {
    count: { type: 'string', default: '60' },
    seed: { type: 'string', default: '1' },
    only: { type: 'string', default: '' },
    seconds: { type: 'string', default: '60' },
    again: { type: 'string', default: '' },
  },
});
const [count, seed, seconds] = [values.count, values.seed, values.seconds].map(Number);
if (![count, seed, seconds].every((number) => Number.isSafeInteger(number) && number > 0)) {
  console.error('--count, --seed and --seconds take whole numbers above 0.');
  process.exit(2);
}

/** Where faults are planted: what is tested without a browser and without the built app. */
const files = ['core', 'store', 'server', 'worker', 'wire', 'islands']
  .flatMap((folder) =>
    readdirSync(path.join(root, 'src', folder), { recursive: true }).map((file) =>
      path.join('src', folder, String(file)),
    ),
  )
  .filter((file) => file.endsWith('.ts') && !/\.(test|worker)\.ts$/.test(file) && file.includes(values.only))
  .sort();
const texts = new Map(files.map((file) => [file, readFileSync(path.join(root, file), 'utf8')]));

/** Tests of islands need a browser where they touch the page: those of pure parts are the ones that some test calls. */
const calls = await coverage();
const isCalled = new Set([...calls.keys()].map((place) => place.slice(0, place.lastIndexOf(':'))));

/** By folder, its faults; a function that no test calls is drawn like any other. */
const byFolder = new Map();
for (const [file, text] of texts) {
  if (file.startsWith('src/islands/') && !isCalled.has(file)) continue;
  const folder = path.dirname(file);
  // What stands outside every function is run by whoever loads the file: its faults are told by every test of it.
  const faults = faultsIn(file, text).filter(({ within }) => within !== null);
  byFolder.set(folder, [...(byFolder.get(folder) ?? []), ...faults.map((fault) => ({ file, ...fault }))]);
}

const drawn =
  values.again === ''
    ? draw(
        [...byFolder.values()].filter((faults) => faults.length > 0),
        count,
        xoroshiro128plus(seed),
      )
    : survivorsIn(readFileSync(values.again, 'utf8'), [...byFolder.values()].flat());
console.log(
  `${drawn.length} faults of ${[...byFolder.values()].flat().length}, in ${byFolder.size} folders; ${values.again === '' ? `seed ${seed}` : `of ${values.again}`}.`,
);

const begun = Date.now();
const results = await allOf(drawn, availableParallelism(), async (fault, n, worker) => {
  const tests = calls.get(`${fault.file}:${fault.within}`) ?? [];
  const found = await survives(fault, tests, worker);
  if (found) console.log(`survives  ${told(fault)}${tests.length === 0 ? '   (no test calls it)' : ''}`);
  return found;
});
const left = results.filter(Boolean).length;
const untested = drawn.filter((fault, n) => results[n] && !calls.has(`${fault.file}:${fault.within}`)).length;
console.log(
  `${left} of ${drawn.length} survive (${Math.round((100 * left) / drawn.length)} in 100), ${untested} of them where no test goes; ${Math.round((Date.now() - begun) / 1000)} s.`,
);

/** The quickest tests first; the first that fails has found it. */
async function survives(fault, tests, worker) {
  let left = seconds;
  const affordable = tests.filter((test, n) => n === 0 || (left -= test.seconds) > 0);
  const change = (file, text) => (file === fault.file ? planted(text, fault) : text);
  // Most faults are found by the first few: the others are bundled only for those that are not.
  for (const some of [affordable.slice(0, 3), affordable.slice(3)]) {
    if (some.length === 0) continue;
    let bundles;
    try {
      bundles = await bundled(
        some.map(({ file }) => file),
        `.mutants/planted-${worker}`,
        { change },
      );
    } catch {
      return false;
    }
    for (const [n, bundle] of bundles.entries())
      if (!(await runTest(bundle, { env: some[n]?.env, seconds: 30 + 5 * (some[n]?.seconds ?? 0) })))
        return false;
  }
  return tests.length === 0 || affordable.length > 0;
}

function told({ file, line, from, to, by }) {
  const short = (words) => (words.length > 60 ? `${words.slice(0, 59)}…` : words).replaceAll(/\s+/g, ' ');
  return `${file}:${line}   ${short(texts.get(file).slice(from, to))}  →  ${short(by)}`;
}

/** The faults that an earlier run has told, where they are now: the nearest in their file that reads the same. */
function survivorsIn(output, faults) {
  const lines = [...output.matchAll(/^survives +(\S+):(\d+) {3}(.*?)(?: {3}\(no test calls it\))?$/gm)];
  return lines.flatMap(([, file, line, change]) => {
    const alike = faults.filter((fault) => fault.file === file && told(fault).endsWith(`   ${change}`));
    const away = (fault) => Math.abs(fault.line - Number(line));
    return alike.toSorted((a, b) => away(a) - away(b)).slice(0, 1);
  });
}

/** From every folder in turn one that was not drawn yet, as long as there are some. */
function draw(folders, many, random) {
  const left = folders.map((faults) => [...faults]);
  const taken = [];
  while (taken.length < many && left.some((faults) => faults.length > 0))
    for (const faults of left) {
      if (faults.length === 0 || taken.length >= many) continue;
      taken.push(...faults.splice(uniformInt(random, 0, faults.length - 1), 1));
    }
  return taken;
}
