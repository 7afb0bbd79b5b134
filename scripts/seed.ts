/** Seeds the demo studies into the data folder; `--fresh` brings them back as they were. */
import { openStore } from '../src/store/open';
import { seedDemo } from '../src/store/demo';
import { databaseIn, DatabaseProblem, makeReady } from '../src/store/database-file';
import { holdFolder } from '../src/store/hold';

const folder = process.env.JOLLY_FORK_DATA ?? 'data';
try {
  const hold = holdFolder(folder);
  makeReady(databaseIn(folder));
  seedDemo(openStore(databaseIn(folder)), Date.now(), { fresh: process.argv.includes('--fresh') });
  hold.release();
} catch (error) {
  if (!(error instanceof DatabaseProblem)) throw error;
  console.error(error.message);
  process.exitCode = 1;
}
