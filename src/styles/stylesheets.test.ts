/** The stylesheets as a whole: colours only in the tokens, no class that nobody wears, no sheet that serves everything. */
import assert from 'node:assert/strict';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, test } from 'node:test';
import { fileURLToPath } from 'node:url';

const source = fileURLToPath(new URL('..', import.meta.url));
const files = readdirSync(source, { recursive: true })
  .map((file) => path.join(source, String(file)))
  .filter((file) => /\.(css|tsx?|astro)$/.test(file) && !file.endsWith('.test.ts'));
const text = new Map(files.map((file) => [file, readFileSync(file, 'utf8')]));
const short = (file: string) => path.relative(source, file);

/** Of each stylesheet, the classes it makes. */
const made = new Map<string, Set<string>>();
/** Of each stylesheet, the classes others take from it, and who does. */
const taken = new Map<string, Map<string, Set<string>>>();
for (const [file, words] of text) {
  if (file.endsWith('.module.css')) {
    // Classes of a package's own are not ours to wear.
    const plain = words.replace(/\/\*.*?\*\//gs, '').replace(/:global\([^)]*\)/g, '');
    const selectors = plain.replace(/\{[^{}]*\}/g, '{}').replace(/'[^']*'/g, '');
    made.set(file, new Set([...selectors.matchAll(/\.([A-Za-z]\w*)/g)].map(([, name = '']) => name)));
    for (const [, names = '', from = ''] of plain.matchAll(/composes: ([\w ]+) from '([^']+)'/g))
      for (const name of names.split(' ')) take(file, from, name);
  }
  for (const [, local = '', from = ''] of words.matchAll(/import (\w+) from '([^']+\.module\.css)'/g))
    for (const [, name = ''] of words.matchAll(new RegExp(`\\b${local}\\.(\\w+)`, 'g')))
      if (name !== 'module') take(file, from, name);
}

function take(by: string, from: string, name: string): void {
  const sheet = path.resolve(path.dirname(by), from);
  const names = taken.get(sheet) ?? new Map<string, Set<string>>();
  taken.set(sheet, names.set(name, (names.get(name) ?? new Set()).add(by)));
}

describe('stylesheets', () => {
  test('name colours in the tokens alone', () => {
    const named = [...text].flatMap(([file, words]) =>
      file.endsWith('tokens.css')
        ? []
        : [...words.matchAll(/(?<![\w&/])#(?:[\da-f]{6}|[\da-f]{8}|[\da-f]{3,4})\b/gi)].map(
            ([colour]) => `${short(file)}: ${colour}`,
          ),
    );
    assert.deepEqual(named, []);
  });

  test('make every class that is worn, and no other', () => {
    const wrong = [...made].flatMap(([sheet, names]) => {
      const worn = taken.get(sheet) ?? new Map<string, Set<string>>();
      return [
        ...[...worn].flatMap(([name, by]) =>
          names.has(name)
            ? []
            : [`${short(sheet)} has no .${name}, which ${[...by].map(short).join(', ')} wears`],
        ),
        ...[...names].flatMap((name) => (worn.has(name) ? [] : [`nobody wears .${name} of ${short(sheet)}`])),
      ];
    });
    assert.deepEqual(wrong, []);
  });

  test('serve few components each, but for the primitives', () => {
    const busy = [...taken].flatMap(([sheet, names]) => {
      const wearers = new Set([...names.values()].flatMap((by) => [...by]));
      return wearers.size >= 20 && !sheet.endsWith('primitives.module.css')
        ? [`${short(sheet)}: ${wearers.size}`]
        : [];
    });
    assert.deepEqual(busy, []);
  });

  test('give no name to a container: one bundler makes another name of it in every sheet', () => {
    const named = [...text].filter(([, words]) => /container: *\w|container-name|@container +\w/.test(words));
    assert.deepEqual(
      named.map(([file]) => short(file)),
      [],
    );
  });
});
