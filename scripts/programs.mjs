/** Bundles what respondents run: a program and its stylesheet, small enough for one file with a questionnaire, or for a phone. */
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
/** What a program can be made of, and how, besides the folder of its own. */
const SOURCES = [
  'src/core',
  'src/islands',
  'src/wire',
  'src/styles',
  'scripts/programs.mjs',
  'package-lock.json',
];

function newest(file) {
  const about = statSync(file);
  if (!about.isDirectory()) return about.mtimeMs;
  return Math.max(0, ...readdirSync(file).map((name) => newest(path.join(file, name))));
}

/**
 * `script` and `styles` of the program in `src/NAME`, as text; made anew where a source is younger. The same sources give the same
 * text. What the script exports is `NAMEProgram` where it runs.
 *
 * @param {'instrument' | 'respondent'} name
 */
export async function programOf(name) {
  const kept = path.join(root, 'node_modules', '.jolly-fork', `${name}.json`);
  const made = existsSync(kept) ? statSync(kept).mtimeMs : -1;
  if ([...SOURCES, `src/${name}`].every((source) => newest(path.join(root, source)) <= made))
    return JSON.parse(readFileSync(kept, 'utf8'));
  const program = await bundled(name);
  mkdirSync(path.dirname(kept), { recursive: true });
  const fresh = `${kept}.${process.pid}.tmp`;
  writeFileSync(fresh, JSON.stringify(program));
  renameSync(fresh, kept);
  return program;
}

async function bundled(name) {
  const { outputFiles } = await build({
    absWorkingDir: root,
    entryPoints: [`src/${name}/main.tsx`],
    outdir: 'made',
    bundle: true,
    minify: true,
    write: false,
    format: 'iife',
    globalName: `${name}Program`,
    target: 'es2022',
    jsx: 'automatic',
    // The components are those of the app; what draws them is a tenth of the size.
    alias: {
      react: 'preact/compat',
      'react-dom/server': 'preact/compat/server',
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
    // The server draws pages by the same program: it has to do without a document.
    ...(name === 'respondent' ? { conditions: ['worker'] } : {}),
  });
  const textOf = (ending) => outputFiles.find(({ path: file }) => file.endsWith(ending))?.text ?? '';
  return { script: textOf('.js'), styles: textOf('.css') };
}
