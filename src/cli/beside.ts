/** Makes some files of a package in a thread, which is bundled beside the command (`commands/NAME.thread.ts`). */
import v8 from 'node:v8';
import { Worker } from 'node:worker_threads';
import { wrap } from 'comlink';
import endpoint from 'comlink/dist/esm/node-adapter.mjs';
import { besideThrough, type BesideApi, type OpenBeside } from '../core/release/beside';

/**
 * Two threads keep two processors busy, and where there are no more, whatever V8 compiles in others is waited for, which is
 * half of the work by its defaults: functions are optimised once they have run six times as long, with less of what they
 * call, and of the rasteriser only what is called is compiled.
 */
const LESS_COMPILED = [
  '--interrupt-budget=800000',
  '--max-inlined-bytecode-size=150',
  '--max-inlined-bytecode-size-cumulative=300',
  '--wasm-lazy-compilation',
];

export const beside: OpenBeside = (content) => {
  for (const flag of LESS_COMPILED) v8.setFlagsFromString(flag);
  const thread = new Worker(new URL('./thread.mjs', import.meta.url));
  const failed = new Promise<never>((_, fail) => {
    thread.once('error', fail);
  });
  return besideThrough(wrap<BesideApi>(endpoint(thread)), content, () => void thread.terminate(), failed);
};
