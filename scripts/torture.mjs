/** `npm run torture`: sets up and builds, then breaks everything at random; see tests/torture/run.ts. */
import { ensureBuilt } from './build.mjs';
import { run } from './setup.mjs';

ensureBuilt();
run('node', ['--import', 'tsx', 'tests/torture/run.ts', ...process.argv.slice(2)]);
