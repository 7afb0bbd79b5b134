/**
 * `npm test`: sets up, with types and lint beside what is compiled for the machine, then unit tests with the build beside them
 * and, in a real browser, the journeys. Stops at the first failure.
 */
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { ensureBuilt } from './build.mjs';
import { chromium, environment, root, run, runTogether, unpack } from './setup.mjs';

await runTogether([
  ...unpack(),
  ['types', 'npm', ['run', '--silent', 'types']],
  ['lint', 'npm', ['run', '--silent', 'lint']],
]);
const build = "import('./scripts/build.mjs').then(({ ensureBuilt }) => ensureBuilt())";
const built = once(
  spawn('node', ['-e', build], { cwd: root, env: environment, stdio: ['ignore', 'ignore', 'inherit'] }),
  'close',
);
console.log('\n— unit');
run('npm', ['run', '--silent', 'unit']);
console.log('\n— journeys');
const browser = chromium();
await built;
// Nothing is left to do, unless the build failed: then it fails again, and says why.
ensureBuilt();
run('npm', ['run', '--silent', 'journeys'], { env: { ...environment, CHROMIUM: browser } });
