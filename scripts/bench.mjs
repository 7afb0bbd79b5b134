/**
 * `npm run bench`: installs what the benchmarks compare with, and measures everything, each part into a page of its own in
 * docs/: the analysis into performance.md, the others into performance-PART.md. `npm run bench -- PART`: only that.
 *
 * `npm run bench -- families [NAME]` times kinds of questionnaires, all of them into performance-families.md. By itself
 * alone: some of the made questionnaires take longer than all the rest.
 */
import { pathToFileURL } from 'node:url';
import { bundledApart, installApart } from './apart.mjs';
import { ensureBuilt } from './build.mjs';
import { served } from './served.mjs';
import { install, run } from './setup.mjs';

const PORT = process.env.PORT ?? '4397';

/** What the function of a part in `bench/` is called, and what it needs beforehand. */
const PARTS = {
  analysis: { file: 'run.ts' },
  memory: { file: 'memory.ts' },
  solvers: { file: 'solvers.ts', measure: 'measureSolvers' },
  audit: { file: 'audit.ts', measure: 'measureAudit' },
  package: { file: 'package.ts', measure: 'measurePackage' },
  forecast: { file: 'forecast.ts', measure: 'measureForecast' },
  commands: { file: 'commands.ts', measure: 'measureCommands' },
  load: { file: 'load.ts', measure: 'measureLoad', built: true },
  trial: { file: 'trial.ts', measure: 'measureTrial', built: true },
  panel: { file: 'panel.ts', measure: 'measurePanel', built: true },
  interface: { file: 'interface.ts', measure: 'measureInterface', browser: true },
  views: { file: 'views.ts', measure: 'measureViews', browser: true },
  families: { file: 'families.ts', measure: 'measureFamilies', alone: true },
};

const [only, ...given] = process.argv.slice(2);
if (only !== undefined && !(only in PARTS)) {
  console.error(`There is no part ${only}; there are ${Object.keys(PARTS).join(', ')}.`);
  process.exit(2);
}
install();
// What every part takes its clock by is one of them.
installApart('bench');
for (const [name, part] of Object.entries(PARTS))
  if (name === only || (only === undefined && !part.alone)) await measured(part);
// A solver's own threads would keep the process alive.
process.exit();

async function measured({ file, measure, built, browser }) {
  if (built) ensureBuilt();
  const bundle = await bundledApart('bench', file);
  // In a process of its own, while nothing else has used the machine's caches, with the memory in hand.
  if (measure === undefined) return run('node', ['--expose-gc', bundle]);
  const { [measure]: work } = await import(pathToFileURL(bundle).href);
  if (!browser) return work(...given);
  const { server, browser: chromium } = await served(PORT);
  try {
    await work(chromium, `http://127.0.0.1:${PORT}`);
  } finally {
    await chromium.close();
    server.kill();
  }
}
