/** `npm run bench`: installs what the benchmarks compare with, runs them, and writes docs/performance.md. */
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { install, root, run } from './setup.mjs';

install();
const folder = path.join(root, 'bench');
const lock = createHash('sha256')
  .update(readFileSync(path.join(folder, 'package-lock.json')))
  .digest('hex');
const stamp = path.join(folder, 'node_modules', '.lock');
if (!existsSync(stamp) || readFileSync(stamp, 'utf8') !== lock) {
  run('npm', ['ci', '--no-audit', '--no-fund'], { cwd: folder });
  writeFileSync(stamp, lock);
}
const { build } = await import('esbuild');
// Bundled as the product is, so that the times are its times; where the packages are, so that they are found.
const outfile = path.join(folder, 'node_modules', '.run.mjs');
await build({
  entryPoints: [path.join(folder, 'run.ts')],
  outfile,
  bundle: true,
  platform: 'node',
  format: 'esm',
  packages: 'external',
  logLevel: 'warning',
});
run('node', ['--expose-gc', outfile]);
