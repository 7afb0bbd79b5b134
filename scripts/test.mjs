/**
 * `npm test`: sets up, then types and lint side by side, unit tests and, in a real browser, the journeys. Stops at the first
 * failure.
 */
import { ensureBuilt } from './build.mjs';
import { chromium, environment, install, run, runTogether } from './setup.mjs';

install();
await runTogether([
  ['types', 'npm', ['run', '--silent', 'types']],
  ['lint', 'npm', ['run', '--silent', 'lint']],
]);
console.log('\n— unit');
run('npm', ['run', '--silent', 'unit']);
console.log('\n— journeys');
const browser = chromium();
ensureBuilt();
run('npm', ['run', '--silent', 'journeys'], { env: { ...environment, CHROMIUM: browser } });
