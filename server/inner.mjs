/** What the HTTP server and the app behind it have to agree on. Plain JavaScript: the server runs before anything is built. */
import { isIP } from 'node:net';

/** Set on every request, whatever came with it: the address of the connection. */
export const FROM_HEADER = 'x-jolly-fork-from';
/** Set where the token of the installation was shown. */
export const PROGRAM_HEADER = 'x-jolly-fork-program';
/** By which a made-up panel says how late it is by its own clock; believed where the token was shown. */
export const CLOCK_HEADER = 'x-jolly-fork-clock';

/**
 * Whether a name means this machine alone.
 *
 * @param {string} name
 */
export function isLoopback(name) {
  return (
    name === 'localhost' ||
    name === '[::1]' ||
    name === '::1' ||
    (isIP(name) === 4 && name.startsWith('127.'))
  );
}
