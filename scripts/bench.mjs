/**
 * `npm run bench`: installs what the benchmarks compare with, runs them, and writes docs/performance.md; then times the
 * sheet into docs/performance-interface.md and the other views into docs/performance-views.md, and long files
 * audited into docs/performance-audit.md, packages into docs/performance-package.md, and many authors at once into
 * docs/performance-load.md (`npm run bench -- interface`, `-- views`, `-- audit`, `-- package` or `-- load`: only that).
 */
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { ensureBuilt } from './build.mjs';
import { served } from './served.mjs';
import { install, root, run } from './setup.mjs';

const folder = path.join(root, 'bench');
const PORT = process.env.PORT ?? '4397';

install();
const { build } = await import('esbuild');
const only = process.argv[2];
if (only === undefined) {
  installRivals();
  run('node', ['--expose-gc', await bundled('run.ts')]);
}
if (only === undefined || only === 'audit') {
  const { measureAudit } = await import(pathToFileURL(await bundled('audit.ts')).href);
  await measureAudit();
  if (only === 'audit') process.exit();
}
if (only === undefined || only === 'package') {
  const { measurePackage } = await import(pathToFileURL(await bundled('package.ts')).href);
  await measurePackage();
  if (only === 'package') process.exit();
}
if (only === undefined || only === 'load') {
  ensureBuilt();
  const { measureLoad } = await import(pathToFileURL(await bundled('load.ts')).href);
  await measureLoad();
  if (only === 'load') process.exit();
}
const { measureInterface } = await import(pathToFileURL(await bundled('interface.ts')).href);
const { measureViews } = await import(pathToFileURL(await bundled('views.ts')).href);
const { server, browser } = await served(PORT);
try {
  if (only !== 'views') await measureInterface(browser, `http://127.0.0.1:${PORT}`);
  if (only !== 'interface') await measureViews(browser, `http://127.0.0.1:${PORT}`);
} finally {
  await browser.close();
  server.kill();
}

function installRivals() {
  const lock = createHash('sha256')
    .update(readFileSync(path.join(folder, 'package-lock.json')))
    .digest('hex');
  const stamp = path.join(folder, 'node_modules', '.lock');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  run('npm', ['ci', '--no-audit', '--no-fund'], { cwd: folder });
  writeFileSync(stamp, lock);
}

/** As the product is, so that the times are its times; where the packages are, so that they are found. */
async function bundled(file) {
  const outfile = path.join(folder, 'node_modules', `.${file}.mjs`);
  mkdirSync(path.dirname(outfile), { recursive: true });
  await build({
    entryPoints: [path.join(folder, file)],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
    logLevel: 'warning',
  });
  return outfile;
}
