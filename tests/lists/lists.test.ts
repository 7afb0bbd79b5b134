/**
 * Lists as different people write them, each with what it must give: a file holds the list, a line of dashes, and an
 * outline of the questionnaire with what is doubtful. After a change that is meant, WRITE_LISTS=1 writes the outlines anew.
 */
import assert from 'node:assert/strict';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { describe, it } from 'node:test';
import { fileURLToPath } from 'node:url';
import { readDocument } from '../../src/core/document/read';
import type { Answer, Item, Option } from '../../src/core/document/types';
import { fromList, type Understood } from '../../src/core/exchange/from-list';
import { planOf } from '../../src/core/routing/planner';

const folder = path.dirname(fileURLToPath(import.meta.url));
const LINE = '\n----------\n';

function outline({ document, lines }: Understood): string {
  const out: string[] = [];
  for (const { title, kind, items } of document.sections) {
    out.push(`# ${title} (${kind})`);
    for (const item of items) out.push(...itemLines(item));
  }
  for (const { line, kind, says, doubt } of lines) {
    if (kind === 'trouble') out.push(`! line ${line}: ${says}`);
    else if (doubt !== null) out.push(`? line ${line}: ${doubt}`);
  }
  return out.join('\n');
}

function itemLines(item: Item): string[] {
  if (item.kind === 'page_break') return [];
  if (item.kind === 'statement') return [`${item.name}: ${item.text.replaceAll('\n', ' / ')}`];
  const note = [item.note, item.instruction].map((text) => (text === undefined ? '' : ` [${text}]`)).join('');
  return [
    `${item.name}: ${item.text}${note}`,
    `  ${answerWords(item.answer)}`,
    ...(item.askIf === undefined ? [] : [`  ask if ${item.askIf}`]),
    ...(item.skips ?? []).map(({ if: when, to }) => `  ${when ?? 'always'} -> ${Object.values(to)[0]}`),
  ];
}

function answerWords(answer: Answer): string {
  const { type } = answer;
  const list = (options: readonly Option[]) =>
    options
      .map(
        ({ code, label, ...marks }) =>
          `${code} ${label}${Object.entries(marks)
            .map(([key, value]) => ` (${value === true ? key : String(value)})`)
            .join('')}`,
      )
      .join(', ');
  switch (type) {
    case 'grid':
      return `grid of ${answer.rows.map(({ label }) => label).join('; ')}: ${list(answer.options)}`;
    case 'multiple':
      return `multiple ${answer.minPicks ?? ''}..${answer.maxPicks ?? ''}: ${list(answer.options)}`;
    case 'single':
    case 'rank':
      return `${type}: ${list(answer.options)}`;
    case 'number':
    case 'scale':
      return [
        type,
        answer.min,
        answer.max,
        ...(type === 'number' ? [answer.unit] : []),
        ...(type === 'scale' ? [answer.lowLabel, answer.highLabel] : []),
      ]
        .filter((part) => part !== undefined)
        .join(' ');
    case 'text':
      return `text ${answer.lines ?? 'one'}`;
    default:
      return type;
  }
}

describe('a list as people write it', () => {
  for (const file of readdirSync(folder)
    .filter((name) => name.endsWith('.txt'))
    .sort()) {
    it(file.replace('.txt', '').replaceAll('-', ' '), () => {
      const [source = '', expected] = readFileSync(path.join(folder, file), 'utf8').split(LINE);
      const understood = fromList(source, 'A list');
      const found = outline(understood);
      if (process.env.WRITE_LISTS === '1')
        writeFileSync(path.join(folder, file), `${source.trimEnd()}\n${LINE}${found}\n`);
      else assert.equal(found, expected?.trimEnd());
      // Every line that is written is accounted for, and what comes of it can be used.
      const read = readDocument(understood.document);
      assert.ok(read.ok, JSON.stringify(read));
      assert.deepEqual(planOf(read.document).problems, []);
    });
  }
});
