/** The package: whole, listed as it is, marked with its version, and the same bytes twice. */
import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { it } from 'node:test';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { strFromU8, unzipSync } from 'fflate';
import { readDocumentText } from '../document/read';
import { TOOL } from '../document/types';
import { NO_WORK } from '../exchange/work-file';
import { besideThrough, type Beside, type OpenBeside, type PackageContent } from './beside';
import { CannotWrite } from './cannot-write';
import type { FormatWriter, KnownFormat, StudyContent } from './format-types';
import { FORMATS } from './formats';
import { BESIDE, HANDED_OVER, kindsOf, type FormatName } from './formats/known';
import { besideApi } from './formats/made-beside';
import { packageFiles } from './package';

const read = readDocumentText(readFileSync('demo/winter-diary.fork.json', 'utf8'));
assert.ok(read.ok);
const REASON = 'The field agency starts on Monday.';
const content: StudyContent = {
  document: read.document,
  work: NO_WORK,
  version: {
    number: 2,
    frozen: true,
    at: Date.UTC(2026, 10, 9),
    author: 'Ada Fenn',
    note: 'To field',
    reason: REASON,
  },
};
const packed = async (of: StudyContent) => unzipSync(await FORMATS.package.write(of));

it('holds every file, each as the manifest says, and says why it was frozen all the same', async () => {
  const files = await packed(content);
  const manifest = JSON.parse(strFromU8(files['manifest.json'] ?? new Uint8Array())) as {
    tool: string;
    version: string;
    frozenAllTheSame: string;
    files: { path: string; format: FormatName; bytes: number; sha256: string }[];
    losses: { format: string; place: string; what: string }[];
  };
  assert.equal(manifest.tool, TOOL);
  assert.equal(manifest.version, 'Version 2, frozen 2026-11-09');
  assert.equal(manifest.frozenAllTheSame, REASON);
  assert.deepEqual(
    [...manifest.files.map(({ path }) => path), 'README.txt', 'manifest.json'].sort(),
    Object.keys(files).sort(),
  );
  for (const { path, bytes, sha256: sum } of manifest.files) {
    const file = files[path];
    assert.ok(file !== undefined);
    assert.deepEqual([file.length, bytesToHex(sha256(file))], [bytes, sum], path);
  }
  for (const name of Object.keys(HANDED_OVER) as (keyof typeof HANDED_OVER)[])
    for (const kind of kindsOf(name))
      assert.ok(
        manifest.files.some(
          ({ format, path }) => format === name && path.endsWith(kind.split('.').at(-1) ?? ''),
        ) || kind.endsWith('.zip'),
        `${name} ${kind}`,
      );
  assert.ok(
    manifest.losses.some(({ format, what }) => format === 'ddi-lifecycle' && what.startsWith('a skip')),
  );
  const readMe = strFromU8(files['README.txt'] ?? new Uint8Array());
  for (const words of [
    REASON,
    'Version 2, frozen 2026-11-09',
    'By Ada Fenn: To field',
    'made-up respondents',
  ])
    assert.ok(readMe.includes(words), words);
});

it('gives the same bytes twice, and says on every page which version it is, or that it is the draft', async () => {
  const [first, second, draft] = await Promise.all([
    FORMATS.package.write(content),
    FORMATS.package.write({ ...content }),
    packed({ document: content.document, work: NO_WORK }),
  ]);
  assert.deepEqual(first, second);
  const pages = (files: Readonly<Record<string, Uint8Array>>) =>
    Object.entries(files).filter(([path]) => path.endsWith('.html'));
  // A page that runs the questionnaire puts it at the foot of its pages.
  for (const [path, bytes] of pages(draft))
    assert.match(strFromU8(bytes), /(class="running">[^<]*|"version":")Draft/, path);
  for (const [path, bytes] of pages(unzipSync(first)))
    assert.match(strFromU8(bytes), /(class="running">[^<]*|"version":")Version 2, frozen 2026-11-09/, path);
  const header = unzipSync(draft['print/winter-diary.paper.docx'] ?? new Uint8Array())['word/header1.xml'];
  assert.match(strFromU8(header ?? new Uint8Array()), /Winter Diary · Draft/);
});

it('leaves out what cannot be made of a questionnaire, and says why', async () => {
  const write = () => {
    throw new CannotWrite('it is too entangled');
  };
  const format: KnownFormat & FormatWriter = { ...FORMATS.map, kinds: ['map.svg'], write };
  const files = await packageFiles(content, [
    { name: 'map', format, folder: 'map', forWhom: 'to see it' },
    { name: 'document', format: FORMATS.document, folder: 'questionnaire', forWhom: 'to open it' },
  ]);
  assert.deepEqual(
    files.map(({ name }) => name),
    ['README.txt', 'manifest.json', 'questionnaire/winter-diary.fork.json'],
  );
  const [readMe, manifest] = files.map(({ text }) => String(text));
  assert.match(readMe ?? '', /There is no \.map\.svg: it is too entangled\./);
  assert.deepEqual((JSON.parse(manifest ?? '') as { notMade: unknown }).notMade, [
    { format: 'map', kind: 'map.svg', why: 'it is too entangled' },
  ]);
});

/** A second thread, but in this one; what is called comes back later, as from a thread. */
function besideHere(
  change: (beside: Beside) => Beside,
  failed = new Promise<never>(() => undefined),
): { readonly open: OpenBeside; ended: number } {
  const watched = {
    ended: 0,
    open: (of: PackageContent) => {
      const api = besideApi();
      const through = {
        open: async (...given: Parameters<typeof api.open>) => api.open(...structuredClone(given)),
        make: async (kind: Parameters<typeof api.make>[0]) => structuredClone(await api.make(kind)),
        losses: async (format: Parameters<typeof api.losses>[0]) => structuredClone(await api.losses(format)),
      };
      return change(besideThrough(through, of, () => (watched.ended += 1), failed));
    },
  };
  return watched;
}

it('gives the same bytes where a second thread makes some of the files, and tells of each that is done', async () => {
  const made: string[] = [];
  const second = besideHere((beside) => ({
    ...beside,
    make: (kind) => {
      made.push(kind);
      return beside.make(kind);
    },
  }));
  const told: string[] = [];
  const bytes = await FORMATS.package.write(content, undefined, {
    beside: second.open,
    progress: (done, of) => told.push(`${done}/${of}`),
  });
  assert.deepEqual(bytes, await FORMATS.package.write(content));
  assert.deepEqual(made.sort(), Object.keys(BESIDE).sort());
  assert.deepEqual(
    told,
    Array.from(told, (_, n) => `${n + 1}/${told.length}`),
  );
  assert.equal(second.ended, 1);
});

it('leaves out what the second thread cannot make, and fails with it where it fails', async () => {
  const format: KnownFormat & FormatWriter = { ...FORMATS.map, kinds: ['map.svg'] };
  const map = [{ name: 'map', format, folder: 'map', forWhom: 'to see it' }];
  const cannot = besideHere((beside) => ({
    ...beside,
    make: () => Promise.resolve({ cannot: 'it is too entangled' }),
  }));
  const files = await packageFiles(content, map, { beside: cannot.open });
  assert.match(String(files[0]?.text), /There is no \.map\.svg: it is too entangled\./);
  const broken = besideHere((beside) => ({ ...beside, make: () => Promise.reject(new Error('it broke')) }));
  await assert.rejects(packageFiles(content, map, { beside: broken.open }), /it broke/);
  const gone = besideHere((beside) => beside, Promise.reject(new Error('it is gone')));
  await assert.rejects(packageFiles(content, map, { beside: gone.open }), /it is gone/);
  assert.deepEqual([cannot.ended, broken.ended, gone.ended], [1, 1, 1]);
  const noVersion = besideHere((beside) => beside).open({ ...content, document: { items: [] } as never });
  await assert.rejects(noVersion.make('map.svg'), /format/);
});

it('names the version of the tool that package.json has', () => {
  const { version } = JSON.parse(readFileSync('package.json', 'utf8')) as { version: string };
  assert.equal(TOOL, `Jolly Fork ${version}`);
});
