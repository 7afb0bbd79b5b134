/** `npm run demo`: sets up, seeds the demo studies (`-- --fresh` as they were) and serves. */
import { ensureBuilt } from './build.mjs';
import { run } from './setup.mjs';
import { start } from './start.mjs';

ensureBuilt();
run('node', ['--import', 'tsx', 'scripts/seed.ts', ...process.argv.slice(2)]);
await start();
