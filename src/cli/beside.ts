/** Makes some files of a package in a thread, which is bundled beside the command (`commands/NAME.thread.ts`). */
import { Worker } from 'node:worker_threads';
import { wrap } from 'comlink';
import endpoint from 'comlink/dist/esm/node-adapter.mjs';
import { besideThrough, type BesideApi, type OpenBeside } from '../core/release/beside';

export const beside: OpenBeside = (content) => {
  const thread = new Worker(new URL('./thread.mjs', import.meta.url));
  const failed = new Promise<never>((_, fail) => {
    thread.once('error', fail);
  });
  return besideThrough(wrap<BesideApi>(endpoint(thread)), content, () => void thread.terminate(), failed);
};
