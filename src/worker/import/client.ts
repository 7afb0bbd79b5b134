/** The main thread's side of the import worker, which is there only while files are read. */
import { HeldWorker } from '../held-worker';
import type { ImportApi, ReadFile } from './types';

export async function readFile(...asked: Parameters<ImportApi['read']>): Promise<ReadFile> {
  const held = new HeldWorker<ImportApi>(
    () => new Worker(new URL('./import.worker.ts', import.meta.url), { type: 'module' }),
  );
  try {
    return await held.api.read(...asked);
  } finally {
    held.stop();
  }
}
