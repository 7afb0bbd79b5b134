/**
 * `npm run fuzz -- --count N --seed S`: compares the analysis with its brute-force twin on any number of random
 * questionnaires. A seed that fails belongs in the list of its test. `--people N`: so many made-up respondents of the demo
 * against its forecast.
 */
import { parseArgs } from 'node:util';
import { run } from './setup.mjs';

const { values } = parseArgs({
  options: {
    count: { type: 'string', default: '5000' },
    seed: { type: 'string', default: '1' },
    people: { type: 'string', default: '20000' },
  },
});
for (const [name, value] of Object.entries(values)) {
  if (!/^\d+$/.test(value)) {
    console.error(`--${name} takes a whole number, not "${value}".`);
    process.exit(2);
  }
}
run('node', ['scripts/unit.mjs', 'agree'], {
  env: { ...process.env, FUZZ_COUNT: values.count, FUZZ_SEED: values.seed, FUZZ_PEOPLE: values.people },
});
