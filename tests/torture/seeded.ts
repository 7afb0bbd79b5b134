/** A process that tries seeds of one part, one after the other, and tells each as it begins: one may take it down. */
import process from 'node:process';
import { SEEDED } from './parts';

export type Told =
  { readonly at: number } | { readonly failed: number; readonly why: string } | { readonly done: true };

const [name = '', ...seeds] = process.argv.slice(2);
const part = SEEDED.find((each) => each.name === name);
if (part === undefined) throw new Error(`there is no part ${name}`);
const tell = (what: Told) => process.send?.(what);
const [from = 0, to = 0, step = 1] = seeds.map(Number);
for (let seed = from; seed < to; seed += step) {
  tell({ at: seed });
  try {
    await part.one(seed);
  } catch (error) {
    tell({ failed: seed, why: error instanceof Error ? (error.stack ?? error.message) : String(error) });
  }
}
tell({ done: true });
process.disconnect?.();
process.exit(0);
