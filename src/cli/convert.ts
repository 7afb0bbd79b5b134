/** `jolly-fork convert`: a questionnaire into a file of another format, or a questionnaire of one. */
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { FORMATS, type FileFormat } from '../core/exchange/formats';
import { NO_WORK } from '../core/exchange/work-file';
import { placeAt, type DocumentPlace } from '../core/routing/problems';
import { placeWords } from '../core/wording/places';
import { Misuse, readBytes, readCall, readQuestionnaire } from './files';

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
  put(out, await write(content));
  return losses(content).map(({ at, what }) => {
    const place = placeAt(at);
    return { at: place, message: what, place: placeWords(document, place) };
  });
}

/** A questionnaire of a file in another format. */
async function taken(file: string, from: string, out: string): Promise<ConversionLoss[]> {
  const result = formatNamed(from, 'read').read(readBytes(file), path.basename(file));
  if (!result.ok) throw new Misuse(`${file}: ${result.problems[0] ?? 'cannot be read'}`);
  put(out, await FORMATS.document.write(result.content));
  return (result.doubts ?? []).map(({ line, what }) => ({
    at: { line },
    message: what,
    place: `line ${line}`,
  }));
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

function put(out: string, content: string | Uint8Array): void {
  try {
    writeFileSync(out, content);
  } catch (error) {
    throw new Misuse(`${out}: cannot be written (${(error as NodeJS.ErrnoException).code})`);
  }
}
