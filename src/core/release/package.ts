/**
 * The hand-over package: every file that can be made of a questionnaire, in folders, with a manifest and a read-me. The same
 * questionnaire of the same version gives the same bytes.
 */
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { fileStem } from '../document/names';
import { TOOL } from '../document/types';
import { placeAt } from '../routing/problems';
import { placeWords } from '../wording/places';
import { madeOrNot, type Made } from './beside';
import { madeUpRows, type DataRows } from './data/rows';
import type { FormatWriter, KnownFormat, Making, StudyContent, Written, WrittenFile } from './format-types';
import { isBeside } from './formats/known';
import { preparedFor } from './formats/prepared';
import { versionWords } from './version-words';

/** Respondents that are made up where no rows are given. */
const MADE_UP = 1000;
const SEED = 1;

/** A format that goes into the package: in which folder, and for whom. */
export interface Packed {
  readonly name: string;
  readonly format: KnownFormat & FormatWriter;
  readonly folder: string;
  readonly forWhom: string;
}

interface Listed {
  readonly path: string;
  readonly format: string;
  readonly bytes: number;
  readonly sha256: string;
}

/** Files in folders, the read-me and the manifest first. `progress`: after each of so many files. */
export async function packageFiles(
  content: StudyContent,
  packed: readonly Packed[],
  making: Making = {},
): Promise<WrittenFile[]> {
  const { plan } = preparedFor(content.document);
  const data = content.data ?? madeUpRows(plan, MADE_UP, SEED);
  const whole = { ...content, data };
  const stem = fileStem(content.document.title);
  const files: WrittenFile[] = [];
  const listed: Listed[] = [];
  const notMade: { format: string; kind: string; why: string }[] = [];
  const losses: { format: string; place: string; what: string }[] = [];
  for (const { name, folder, kind, made } of await allMade(whole, packed, making)) {
    if ('cannot' in made) {
      notMade.push({ format: name, kind, why: made.cannot });
      continue;
    }
    for (const file of filesOf(made.written, `${stem}.${kind}`)) {
      const path = `${folder}/${file.name}`;
      // The rows are one file, whatever tells of them.
      if (files.some(({ name: known, text }) => known === path && text === file.text)) continue;
      files.push({ name: path, text: file.text });
      const bytes = typeof file.text === 'string' ? new TextEncoder().encode(file.text) : file.text;
      listed.push({ path, format: name, bytes: bytes.length, sha256: bytesToHex(sha256(bytes)) });
    }
  }
  for (const { name, format } of packed)
    for (const { at, what } of await format.losses(whole))
      losses.push({ format: name, place: placeWords(content.document, placeAt(at)), what });
  const manifest = {
    tool: TOOL,
    title: content.document.title,
    version: versionWords(content.version),
    ...(content.version?.author === undefined ? {} : { author: content.version.author }),
    ...(content.version?.note ? { note: content.version.note } : {}),
    ...(content.version?.reason ? { frozenAllTheSame: content.version.reason } : {}),
    rows: data.about,
    files: listed,
    ...(notMade.length === 0 ? {} : { notMade }),
    losses,
  };
  return [
    { name: 'README.txt', text: readMe(whole, packed, losses.length, notMade) },
    { name: 'manifest.json', text: `${JSON.stringify(manifest, null, 2)}\n` },
    ...files,
  ];
}

/** Each file in order, whichever thread makes it: without a second one all are made here. */
async function allMade(content: StudyContent, packed: readonly Packed[], { progress, beside }: Making) {
  const tasks = packed.flatMap((each) =>
    (each.format.kinds ?? [each.format.endings[0]]).map((kind) => ({ ...each, kind })),
  );
  let done = 0;
  const counted = <Result>(result: Result): Result => {
    done += 1;
    progress?.(done, tasks.length);
    return result;
  };
  const second = beside?.(content);
  try {
    const there = tasks.map(({ kind }) =>
      second && isBeside(kind) ? second.make(kind).then(counted) : null,
    );
    // Where it fails while the others are made, that is told at the end.
    const all = Promise.all(there);
    all.catch(() => undefined);
    const here: (Made | null)[] = [];
    for (const { format, kind } of tasks)
      here.push(second && isBeside(kind) ? null : counted(await madeOrNot(format, content, kind)));
    return (await all).flatMap((made, n) => {
      const [task, own] = [tasks[n], made ?? here[n]];
      return task && own ? [{ ...task, made: own }] : [];
    });
  } finally {
    second?.end();
  }
}

function filesOf(written: Written, name: string): readonly WrittenFile[] {
  return typeof written === 'string' || written instanceof Uint8Array ? [{ name, text: written }] : written;
}

function readMe(
  { document, version, data }: StudyContent & { readonly data: DataRows },
  packed: readonly Packed[],
  losses: number,
  notMade: readonly { readonly kind: string; readonly why: string }[],
): string {
  const { author, note, reason } = version ?? {};
  const folders = [...new Set(packed.map(({ folder }) => folder))];
  const lines = [
    document.title,
    versionWords(version),
    ...(author === undefined ? [] : [`By ${author}${note ? `: ${note}` : ''}`]),
    ...(reason ? ['', `Frozen though something stood in the way, because: ${reason}`] : []),
    '',
    'What each folder is for:',
    ...folders.flatMap((folder) => [
      '',
      `${folder}/`,
      ...packed
        .filter((each) => each.folder === folder)
        .map(({ format, forWhom }) => `  ${format.words}: ${forWhom}`),
    ]),
    '',
    ...notMade.map(({ kind, why }) => `There is no .${kind}: ${why}.`),
    `The data are of ${data.about}. In CSV files, a text that a spreadsheet would run as a formula has an apostrophe in front.`,
    'manifest.json names every file with its size and SHA-256, and what a format cannot hold, by its place' +
      (losses === 0
        ? '; nothing of this questionnaire is lost.'
        : ` (${losses.toLocaleString('en')} things).`),
    'Questionnaire and plain-text script hold all of it: either reads back to the same.',
  ];
  return `${lines.join('\r\n')}\r\n`;
}
