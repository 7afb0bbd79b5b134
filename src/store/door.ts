/**
 * What the server does with its data folder before it says that it is ready: holds it, looks at the database, brings its
 * tables up to date, and sees to the copy of every day. Bundled by itself, since it runs before the app is loaded.
 */
import { copyOfTheDay } from './backup';
import { databaseIn, DatabaseProblem, makeReady } from './database-file';
import { holdFolder } from './hold';

export { DatabaseProblem };

const HOUR = 3_600_000;

export interface Door {
  /** A copy that was made before the tables were brought up to date. */
  readonly copied: string | null;
  close(): void;
}

/** Throws a `DatabaseProblem` with the sentence to end with. `keep`: copies of days that are kept; 0 makes none. */
export function openDoor(folder: string, keep: number, log: (text: string) => void): Door {
  const hold = holdFolder(folder);
  try {
    const copied = makeReady(databaseIn(folder));
    const copy = () =>
      void copyOfTheDay(folder, Date.now(), keep).catch((error: unknown) => {
        log(
          `The copy of the day could not be made: ${error instanceof Error ? error.message : String(error)}`,
        );
      });
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
