/** The way in of this process, and which pages and doors are open without it. */
import { store } from '../store/open';
import { readReach } from './reach';
import { Entrance } from './signed-in';

let made: Entrance | null = null;

/** Throws where the settings cannot be used; the server has looked at them before it listens. */
export function entrance(): Entrance {
  if (made === null) {
    const read = readReach(process.env);
    if (!read.ok) throw new Error(read.problem);
    made = new Entrance(store(), read.reach);
  }
  return made;
}

/** By the route that answers, never by the address as it came, which can be written in many ways. */
const OPEN_TO_ALL: ReadonlySet<string> = new Set([
  '/sign-in',
  '/review/[token]',
  '/review/[token]/[stop]',
  '/api/review/[token]/[door]',
  '/no-review',
  '/answer/[token]',
  '/answer/[token]/[key]',
  '/answer/program/[file]',
  '/api/answer/[token]/[door]',
  '/404',
]);

export const isOpenToAll = (routePattern: string): boolean => OPEN_TO_ALL.has(routePattern);

/** Where somebody may be led on to after signing in: only to pages of ours. */
export function ledOn(to: string | null): string {
  return to !== null && /^\/(studies\/[\w-]+(\/versions\/\d+)?(\/[a-z]+)?)?(\?[\w=&%.,:+-]*)?$/.test(to)
    ? to
    : '/';
}
