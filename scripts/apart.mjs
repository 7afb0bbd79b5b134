/** Programs with packages of their own, in a folder apart that `npm test` never installs: benchmarks and judges. */
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { root, run } from './setup.mjs';

/** Installs the packages of a folder as its lock file has them, where that has not been done. */
export function installApart(folder) {
  const at = path.join(root, folder);
  const lock = createHash('sha256')
    .update(readFileSync(path.join(at, 'package-lock.json')))
    .digest('hex');
  const stamp = path.join(at, 'node_modules', '.lock');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  run('npm', ['ci', '--no-audit', '--no-fund'], { cwd: at });
  writeFileSync(stamp, lock);
}

/** The path of a program of the folder, bundled as the product is, where its packages are found. */
export async function bundledApart(folder, file) {
  const { build } = await import('esbuild');
  const outfile = path.join(root, folder, 'node_modules', `.${file}.mjs`);
  mkdirSync(path.dirname(outfile), { recursive: true });
  await build({
    entryPoints: [path.join(root, folder, file)],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
    logLevel: 'warning',
  });
  return outfile;
}
