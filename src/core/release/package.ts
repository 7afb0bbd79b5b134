/**
 * The hand-over package: every file that can be made of a questionnaire, in folders, with a manifest and a read-me. The same
 * questionnaire of the same version gives the same bytes.
 */
import { fileStem } from '../document/names';
import { TOOL } from '../document/types';
import { checksumOf } from '../exchange/checksum';
import { NO_WORK } from '../exchange/work-file';
import { placeAt } from '../routing/problems';
import { placeWords } from '../wording/places';
import { madeOrNot, type Beside, type Made, type PackageContent } from './beside';
import { madeUpRows, type DataRows } from './data/rows';
import type {
  FormatWriter,
  KnownFormat,
  Loss,
  Making,
  Progress,
  StudyContent,
  Written,
  WrittenFile,
} from './format-types';
import { isBeside, isOfBeside, kindsOfKnown } from './formats/known';
import { preparedFor } from './formats/prepared';
import { versionWords } from './version-words';

/** Respondents that are made up where no rows are given. */
const MADE_UP = 1000;
const SEED = 1;
const encoder = new TextEncoder();

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
  content: PackageContent,
  packed: readonly Packed[],
  making: Making = {},
): Promise<WrittenFile[]> {
  const second = making.beside?.(content);
  try {
    return await filesOfBoth(content, packed, making.progress, second);
  } finally {
    second?.end();
  }
}

async function filesOfBoth(
  content: PackageContent,
  packed: readonly Packed[],
  progress: Progress | undefined,
  second: Beside | undefined,
): Promise<WrittenFile[]> {
  const inSecond = second === undefined ? null : askedOf(second, packed);
  const { plan } = preparedFor(content.document);
  const data = content.data ?? madeUpRows(plan, MADE_UP, SEED);
  const whole = { ...content, work: NO_WORK, data };
  const stem = fileStem(content.document.title);
  const files: WrittenFile[] = [];
  const listed: Promise<Listed>[] = [];
  const notMade: { format: string; kind: string; why: string }[] = [];
  const losses: { format: string; place: string; what: string }[] = [];
  /** By path: the rows are one file, whatever tells of them. */
  const texts = new Map<string, WrittenFile['text']>();
  for (const { name, folder, kind, made } of await allMade(whole, packed, progress, inSecond)) {
    if ('cannot' in made) {
      notMade.push({ format: name, kind, why: made.cannot });
      continue;
    }
    for (const file of filesOf(made.written, `${stem}.${kind}`)) {
      const path = `${folder}/${file.name}`;
      if (texts.get(path) === file.text) continue;
      texts.set(path, file.text);
      const bytes = new Uint8Array(typeof file.text === 'string' ? encoder.encode(file.text) : file.text);
      files.push({ name: path, text: bytes });
      listed.push(checksumOf(bytes).then((sha256) => ({ path, format: name, bytes: bytes.length, sha256 })));
    }
  }
  for (const { name, format } of packed)
    for (const { at, what } of await (inSecond?.losses.get(name) ?? format.losses(whole)))
      losses.push({ format: name, place: placeWords(content.document, placeAt(at)), what });
  const manifest = {
    tool: TOOL,
    title: content.document.title,
    version: versionWords(content.version),
    ...(content.version?.author === undefined ? {} : { author: content.version.author }),
    ...(content.version?.note ? { note: content.version.note } : {}),
    ...(content.version?.reason ? { frozenAllTheSame: content.version.reason } : {}),
    rows: data.about,
    files: await Promise.all(listed),
    ...(notMade.length === 0 ? {} : { notMade }),
    losses,
  };
  return [
    { name: 'README.txt', text: readMe(whole, packed, losses.length, notMade) },
    { name: 'manifest.json', text: `${JSON.stringify(manifest, null, 2)}\n` },
    ...files,
  ];
}

/** What the second thread is asked for: all of it at once, so that it never waits for this one. */
interface AskedOfSecond {
  /** By kind of file. */
  readonly files: ReadonlyMap<string, Promise<Made>>;
  /** By format. */
  readonly losses: ReadonlyMap<string, Promise<readonly Loss[]>>;
}

function askedOf(second: Beside, packed: readonly Packed[]): AskedOfSecond {
  const files = new Map(
    packed
      .flatMap(({ format }) => kindsOfKnown(format))
      .filter(isBeside)
      .map((kind) => [kind, second.make(kind)]),
  );
  const losses = new Map(
    packed
      .map(({ name }) => name)
      .filter(isOfBeside)
      .map((name) => [name, second.losses(name)]),
  );
  // Where it fails before anybody waits for it, whoever waits is told.
  for (const asked of [...files.values(), ...losses.values()]) asked.catch(() => undefined);
  return { files, losses };
}

/** Each file in order, whichever thread makes it. */
async function allMade(
  content: StudyContent,
  packed: readonly Packed[],
  progress: Progress | undefined,
  inSecond: AskedOfSecond | null,
) {
  const tasks = packed.flatMap((each) => kindsOfKnown(each.format).map((kind) => ({ ...each, kind })));
  let done = 0;
  const counted = <Result>(result: Result): Result => {
    done += 1;
    progress?.(done, tasks.length);
    return result;
  };
  const there = tasks.map(({ kind }) => inSecond?.files.get(kind)?.then(counted));
  // Where it fails while the others are made, that is told at the end.
  const all = Promise.all(there);
  all.catch(() => undefined);
  const here: (Made | null)[] = [];
  for (const [n, { format, kind }] of tasks.entries())
    here.push(there[n] === undefined ? counted(await madeOrNot(format, content, kind)) : null);
  return (await all).flatMap((made, n) => {
    const [task, own] = [tasks[n], made ?? here[n]];
    return task && own ? [{ ...task, made: own }] : [];
  });
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
