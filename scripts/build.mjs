/** Builds the app where it is missing or older than its sources. */
import { existsSync, readdirSync, statSync } from 'node:fs';
import path from 'node:path';
import { install, root, run } from './setup.mjs';

const SOURCES = ['src', 'demo', 'public', 'astro.config.ts', 'package-lock.json'];

function newest(file) {
  if (!existsSync(file)) return 0;
  if (!statSync(file).isDirectory()) return statSync(file).mtimeMs;
  return Math.max(0, ...readdirSync(file).map((name) => newest(path.join(file, name))));
}

export function ensureBuilt() {
  install();
  const entry = path.join(root, 'dist', 'server', 'entry.mjs');
  const built = existsSync(entry) ? statSync(entry).mtimeMs : -1;
  if (SOURCES.every((source) => newest(path.join(root, source)) <= built)) return;
  console.error('Building the app …');
  run('npx', ['astro', 'build'], { stdio: ['ignore', 'ignore', 'inherit'] });
}
