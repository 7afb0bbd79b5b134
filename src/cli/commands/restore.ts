/** `jolly-fork restore`: a backup of the database back in its place. */
import { restore } from '../../store/backup';
import { callOf, told } from '../database-call';

export async function command(args: readonly string[]): Promise<number> {
  const { folder, file } = callOf(args, 'the backup is needed, like backup.sqlite');
  const kept = await told(() => restore(folder, file, Date.now()));
  process.stdout.write(
    `${folder} is as it was when ${file} was made.${kept === null ? '' : ` What was there before is kept in ${kept}.`}\n`,
  );
  return 0;
}
