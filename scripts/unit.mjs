/** Runs every *.test.ts below src and tests with Node's own test runner. Arguments narrow it by part of a path. */
import { readdirSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import path from 'node:path';
import { root, run } from './setup.mjs';

const wanted = process.argv.slice(2);
const files = ['src', 'tests']
  .flatMap((folder) =>
    readdirSync(path.join(root, folder), { recursive: true }).map((file) => path.join(folder, String(file))),
  )
  .filter((file) => file.endsWith('.test.ts') && wanted.every((part) => file.includes(part)))
  .sort();
if (files.length === 0) {
  console.error(`No test file matches ${wanted.join(' ')}.`);
  process.exit(1);
}
// By itself the runner leaves one processor idle.
const atOnce = `--test-concurrency=${availableParallelism()}`;
run('node', ['--import', 'tsx', '--test', atOnce, '--test-reporter=spec', ...files]);
