/** What ships with the app besides code, where files can be read: in the shell, and under test. */
import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import path from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import type { Assets, InstrumentProgram } from './assets';

const packages = createRequire(import.meta.url);

/** The folder of the app: above this file, or above the bundle that this has become a part of. */
function home(): string {
  let folder = path.dirname(fileURLToPath(import.meta.url));
  while (!existsSync(path.join(folder, 'src', 'styles', 'tokens.css'))) {
    const above = path.dirname(folder);
    if (above === folder) throw new Error('src/styles/tokens.css is not where the app is');
    folder = above;
  }
  return folder;
}

/** A file of a font, by the name that its package gives it. */
const fontFile = (family: string, letters: string) => {
  const name = family.toLowerCase().replace(' ', '-');
  return readFile(
    packages.resolve(`@fontsource-variable/${name}/files/${name}-${letters}-wght-normal.woff2`),
  );
};

interface Bundler {
  programOf(name: 'instrument'): Promise<InstrumentProgram>;
}

export const assets: Assets = {
  tokens: () => readFile(path.join(home(), 'src', 'styles', 'tokens.css'), 'utf8'),
  rasteriser: () => readFile(packages.resolve('@resvg/resvg-wasm/index_bg.wasm')),
  instrument: async () => {
    const bundler = pathToFileURL(path.join(home(), 'scripts', 'programs.mjs')).href;
    return ((await import(bundler)) as Bundler).programOf('instrument');
  },
  font: async (family) => [await fontFile(family, 'latin'), await fontFile(family, 'latin-ext')],
};
