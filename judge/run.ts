/** Every file of the demo's package, read by a program that we did not write: what it saw is held against what is meant. */
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { format, resolveConfig } from 'prettier';
import { byDuckDb } from './duckdb';
import { unpacked } from './package';
import { byJsonSchema, byTableSchema, byCsvw } from './schemas';
import { byLibreOffice, byPdfToText } from './office';
import { byMapReaders } from './map';
import { byR, byRXml } from './r';
import type { Verdict } from './verdict';
import { byXmllint } from './xml';

const study = await unpacked();
const verdicts: Verdict[] = [];
for (const judge of [
  byXmllint,
  byRXml,
  byR,
  byDuckDb,
  byCsvw,
  byTableSchema,
  byJsonSchema,
  byLibreOffice,
  byPdfToText,
  byMapReaders,
]) {
  const found = await judge(study);
  for (const verdict of found) console.log(`${verdict.ok ? 'ok ' : 'NOT'} ${verdict.file}: ${verdict.saw}`);
  verdicts.push(...found);
}

const cell = (text: string) => text.replaceAll('|', '\\|').replaceAll('\n', ' ');
const text = `# Files, read by other programs

Written by \`npm run judge-files\`, which installs these programs, makes the package of the demo study as the shell does, and has
each of them read what it can. What each saw is held against the study itself: a verdict is good where nothing is missing and
no figure differs.

| file | reader | what it saw | verdict |
| ---- | ------ | ----------- | ------- |
${verdicts.map(({ file, reader, saw, ok }) => `| ${cell(file)} | ${cell(reader)} | ${cell(saw)} | ${ok ? 'good' : '**not good**'} |`).join('\n')}
`;
const page = path.join(process.cwd(), 'docs', 'files.md');
writeFileSync(page, await format(text, { ...(await resolveConfig(page)), filepath: page }));
if (verdicts.some(({ ok }) => !ok)) process.exitCode = 1;
