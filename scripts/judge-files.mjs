/**
 * `npm run judge-files`: programs of other houses read every file of the demo's package, and what each saw goes into
 * docs/files.md. Installs them first: R, LibreOffice, libxml2 and poppler from Debian, others from their own lock file.
 */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { install, root, run } from './setup.mjs';

const folder = path.join(root, 'judge');
/** What is called, and the Debian packages that have it. */
const PROGRAMS = [
  ['Rscript', 'r-base-core r-cran-xml2'],
  ['soffice', 'libreoffice-writer libreoffice-calc'],
  ['xmllint', 'libxml2-utils'],
  ['pdftotext', 'poppler-utils'],
  ['unzip', 'unzip'],
];

install();
const lacking = PROGRAMS.filter(([program]) => spawnSync('which', [program]).status !== 0).flatMap(
  ([, packages]) => packages.split(' '),
);
if (lacking.length > 0) {
  run('apt-get', ['update', '-qq']);
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...lacking]);
}
const lock = createHash('sha256')
  .update(readFileSync(path.join(folder, 'package-lock.json')))
  .digest('hex');
const stamp = path.join(folder, 'node_modules', '.lock');
if (!existsSync(stamp) || readFileSync(stamp, 'utf8') !== lock) {
  run('npm', ['ci', '--no-audit', '--no-fund'], { cwd: folder });
  writeFileSync(stamp, lock);
}
const { build } = await import('esbuild');
const outfile = path.join(folder, 'node_modules', '.judge.mjs');
mkdirSync(path.dirname(outfile), { recursive: true });
await build({
  entryPoints: [path.join(folder, 'run.ts')],
  outfile,
  bundle: true,
  platform: 'node',
  format: 'esm',
  packages: 'external',
  logLevel: 'warning',
});
run('node', [outfile], { cwd: root });
