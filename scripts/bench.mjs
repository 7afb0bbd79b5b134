/**
 * `npm run bench`: installs what the benchmarks compare with, runs them, and writes docs/performance.md; then times the
 * sheet into docs/performance-interface.md and the other views into docs/performance-views.md, long files audited into
 * docs/performance-audit.md, packages into docs/performance-package.md, forecasts into docs/performance-forecast.md, the
 * command line into docs/performance-commands.md, many authors at once into docs/performance-load.md, many respondents at
 * once into docs/performance-trial.md, and a made-up panel into docs/performance-panel.md (`npm run bench -- interface`,
 * `-- views`, `-- audit`, `-- package`, `-- forecast`, `-- commands`, `-- load`, `-- trial` or `-- panel`: only that).
 * `npm run bench -- families [NAME]` times kinds of questionnaires, all of them into docs/performance-families.md.
 */
import { pathToFileURL } from 'node:url';
import { bundledApart, installApart } from './apart.mjs';
import { ensureBuilt } from './build.mjs';
import { served } from './served.mjs';
import { install, run } from './setup.mjs';

const PORT = process.env.PORT ?? '4397';

install();
const only = process.argv[2];
if (only === undefined) {
  installApart('bench');
  run('node', ['--expose-gc', await bundledApart('bench', 'run.ts')]);
}
// By itself alone: some of the made questionnaires take longer than all the rest.
if (only === 'families') {
  const { measureFamilies } = await import(pathToFileURL(await bundledApart('bench', 'families.ts')).href);
  await measureFamilies(process.argv[3] ?? null);
  process.exit();
}
if (only === undefined || only === 'audit') {
  const { measureAudit } = await import(pathToFileURL(await bundledApart('bench', 'audit.ts')).href);
  await measureAudit();
  if (only === 'audit') process.exit();
}
if (only === undefined || only === 'package') {
  const { measurePackage } = await import(pathToFileURL(await bundledApart('bench', 'package.ts')).href);
  await measurePackage();
  if (only === 'package') process.exit();
}
if (only === undefined || only === 'forecast') {
  const { measureForecast } = await import(pathToFileURL(await bundledApart('bench', 'forecast.ts')).href);
  await measureForecast();
  if (only === 'forecast') process.exit();
}
if (only === undefined || only === 'commands') {
  const { measureCommands } = await import(pathToFileURL(await bundledApart('bench', 'commands.ts')).href);
  await measureCommands();
  if (only === 'commands') process.exit();
}
if (only === undefined || only === 'load') {
  ensureBuilt();
  const { measureLoad } = await import(pathToFileURL(await bundledApart('bench', 'load.ts')).href);
  await measureLoad();
  if (only === 'load') process.exit();
}
if (only === undefined || only === 'trial') {
  ensureBuilt();
  const { measureTrial } = await import(pathToFileURL(await bundledApart('bench', 'trial.ts')).href);
  await measureTrial();
  if (only === 'trial') process.exit();
}
if (only === undefined || only === 'panel') {
  ensureBuilt();
  const { measurePanel } = await import(pathToFileURL(await bundledApart('bench', 'panel.ts')).href);
  await measurePanel();
  if (only === 'panel') process.exit();
}
const { measureInterface } = await import(pathToFileURL(await bundledApart('bench', 'interface.ts')).href);
const { measureViews } = await import(pathToFileURL(await bundledApart('bench', 'views.ts')).href);
const { server, browser } = await served(PORT);
try {
  if (only !== 'views') await measureInterface(browser, `http://127.0.0.1:${PORT}`);
  if (only !== 'interface') await measureViews(browser, `http://127.0.0.1:${PORT}`);
} finally {
  await browser.close();
  server.kill();
}
