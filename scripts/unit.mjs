/**
 * Runs every *.test.ts below src and tests with Node's own test runner. Arguments narrow it by part of a path.
 *
 * They are bundled first: read file by file, each of a hundred processes would spend more time on that than on its tests.
 */
import { availableParallelism } from 'node:os';
import { bundled, testFiles } from './bundle-tests.mjs';
import { run } from './setup.mjs';

const wanted = process.argv.slice(2);
const files = testFiles().filter((file) => wanted.every((part) => file.includes(part)));
if (files.length === 0) {
  console.error(`No test file matches ${wanted.join(' ')}.`);
  process.exit(1);
}
const bundles = await bundled(files, '.unit');

// By itself the runner leaves one processor idle.
const atOnce = `--test-concurrency=${availableParallelism()}`;
run('node', ['--enable-source-maps', '--test', atOnce, '--test-reporter=spec', ...bundles]);
