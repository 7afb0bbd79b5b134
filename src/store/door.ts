/**
 * What the server does with its data folder before it says that it is ready: holds it, looks at the database, brings its
 * tables up to date, and sees to the copy of every day. Bundled by itself, since it runs before the app is loaded.
 */
import { Worker } from 'node:worker_threads';
import { databaseIn, DatabaseProblem, makeReady } from './database-file';
import { holdFolder } from './hold';

export { DatabaseProblem };

/** Beside this file, where both are built. */
const COPIER = new URL('copy.worker.mjs', import.meta.url);

function copyOnThread(folder: string, keep: number, failed: (problem: string) => void): void {
  const thread = new Worker(COPIER, { workerData: { folder, now: Date.now(), keep } });
  thread.on('message', (problem: unknown) => {
    if (typeof problem === 'string') failed(problem);
  });
  thread.on('error', (error) => failed(error.message));
  thread.unref();
}

const HOUR = 3_600_000;

export interface OpenStore {
  /** A copy that was made before the tables were brought up to date. */
  readonly copied: string | null;
  close(): void;
}

/** Throws a `DatabaseProblem` with the sentence to end with. `keep`: copies of days that are kept; 0 makes none. */
export function openDoor(folder: string, keep: number, log: (text: string) => void): OpenStore {
  const hold = holdFolder(folder);
  try {
    const copied = makeReady(databaseIn(folder));
    const copy = () => {
      copyOnThread(folder, keep, (problem) => log(`The copy of the day could not be made: ${problem}`));
    };
    copy();
    const timer = setInterval(copy, HOUR);
    timer.unref();
    return {
      copied,
      close() {
        clearInterval(timer);
        hold.release();
      },
    };
  } catch (error) {
    hold.release();
    throw error;
  }
}
