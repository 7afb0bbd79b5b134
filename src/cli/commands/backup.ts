/** `jolly-fork backup`: the database of an installation into one file. */
import { backup } from '../../store/backup';
import { callOf, told } from '../database-call';

export async function command(args: readonly string[]): Promise<number> {
  const { folder, file } = callOf(args, 'the file to write is needed, like backup.sqlite');
  await told(() => backup(folder, file));
  process.stdout.write(`${file} holds all that was saved in ${folder}; it was read through and is whole.\n`);
  return 0;
}
