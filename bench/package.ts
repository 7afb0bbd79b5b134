/** How long the hand-over package takes, file by file, on questionnaires of growing size; into docs/performance-package.md. */
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { format, resolveConfig } from 'prettier';
import { readDocumentText } from '../src/core/document/read';
import type { Questionnaire } from '../src/core/document/types';
import { NO_WORK } from '../src/core/exchange/work-file';
import type { FileFormat, StudyContent } from '../src/core/release/format-types';
import { FORMATS } from '../src/core/release/formats';
import { HANDED_OVER, kindsOf } from '../src/core/release/formats/known';
import { madeUpRows } from '../src/core/release/data/rows';
import { planOf } from '../src/core/routing/planner';
import { generate } from './generate';
import { markdown, milliseconds, timed } from './timing';

const root = process.cwd();

function demo(): Questionnaire {
  const read = readDocumentText(
    readFileSync(path.join(root, 'demo', 'tern-valley-home-heating.fork.json'), 'utf8'),
  );
  if (!read.ok) throw new Error('the demo study cannot be read');
  return read.document;
}

const SIZES: readonly (readonly [name: string, make: () => Questionnaire])[] = [
  ['Tern Valley demo', demo],
  ['120 items, 3 far drivers', () => generate({ items: 120, longRange: 3 })],
  ['1,000 items, 2 far drivers', () => generate({ items: 1000, longRange: 2 })],
];

export async function measurePackage(): Promise<void> {
  const whole: string[][] = [];
  const single: string[][] = [];
  for (const [name, make] of SIZES) {
    // A document of its own each time: what is worked out once for several files is part of the whole.
    const packed = await timed(() => FORMATS.package.write({ document: make(), work: NO_WORK }), 1);
    whole.push([name, milliseconds(packed.ms), `${(packed.result.length / 1e6).toFixed(1)} MB`]);
    const document = make();
    const content: StudyContent = { document, work: NO_WORK, data: madeUpRows(planOf(document), 1000, 1) };
    for (const format of Object.keys(HANDED_OVER) as (keyof typeof HANDED_OVER)[]) {
      const { write, losses }: FileFormat = FORMATS[format];
      for (const kind of kindsOf(format)) {
        const made = await timed(async () => write?.(content, kind), 1);
        const lost = await timed(() => losses(content), 1);
        single.push([
          name,
          `${format} .${kind.split('.').at(-1)}`,
          milliseconds(made.ms),
          milliseconds(lost.ms),
        ]);
      }
    }
    console.error(`… ${name}`);
  }
  const text = `# How long a package takes

Written by \`npm run bench -- package\` on ${new Date().toISOString().slice(0, 10)}, one run each, on a machine shared with others. The package
has every file, 1,000 made-up respondents among them; what several files are made of is worked out once.

${markdown(['questionnaire', 'package', 'size'], whole)}

## File by file

Once the questionnaire is analysed; *losses*: finding what the format cannot hold, by reading the file again.

${markdown(['questionnaire', 'file', 'made', 'losses'], single)}
`;
  const page = path.join(root, 'docs', 'performance-package.md');
  writeFileSync(page, await format(text, { ...(await resolveConfig(page)), filepath: page }));
  console.log(text);
}
