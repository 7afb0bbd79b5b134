/** Tests made ready to run: bundled below the packages, with what stands in a source changed on the way where it is asked. */
import { readdirSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { root } from './setup.mjs';

/** Every unit test, by its path from the project's root, in order. */
export function testFiles() {
  return ['src', 'tests']
    .flatMap((folder) =>
      readdirSync(path.join(root, folder), { recursive: true }).map((file) =>
        path.join(folder, String(file)),
      ),
    )
    .filter((file) => file.endsWith('.test.ts'))
    .sort();
}

/**
 * Gives the path of each test's bundle. `change` gets each source of ours, by its path from the root, and gives the text to
 * take. With `splitting` what tests share is bundled once.
 *
 * @param {readonly string[]} files
 * @param {string} folder name of a folder below the packages, emptied before
 * @param {{ change?: (file: string, text: string) => string, splitting?: boolean }} [how]
 */
export async function bundled(files, folder, { change = (_, text) => text, splitting = true } = {}) {
  const outdir = path.join(root, 'node_modules', folder);
  rmSync(outdir, { recursive: true, force: true });
  const { build } = await import('esbuild');
  await build({
    absWorkingDir: root,
    entryPoints: [...files],
    outdir,
    outbase: root,
    bundle: true,
    splitting,
    sourcemap: true,
    format: 'esm',
    platform: 'node',
    target: 'node20',
    packages: 'external',
    // What the server loads is built later, and no test starts that.
    external: ['../dist/*'],
    plugins: [sources(change)],
    logLevel: 'error',
  });
  return files.map((file) => path.join(outdir, file.replace(/\.ts$/, '.js')));
}

/** A file goes by the address of its source: tests find what lies beside them by it. */
function sources(change) {
  return {
    name: 'sources',
    setup({ onLoad }) {
      onLoad({ filter: /\/(src|tests)\/.*\.tsx?$/ }, ({ path: file }) => {
        const text = change(path.relative(root, file), readFileSync(file, 'utf8'));
        const contents = text.replaceAll('import.meta.url', JSON.stringify(pathToFileURL(file).href));
        return { contents, loader: file.endsWith('x') ? 'tsx' : 'ts' };
      });
    },
  };
}
