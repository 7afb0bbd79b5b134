/**
 * `npm run torture -- --count N --minutes M --seed S --only a,b`: everything broken at random, for as long as wanted. Seeds
 * that fail are kept in `kept.json`.
 */
import { fork } from 'node:child_process';
import { availableParallelism } from 'node:os';
import path from 'node:path';
import process from 'node:process';
import { parseArgs } from 'node:util';
import { CannotRunHere, type SeededPart, type TimedPart } from './part';
import { SEEDED, TIMED } from './parts';
import type { Told } from './seeded';
import { keep, keptSeeds } from './seeds';

/** In milliseconds: one seed that takes longer hangs. */
const MOST_EACH = 120_000;
const TOLD = 5;

const { values } = parseArgs({
  options: {
    count: { type: 'string', default: '20000' },
    minutes: { type: 'string', default: '2' },
    seed: { type: 'string', default: '1' },
    only: { type: 'string', default: '' },
  },
});
const number = (name: 'count' | 'minutes' | 'seed') => {
  const value = Number(values[name]);
  if (Number.isFinite(value) && value >= 0) return value;
  console.error(`--${name} takes a number, not "${values[name]}".`);
  process.exit(2);
};
const [count, minutes, first] = [number('count'), number('minutes'), number('seed')];
const names = [...SEEDED, ...TIMED].map(({ name }) => name);
const only = values.only.split(',').filter((name) => name !== '');
for (const name of only)
  if (!names.includes(name)) {
    console.error(`--only takes ${names.join(', ')}, not "${name}".`);
    process.exit(2);
  }
const isWanted = ({ name }: { readonly name: string }) => only.length === 0 || only.includes(name);

interface Failure {
  readonly seed: number;
  readonly why: string;
}

/** Tries seeds in a process of its own; whatever takes that down, or hangs, is a failure, and the rest is tried on. */
function tryFrom(
  part: SeededPart,
  from: number,
  to: number,
  step: number,
  failures: Failure[],
): Promise<void> {
  return new Promise((resolve) => {
    const script = path.join('tests', 'torture', 'seeded.ts');
    const child = fork(script, [part.name, String(from), String(to), String(step)], {
      execArgv: ['--import', 'tsx'],
    });
    let at = from;
    let isDone = false;
    let timer: NodeJS.Timeout | undefined;
    const watch = () => {
      clearTimeout(timer);
      timer = setTimeout(() => child.kill('SIGKILL'), MOST_EACH);
    };
    watch();
    child.on('message', (told: Told) => {
      watch();
      if ('at' in told) ({ at } = told);
      else if ('failed' in told) failures.push({ seed: told.failed, why: told.why });
      else isDone = true;
    });
    child.on('exit', (code, signal) => {
      clearTimeout(timer);
      if (isDone) {
        resolve();
        return;
      }
      const why =
        signal === 'SIGKILL'
          ? `took over ${MOST_EACH / 1000} s, or was killed`
          : `ended the process (${code ?? signal})`;
      failures.push({ seed: at, why });
      resolve(at + step < to ? tryFrom(part, at + step, to, step, failures) : undefined);
    });
  });
}

async function seeded(part: SeededPart): Promise<boolean> {
  const began = performance.now();
  const failures: Failure[] = [];
  const kept = keptSeeds(part.name);
  for (const seed of kept) await tryFrom(part, seed, seed + 1, 1, failures);
  const step = availableParallelism();
  const lanes = Array.from({ length: step }, (_, n) => n).filter((n) => n < count);
  await Promise.all(lanes.map((n) => tryFrom(part, first + n, first + count, step, failures)));
  const seconds = Math.round((performance.now() - began) / 1000);
  for (const { seed } of failures) keep(part.name, seed);
  console.log(
    `${part.name.padEnd(11)} ${failures.length === 0 ? 'held  ' : 'FAILED'} ${count + kept.length} ${part.words}, ${failures.length} failed, ${seconds} s`,
  );
  for (const { seed, why } of failures.slice(0, TOLD)) console.log(`  seed ${seed}: ${why.slice(0, 2000)}`);
  return failures.length === 0;
}

async function timed(part: TimedPart): Promise<boolean> {
  try {
    const did = await part.run(minutes * 60, first);
    console.log(`${part.name.padEnd(11)} held   ${part.words}: ${did}`);
    return true;
  } catch (error) {
    if (error instanceof CannotRunHere) {
      console.log(`${part.name.padEnd(11)} CANNOT RUN HERE: ${error.message}`);
      return true;
    }
    const why = error instanceof Error ? (error.stack ?? error.message) : String(error);
    console.log(`${part.name.padEnd(11)} FAILED ${part.words}, seed ${first}: ${why}`);
    return false;
  }
}

let held = true;
for (const part of SEEDED.filter(isWanted)) held = (await seeded(part)) && held;
for (const part of TIMED.filter(isWanted)) held = (await timed(part)) && held;
process.exit(held ? 0 : 1);
