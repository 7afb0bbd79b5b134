/**
 * Runs every *.test.ts below src and tests with Node's own test runner. Arguments narrow it by part of a path.
 *
 * They are bundled first: read file by file, each of a hundred processes would spend more time on that than on its tests.
 */
import { readdirSync, readFileSync, rmSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { root, run } from './setup.mjs';

/** Below the packages, so that those are found from there. */
const FOLDER = path.join(root, 'node_modules', '.unit');

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

/** A file goes by the address of its source: tests find what lies beside them by it. */
const addresses = {
  name: 'addresses',
  setup({ onLoad }) {
    onLoad({ filter: /\/(src|tests)\/.*\.tsx?$/ }, ({ path: file }) => {
      const text = readFileSync(file, 'utf8');
      if (!text.includes('import.meta.url')) return null;
      const contents = text.replaceAll('import.meta.url', JSON.stringify(pathToFileURL(file).href));
      return { contents, loader: file.endsWith('x') ? 'tsx' : 'ts' };
    });
  },
};

rmSync(FOLDER, { recursive: true, force: true });
const { build } = await import('esbuild');
await build({
  absWorkingDir: root,
  entryPoints: files,
  outdir: FOLDER,
  outbase: root,
  bundle: true,
  splitting: true,
  sourcemap: true,
  format: 'esm',
  platform: 'node',
  target: 'node20',
  packages: 'external',
  // What the server loads is built later, and no test starts that.
  external: ['../dist/*'],
  plugins: [addresses],
  logLevel: 'warning',
});

// By itself the runner leaves one processor idle.
const atOnce = `--test-concurrency=${availableParallelism()}`;
run('node', [
  '--enable-source-maps',
  '--test',
  atOnce,
  '--test-reporter=spec',
  ...files.map((file) => path.join(FOLDER, file.replace(/\.ts$/, '.js'))),
]);
