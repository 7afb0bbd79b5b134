/** What the commands on an installation's database have in common: their call, and what is told of what is wrong with it. */
import { parseArgs } from 'node:util';
import { DatabaseProblem } from '../store/database-file';
import { Misuse } from './files';

/** The folder of the data, and the one file; `wanted`: what is said where there is none. */
export function callOf(args: readonly string[], wanted: string): { folder: string; file: string } {
  const { values, positionals } = readArgs(args);
  const [file, extra] = positionals;
  if (file === undefined) throw new Misuse(wanted);
  if (extra !== undefined) throw new Misuse(`one file is expected; "${extra}" is one too many`);
  return { folder: values.data ?? process.env.JOLLY_FORK_DATA ?? 'data', file };
}

function readArgs(args: readonly string[]) {
  try {
    return parseArgs({ args: [...args], options: { data: { type: 'string' } }, allowPositionals: true });
  } catch (error) {
    throw new Misuse(error instanceof Error ? error.message : String(error));
  }
}

/** What is wrong with a database is no fault of the program. */
export async function told<Result>(work: () => Result | Promise<Result>): Promise<Result> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof DatabaseProblem) throw new Misuse(error.message);
    throw error;
  }
}
