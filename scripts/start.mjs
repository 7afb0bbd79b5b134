/** `npm start`: sets up, builds and serves. PORT, HOST and JOLLY_FORK_DATA choose where. */
import { ensureBuilt } from './build.mjs';
import { environment } from './setup.mjs';

export async function start() {
  ensureBuilt();
  Object.assign(process.env, environment);
  const { serve } = await import('../server/main.mjs');
  await serve();
}

if (import.meta.url === `file://${process.argv[1]}`) await start();
