/** `jolly-fork backup` and `restore`: the database of an installation into one file, and back. */
import { parseArgs } from 'node:util';
import { backup, restore } from '../store/backup';
import { DatabaseProblem } from '../store/database-file';
import { Misuse } from './files';

export async function backupCommand(args: readonly string[]): Promise<number> {
  const { folder, file } = callOf(args, 'the file to write is needed, like backup.sqlite');
  await told(() => backup(folder, file));
  process.stdout.write(`${file} holds all that was saved in ${folder}; it was read through and is whole.\n`);
  return 0;
}

export async function restoreCommand(args: readonly string[]): Promise<number> {
  const { folder, file } = callOf(args, 'the backup is needed, like backup.sqlite');
  const kept = await told(() => restore(folder, file, Date.now()));
  process.stdout.write(
    `${folder} is as it was when ${file} was made.${kept === null ? '' : ` What was there before is kept in ${kept}.`}\n`,
  );
  return 0;
}

function callOf(args: readonly string[], wanted: string): { folder: string; file: string } {
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
async function told<Result>(work: () => Result | Promise<Result>): Promise<Result> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof DatabaseProblem) throw new Misuse(error.message);
    throw error;
  }
}
