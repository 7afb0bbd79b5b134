/** Builds the app where it is missing or older than its sources. */
import { existsSync, readdirSync, statSync } from 'node:fs';
import path from 'node:path';
import { install, root, run } from './setup.mjs';

const SOURCES = ['src', 'demo', 'public', 'astro.config.ts', 'scripts/programs.mjs', 'package-lock.json'];

const DOOR = path.join(root, 'dist', 'door', 'door.mjs');

function newest(file) {
  if (!existsSync(file)) return 0;
  if (!statSync(file).isDirectory()) return statSync(file).mtimeMs;
  return Math.max(0, ...readdirSync(file).map((name) => newest(path.join(file, name))));
}

export function ensureBuilt() {
  install();
  // The last file of a build: where it is there, all is.
  const built = existsSync(DOOR) ? statSync(DOOR).mtimeMs : -1;
  if (SOURCES.every((source) => newest(path.join(root, source)) <= built)) return;
  console.error('Building the app …');
  run('npx', ['astro', 'build'], { stdio: ['ignore', 'ignore', 'inherit'] });
  bundleDoor();
}

/** What the server does before it loads the app, and what it does on other threads, are files of their own. */
function bundleDoor() {
  run('npx', [
    'esbuild',
    path.join('src', 'server', 'examine.worker.ts'),
    path.join('src', 'server', 'judge.worker.ts'),
    path.join('src', 'server', 'panel.worker.ts'),
    path.join('src', 'server', 'reach.ts'),
    path.join('src', 'store', 'door.ts'),
    path.join('src', 'store', 'copy.worker.ts'),
    `--outdir=${path.dirname(DOOR)}`,
    '--entry-names=[name]',
    '--out-extension:.js=.mjs',
    '--bundle',
    '--platform=node',
    '--format=esm',
    '--target=node20',
    '--packages=external',
    '--log-level=error',
  ]);
}
