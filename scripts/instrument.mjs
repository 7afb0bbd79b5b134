/** Bundles the stand-alone instrument: a program and its stylesheet, small enough to go into one file with a questionnaire. */
import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';

const root = path.join(path.dirname(fileURLToPath(import.meta.url)), '..');
const kept = path.join(root, 'node_modules', '.jolly-fork', 'instrument.json');
/** What the program can be made of, and how. */
const SOURCES = [
  'src/core',
  'src/islands',
  'src/instrument',
  'src/styles',
  'scripts/instrument.mjs',
  'package-lock.json',
];

function newest(file) {
  const about = statSync(file);
  if (!about.isDirectory()) return about.mtimeMs;
  return Math.max(0, ...readdirSync(file).map((name) => newest(path.join(file, name))));
}

/** `script` and `styles`, as text; made anew where a source is younger. The same sources give the same text. */
export async function instrumentProgram() {
  const made = existsSync(kept) ? statSync(kept).mtimeMs : -1;
  if (SOURCES.every((source) => newest(path.join(root, source)) <= made))
    return JSON.parse(readFileSync(kept, 'utf8'));
  const program = await bundled();
  mkdirSync(path.dirname(kept), { recursive: true });
  const fresh = `${kept}.${process.pid}.tmp`;
  writeFileSync(fresh, JSON.stringify(program));
  renameSync(fresh, kept);
  return program;
}

async function bundled() {
  const { outputFiles } = await build({
    absWorkingDir: root,
    entryPoints: ['src/instrument/main.tsx'],
    outdir: 'made',
    bundle: true,
    minify: true,
    write: false,
    format: 'iife',
    target: 'es2022',
    jsx: 'automatic',
    // The components are those of the app; what draws them is a tenth of the size.
    alias: {
      react: 'preact/compat',
      'react-dom': 'preact/compat',
      'react/jsx-runtime': 'preact/jsx-runtime',
    },
    loader: { '.module.css': 'local-css' },
    define: { 'process.env.NODE_ENV': '"production"' },
    charset: 'utf8',
    legalComments: 'inline',
    // What is composed comes first, as everywhere in the app.
    logOverride: { 'undefined-composes-from': 'silent' },
    logLevel: 'error',
  });
  const textOf = (ending) => outputFiles.find(({ path: file }) => file.endsWith(ending))?.text ?? '';
  return { script: textOf('.js'), styles: textOf('.css') };
}
