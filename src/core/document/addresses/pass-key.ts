/** What is answered or drawn, in a pass of a repeated section or outside: the keys of answers, routes and draws. */
import type { Branded } from './brand';

/** `NAME`, or `NAME#PASS` in a repeated section: an item, a row of a grid, or a section that draws. Passes count from 1. */
export type PassKey = Branded<'pass key'>;

/** `pass` null: not in a repeated section. */
export function passKey(name: string, pass: number | null): PassKey {
  return (pass === null ? name : `${name}#${pass}`) as PassKey;
}

/** Any text: what has no pass at its end is a name as a whole, also where no item can have such a name. */
export function readPassKey(key: string): { readonly name: string; readonly pass: number | null } {
  const at = key.lastIndexOf('#');
  const pass = key.slice(at + 1);
  return at < 0 || !/^\d+$/.test(pass)
    ? { name: key, pass: null }
    : { name: key.slice(0, at), pass: Number(pass) };
}

/** Without the pass. */
export function nameInKey(key: string): string {
  return readPassKey(key).name;
}

/** The same pass of something else: of an item its row, of a row its grid. */
export function renamedKey(key: string, name: string): PassKey {
  return passKey(name, readPassKey(key).pass);
}
