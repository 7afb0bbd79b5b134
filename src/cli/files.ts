/** Reading the files and options a command is called with. */
import { readFileSync } from 'node:fs';
import { parseArgs, type ParseArgsConfig } from 'node:util';
import * as v from 'valibot';
import { pathText } from '../core/document/read';
import type { Questionnaire } from '../core/document/types';
import { readDocumentFile } from '../core/release/formats/read-document';

/** The call or a file could not be used; the message is one line that names the place. */
export class Misuse extends Error {}

/** Options and the one file of a command. */
export function readCall<Options extends NonNullable<ParseArgsConfig['options']>>(
  args: readonly string[],
  options: Options,
) {
  const { files, values } = readFiles(
    args,
    1,
    'a questionnaire file is needed, like study.fork.json',
    options,
  );
  return { file: files[0] as string, values };
}

/** Options and as many files as a command takes; `needed`: what is said where there are fewer. */
export function readFiles<Options extends NonNullable<ParseArgsConfig['options']>>(
  args: readonly string[],
  count: number,
  needed: string,
  options: Options = {} as Options,
) {
  const parsed = attempt(() =>
    parseArgs({
      args: [...args],
      options: { json: { type: 'boolean' }, ...options },
      allowPositionals: true,
      strict: true,
    }),
  );
  const { positionals } = parsed;
  if (positionals.length < count) throw new Misuse(needed);
  const extra = positionals[count];
  const expected = count === 1 ? 'one file is expected' : `${count} files are expected`;
  if (extra !== undefined) throw new Misuse(`${expected}; "${extra}" is one too many`);
  return {
    files: positionals,
    values: parsed.values as { json?: boolean } & Record<string, string | boolean | undefined>,
  };
}

/** An option that may be given several times. */
export function readMany(values: Readonly<Record<string, unknown>>, option: string): readonly string[] {
  const given = values[option];
  return Array.isArray(given) ? given.map(String) : [];
}

function attempt<Result>(action: () => Result): Result {
  try {
    return action();
  } catch (error) {
    throw new Misuse(error instanceof Error ? error.message : String(error));
  }
}

function readText(file: string): string {
  return readBytes(file).toString('utf8');
}

export function readBytes(file: string): Buffer {
  try {
    return readFileSync(file);
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code;
    throw new Misuse(`${file}: ${code === 'ENOENT' ? 'there is no such file' : `cannot be read (${code})`}`);
  }
}

/** A text file in UTF-8. */
export function readUtf8(file: string): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(readBytes(file));
  } catch (error) {
    if (error instanceof Misuse) throw error;
    throw new Misuse(`${file}: this is no text in UTF-8: save it in that encoding, and try again`);
  }
}

export function readQuestionnaire(file: string): Questionnaire {
  const result = readDocumentFile(readBytes(file));
  if (result.ok) return result.document;
  const [first, ...others] = result.problems;
  const more = others.length === 0 ? '' : ` (and ${others.length} more)`;
  throw new Misuse(`${file}: ${first ?? 'cannot be used'}${more}`);
}

/** A JSON file of the given shape. */
export function readJson<Schema extends v.GenericSchema>(
  file: string,
  schema: Schema,
): v.InferOutput<Schema> {
  const text = readText(file);
  const json: unknown = attempt(() => {
    try {
      return JSON.parse(text.replace(/^\uFEFF/, ''));
    } catch (error) {
      throw new Error(`${file}: this is not JSON: ${error instanceof Error ? error.message : String(error)}`);
    }
  });
  const parsed = v.safeParse(schema, json);
  if (parsed.success) return parsed.output;
  const [issue] = parsed.issues;
  const path = (issue.path ?? []).map((step: { key: unknown }) => step.key as string | number);
  throw new Misuse(`${file}: ${pathText(path)}: ${issue.message}`);
}

/** A whole number that an option was given. */
export function readWhole(text: string | boolean | undefined, option: string, least: number): number {
  const value = Number(text);
  if (typeof text === 'string' && Number.isSafeInteger(value) && value >= least) return value;
  throw new Misuse(
    `${option} takes a whole number from ${least}${text === undefined ? '' : `, not "${String(text)}"`}`,
  );
}
