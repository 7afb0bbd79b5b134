/** The main thread's side of the import worker, which is there only while files are read. */
import { releaseProxy, wrap } from 'comlink';
import type { ImportApi, ReadFile } from './types';

export async function readFile(...asked: Parameters<ImportApi['read']>): Promise<ReadFile> {
  const worker = new Worker(new URL('./import.worker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<ImportApi>(worker);
  try {
    return await remote.read(...asked);
  } finally {
    remote[releaseProxy]();
    worker.terminate();
  }
}
