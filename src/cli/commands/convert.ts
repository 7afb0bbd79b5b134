/** `jolly-fork convert`: a questionnaire into a file of another format, or a questionnaire of one. */
import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { CannotWrite } from '../../core/release/cannot-write';
import type { FileFormat, StudyContent, Written } from '../../core/release/format-types';
import { FORMATS } from '../../core/release/formats';
import { kindsOf, type FormatName } from '../../core/release/formats/known';
import { NO_WORK } from '../../core/exchange/work-file';
import { postAddress } from '../../core/responding/instrument-data';
import type { Questionnaire } from '../../core/document/types';
import { MOST_ROWS, rowsGiven, rowsOfCsv, type DataRows } from '../../core/release/data/rows';
import { planOf } from '../../core/routing/planner';
import { placeAt, type DocumentPlace } from '../../core/routing/problems';
import { placeWords } from '../../core/wording/places';
import { beside } from '../beside';
import { Misuse, readBytes, readCall, readQuestionnaire, readUtf8, readWhole } from '../files';

const OPTIONS = {
  to: { type: 'string' },
  from: { type: 'string' },
  out: { type: 'string' },
  data: { type: 'string' },
  simulate: { type: 'string' },
  seed: { type: 'string' },
  csv: { type: 'boolean' },
  post: { type: 'string' },
} as const;

type Values = Readonly<Record<string, string | boolean | undefined>>;

/** What the format cannot hold, or the file did not say. */
interface ConversionLoss {
  readonly at: DocumentPlace | { readonly line: number };
  readonly message: string;
  /** The place for a person. */
  readonly place: string;
}

export async function command(args: readonly string[]): Promise<number> {
  const { file, values } = readCall(args, OPTIONS);
  const { to, from, out } = values;
  if (typeof out !== 'string') throw new Misuse('convert needs --out PATH');
  if ((to === undefined) === (from === undefined))
    throw new Misuse(
      'convert needs either --to FORMAT, for a questionnaire, or --from FORMAT, for another file',
    );
  const { losses, written } =
    to === undefined ? await taken(file, String(from), out) : await given(file, String(to), out, values);
  if (values.json) {
    const told = { written, losses: losses.map(({ at, message }) => ({ at, message })) };
    process.stdout.write(`${JSON.stringify(told, null, 2)}\n`);
  } else {
    const lines = losses.map(({ place, message }) => `  ${place}: ${message}`);
    const head = losses.length === 0 ? [] : ['Not taken over:'];
    process.stdout.write(`${[`Wrote ${written.join(', ')}.`, ...head, ...lines].join('\n')}\n`);
  }
  return 0;
}

interface Converted {
  /** Paths. */
  readonly written: readonly string[];
  readonly losses: readonly ConversionLoss[];
}

/** A questionnaire into another format. */
async function given(file: string, to: string, out: string, values: Values): Promise<Converted> {
  const { write, losses, ofData } = formatNamed(to, 'write');
  const takesData = ofData === true || to === 'package';
  const document = readQuestionnaire(file);
  const data = dataFor(document, to, takesData, values);
  const post = postGiven(to, values);
  const content: StudyContent = {
    document,
    work: NO_WORK,
    ...(data === null ? {} : { data }),
    ...(post === null ? {} : { post }),
  };
  const kind = kindOf(to as FormatName, out, values);
  const written = putAll(out, await madeOr(file, () => write(content, kind, { beside })));
  const lost = (await losses(content)).map(({ at, what }) => {
    const place = placeAt(at);
    return { at: place, message: what, place: placeWords(document, place) };
  });
  return { written, losses: lost };
}

/** Throws `Misuse` where the file cannot be made of this questionnaire. */
async function madeOr(file: string, make: () => Written | Promise<Written>): Promise<Written> {
  try {
    return await make();
  } catch (error) {
    if (!(error instanceof CannotWrite)) throw error;
    throw new Misuse(`${file}: ${error.message}`);
  }
}

/** The rows for a format of data; null for any other. */
function dataFor(
  document: Questionnaire,
  to: string,
  takesData: boolean,
  { data, simulate, seed }: Values,
): DataRows | null {
  if (!takesData) {
    if (data !== undefined || simulate !== undefined)
      throw new Misuse(`--data and --simulate are for formats of data, which ${to} is not`);
    return null;
  }
  // The package makes up respondents where it is given no rows.
  if (to === 'package' && data === undefined && simulate === undefined) return null;
  if ((data === undefined) === (simulate === undefined))
    throw new Misuse(`--to ${to} needs rows: either --data rows.csv, or --simulate N --seed S`);
  const plan = planOf(document);
  if (typeof data === 'string') {
    const read = rowsOfCsv(plan, path.basename(data), readUtf8(data));
    if (!read.ok) throw new Misuse([`${data}: ${read.problems[0]}`, ...read.problems.slice(1)].join('\n  '));
    return read.data;
  }
  const count = readWhole(simulate, '--simulate', 1);
  if (count > MOST_ROWS) throw new Misuse(`--simulate takes at most ${MOST_ROWS}`);
  const read = rowsGiven(plan, { of: 'made-up', count, seed: readWhole(seed ?? '1', '--seed', 0) });
  if (!read.ok) throw new Misuse(read.problems.join(' '));
  return read.data;
}

/** Where an instrument posts its cases to; null for nowhere. */
function postGiven(to: string, { post }: Values): string | null {
  if (post === undefined) return null;
  if (to !== 'instrument' && to !== 'package')
    throw new Misuse(`--post is for --to instrument and --to package, not for ${to}`);
  const read = postAddress(String(post));
  if (!read.ok) throw new Misuse(`--post: ${read.problem}`);
  return read.address;
}

/** Which kind of file, where a format is written as several: `--csv`, or by what PATH ends with. */
function kindOf(to: FormatName, out: string, { csv }: Values): string {
  const kinds = kindsOf(to);
  const [first = ''] = kinds;
  const endOf = (name: string) => name.toLowerCase().split('.').at(-1);
  if (csv === true && to !== 'items') throw new Misuse(`--csv is for --to items, not for ${to}`);
  if (kinds.length === 1) return first;
  const wanted = csv === true ? 'csv' : endOf(out);
  const asked = kinds.find((kind) => endOf(kind) === wanted);
  if (asked !== undefined) return asked;
  if (to === 'items') return first;
  const endings = kinds.map((kind) => `.${endOf(kind)}`).join(', ');
  throw new Misuse(`--out ${out}: ${to} is written as ${endings}; let PATH end with one of them`);
}

/** A questionnaire of a file in another format. */
async function taken(file: string, from: string, out: string): Promise<Converted> {
  const result = await formatNamed(from, 'read').read(readBytes(file), path.basename(file));
  if (!result.ok) throw new Misuse(`${file}: ${result.problems[0] ?? 'cannot be read'}`);
  put(out, FORMATS.document.write(result.content));
  const losses = (result.doubts ?? []).map(({ line, what }) => ({
    at: { line },
    message: what,
    place: `line ${line}`,
  }));
  return { written: [out], losses };
}

type Doing<Way extends 'read' | 'write'> = FileFormat & {
  readonly [Key in Way]: NonNullable<FileFormat[Key]>;
};

/** Work is left out: it belongs to an installation, and the shell has none. */
function formatNamed<Way extends 'read' | 'write'>(name: string, way: Way): Doing<Way> {
  const known = Object.entries<FileFormat>(FORMATS).filter(
    ([each, of]) => each !== 'work' && of[way] !== null,
  );
  const found = known.find(([each]) => each === name);
  if (found !== undefined) return found[1] as Doing<Way>;
  const names = known.map(([each]) => each).join(', ');
  throw new Misuse(`there is no format "${name}" to ${way === 'read' ? 'read from' : 'write to'}: ${names}`);
}

/** One file, or a folder of several. */
function putAll(out: string, content: Written): string[] {
  if (typeof content === 'string' || content instanceof Uint8Array) {
    put(out, content);
    return [out];
  }
  return content.map(({ name, text }) => {
    const to = path.join(out, name);
    put(to, text, true);
    return to;
  });
}

function put(out: string, content: string | Uint8Array, inFolder = false): void {
  try {
    if (inFolder) mkdirSync(path.dirname(out), { recursive: true });
    writeFileSync(out, content);
  } catch (error) {
    throw new Misuse(`${out}: cannot be written (${(error as NodeJS.ErrnoException).code})`);
  }
}
