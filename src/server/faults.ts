/** What went wrong below a door, in the words of the person who waits for an answer. */
import { codeOf } from '../store/database-file';

/** The status and the sentence. Anything else than the database is a fault of the program. */
export function faultOf(error: unknown): { readonly status: 500 | 507; readonly problem: string } {
  const code = codeOf(error) ?? '';
  const is = (...kinds: string[]) => kinds.some((kind) => code === kind || code.startsWith(`${kind}_`));
  if (is('SQLITE_FULL', 'ENOSPC'))
    return {
      status: 507,
      problem: `The disk of the server is full, so nothing was saved. ${KEPT} Make room there; saving is tried again.`,
    };
  if (is('SQLITE_READONLY', 'SQLITE_CANTOPEN', 'SQLITE_PERM', 'EACCES', 'EROFS'))
    return {
      status: 507,
      problem: `The data folder of the server cannot be written, so nothing was saved. ${KEPT} Whoever keeps the server gives it the right to write there.`,
    };
  if (is('SQLITE_IOERR', 'SQLITE_CORRUPT', 'SQLITE_NOTADB', 'EIO'))
    return {
      status: 507,
      problem: `The database of the server cannot be read or written (${code}), so nothing was saved. ${KEPT} Whoever keeps the server looks at its disk, and brings a backup back if need be.`,
    };
  return {
    status: 500,
    problem:
      'This could not be done, by a fault of the program. Nothing was changed; the details are in the log of the server.',
  };
}

const KEPT = 'What you wrote is kept in this browser.';
