/** `npm test`: sets up, then types, lint, unit tests and, in a real browser, the journeys. Stops at the first failure. */
import { ensureBuilt } from './build.mjs';
import { chromium, environment, install, run } from './setup.mjs';

install();
for (const step of ['types', 'lint', 'unit']) {
  console.log(`\n— ${step}`);
  run('npm', ['run', '--silent', step]);
}
console.log('\n— journeys');
const browser = chromium();
ensureBuilt();
run('npm', ['run', '--silent', 'journeys'], { env: { ...environment, CHROMIUM: browser } });
