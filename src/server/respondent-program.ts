/** The program of a respondent's page, as it was bundled: run here to draw first pages, and handed out for browsers to run. */
import { createHash } from 'node:crypto';
import vm from 'node:vm';
import mono from '@fontsource-variable/jetbrains-mono/files/jetbrains-mono-latin-wght-normal.woff2?url';
import monoMore from '@fontsource-variable/jetbrains-mono/files/jetbrains-mono-latin-ext-wght-normal.woff2?url';
import sans from '@fontsource-variable/instrument-sans/files/instrument-sans-latin-wght-normal.woff2?url';
import sansMore from '@fontsource-variable/instrument-sans/files/instrument-sans-latin-ext-wght-normal.woff2?url';
import program from 'virtual:respondent';
import tokens from '../styles/tokens.css?raw';
import type { Program } from './answer-page';

const exported = vm.runInThisContext(`(() => {\n${program.script}\nreturn respondentProgram;\n})()`, {
  filename: 'respondent.js',
}) as Pick<Program, 'drawn'>;

/** Under which it is handed out: another program, another name. */
const NAME = `${createHash('sha256').update(program.script).digest('hex').slice(0, 20)}.js`;

export const respondentProgram: Program & { readonly script: string; readonly name: string } = {
  drawn: exported.drawn,
  script: program.script,
  name: NAME,
  address: `/answer/program/${NAME}`,
  styles: `${tokens.trim()}\n${program.styles.trim()}`,
  fonts: {
    'Instrument Sans': [sans, sansMore],
    'JetBrains Mono': [mono, monoMore],
  },
};
