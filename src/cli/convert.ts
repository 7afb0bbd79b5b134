/** `jolly-fork convert`: a questionnaire into a file of another format, or a questionnaire of one. */
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { FORMATS, type FileFormat, type FormatName } from '../core/exchange/formats';
import { NO_WORK } from '../core/exchange/work-file';
import type { DocumentPlace } from '../core/routing/problems';
import { placeAt } from '../core/release/text-changes';
import { placeWords } from '../core/wording/places';
import { Misuse, readCall, readQuestionnaire } from './files';

const OPTIONS = { to: { type: 'string' }, from: { type: 'string' }, out: { type: 'string' } } as const;

/** What the format cannot hold, or the file did not say. */
interface ConversionLoss {
  readonly at: DocumentPlace | { readonly line: number };
  readonly message: string;
  /** The place for a person. */
  readonly place: string;
}

export async function convertCommand(args: readonly string[]): Promise<number> {
  const { file, values } = readCall(args, OPTIONS);
  const { to, from, out } = values;
  if (typeof out !== 'string') throw new Misuse('convert needs --out PATH');
  if ((to === undefined) === (from === undefined))
    throw new Misuse(
      'convert needs either --to FORMAT, for a questionnaire, or --from FORMAT, for another file',
    );
  const losses = to === undefined ? await taken(file, String(from), out) : await given(file, String(to), out);
  if (values.json) {
    const told = { written: [out], losses: losses.map(({ at, message }) => ({ at, message })) };
    process.stdout.write(`${JSON.stringify(told, null, 2)}\n`);
  } else {
    const lines = losses.map(({ place, message }) => `  ${place}: ${message}`);
    const head = losses.length === 0 ? [] : ['Not taken over:'];
    process.stdout.write(`${[`Wrote ${out}.`, ...head, ...lines].join('\n')}\n`);
  }
  return 0;
}

/** A questionnaire into another format. */
async function given(file: string, to: string, out: string): Promise<ConversionLoss[]> {
  const { write, losses } = formatNamed(to, 'write');
  const document = readQuestionnaire(file);
  const content = { document, work: NO_WORK };
  if (write === null) throw new Misuse(`nothing can be written as "${to}"`);
  put(out, await write(content));
  return losses(content).map(({ at, what }) => {
    const place = placeAt(at);
    return { at: place, message: what, place: placeWords(document, place) };
  });
}

/** A questionnaire of a file in another format. */
async function taken(file: string, from: string, out: string): Promise<ConversionLoss[]> {
  const { read } = formatNamed(from, 'read');
  const result = read?.(bytesOf(file), path.basename(file));
  if (result === undefined) throw new Misuse(`nothing can be read from "${from}"`);
  if (!result.ok) throw new Misuse(`${file}: ${result.problems[0] ?? 'cannot be read'}`);
  put(out, await FORMATS.document.write(result.content));
  return (result.doubts ?? []).map(({ line, what }) => ({
    at: { line },
    message: what,
    place: `line ${line}`,
  }));
}

function formatNamed(name: string, way: 'read' | 'write'): FileFormat {
  // Work belongs to an installation: the shell has none.
  const known = (Object.keys(FORMATS) as FormatName[]).filter(
    (each) => each !== 'work' && FORMATS[each][way] !== null,
  );
  if (!known.includes(name as FormatName))
    throw new Misuse(
      `there is no format "${name}" to ${way === 'read' ? 'read from' : 'write to'}: ${known.join(', ')}`,
    );
  return FORMATS[name as FormatName];
}

function bytesOf(file: string): Uint8Array {
  try {
    return readFileSync(file);
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    throw new Misuse(`${file}: ${code === 'ENOENT' ? 'there is no such file' : `cannot be read (${code})`}`);
  }
}

function put(out: string, content: string | Uint8Array): void {
  try {
    writeFileSync(out, content);
  } catch (error) {
    throw new Misuse(`${out}: cannot be written (${(error as NodeJS.ErrnoException).code})`);
  }
}
