/**
 * The routes of a questionnaire counted by a package of others: as models of the encoding that the solvers are given too,
 * looked at through who is presented what and who arrives where. A variable is forgotten once nothing further on reads it.
 */
import { spawn, spawnSync } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import path from 'node:path';
import type { EncodedPlan } from '../../src/core/analysis';
import { formulas } from '../reach';

/** Longer than this, and it is stopped. */
export const MOST_SECONDS = 60;

/** A step of the program: the formulas and variables that it names stand before it in the list. */
interface Step {
  readonly word: 'var' | 'not' | 'and' | 'or' | 'holds';
  readonly of: readonly number[];
}

/** What count.cc reads. */
export function stepsOf(encoded: EncodedPlan): string {
  const steps: Step[] = [];
  const formula = (word: Step['word'], of: readonly number[]) => {
    steps.push({ word, of });
    formulaAt.push(steps.length - 1);
    return formulaAt.length - 1;
  };
  /** By number of a formula, its step; false and true have none. */
  const formulaAt = [-1, -1];
  /** Names of variables, before it is known which of them are shown; and the formula of each. */
  const names: string[] = [];
  const known = new Map<string, number>();
  const once = (name: string) => {
    let of = known.get(name);
    if (of === undefined) {
      of = formula('var', [names.push(name) - 1]);
      known.set(name, of);
    }
    return of;
  };
  const shown = new Set<string>();
  const { course } = encoded;
  formulas<number>(encoded, {
    constant: (is) => (is ? 1 : 0),
    variable: (level) => once(`v${level}`),
    not: (a) => formula('not', [a]),
    and: (all) => formula('and', all),
    or: (any) => formula('or', any),
    named: (name, means) => {
      // Nodes of a diagram are no more than formulas to it: it shares them by itself.
      if (name.startsWith('d')) return means;
      const isEnding = name.startsWith('c') && course.places[Number(name.slice(1))]?.kind === 'ending';
      if (name.startsWith('a') || isEnding) shown.add(name);
      const of = once(name);
      const both = formula('and', [of, means]);
      const neither = formula('and', [formula('not', [of]), formula('not', [means])]);
      steps.push({ word: 'holds', of: [formula('or', [both, neither])] });
      return of;
    },
    holds: (fact) => steps.push({ word: 'holds', of: [fact] }),
  });
  return written(steps, formulaAt, names, shown);
}

/** Shown variables first; with every fact the variables that no later fact reads. */
function written(
  steps: readonly Step[],
  formulaAt: readonly number[],
  names: readonly string[],
  shown: ReadonlySet<string>,
): string {
  const hidden = names.filter((name) => !shown.has(name));
  const order = new Map([...shown, ...hidden].map((name, n) => [name, n]));
  const numberOf = names.map((name) => order.get(name) as number);
  /** Hidden variables in a formula, by step. */
  const read: (ReadonlySet<number> | undefined)[] = [];
  const readBy = (formula: number): ReadonlySet<number> => read[formulaAt[formula] ?? -1] ?? new Set();
  const lastFact = new Map<number, number>();
  steps.forEach(({ word, of }, at) => {
    if (word === 'var') {
      const number = numberOf[of[0] as number] as number;
      read[at] = new Set(number < shown.size ? [] : [number]);
    } else if (word === 'holds') for (const number of readBy(of[0] as number)) lastFact.set(number, at);
    else read[at] = new Set(of.flatMap((formula) => [...readBy(formula)]));
  });
  const forgotten = new Map<number, number[]>();
  for (const [number, at] of lastFact) forgotten.set(at, [...(forgotten.get(at) ?? []), number]);
  const lines = steps.map(({ word, of }, at) => {
    const numbers = word === 'var' ? of.map((number) => numberOf[number]) : of;
    return [word, ...numbers, ...(forgotten.get(at) ?? [])].join(' ');
  });
  return [`shown ${shown.size}`, `hidden ${hidden.length}`, ...lines, ''].join('\n');
}

/** Installs the package where it is lacking, and compiles the program that uses it. */
export function counter(root: string): string {
  const folder = path.join(root, 'bench', 'node_modules', '.counter');
  mkdirSync(folder, { recursive: true });
  const program = path.join(folder, 'count');
  const source = path.join(root, 'bench', 'counter', 'count.cc');
  const compile = () =>
    spawnSync('g++', ['-O2', '-std=c++17', '-o', program, source, '-lbdd'], { encoding: 'utf8' });
  if (compile().status === 0) return program;
  spawnSync('apt-get', ['update', '-qq'], { stdio: 'inherit' });
  spawnSync('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'libbdd-dev'], {
    stdio: 'inherit',
  });
  const again = compile();
  if (again.status !== 0) throw new Error(`the counter cannot be compiled:\n${again.stderr}`);
  return program;
}

export type Counted =
  { readonly log2: number; readonly ms: number } | { readonly stopped: 'time' | 'memory' };

/** The program's own milliseconds, its start and its reading not counted. */
export async function byCounter(program: string, steps: string): Promise<Counted> {
  const child = spawn(program, { stdio: ['pipe', 'pipe', 'inherit'], timeout: MOST_SECONDS * 1000 });
  child.stdin.on('error', () => undefined);
  child.stdin.end(steps);
  let said = '';
  child.stdout.on('data', (part: Buffer) => (said += part.toString()));
  const code = await new Promise<number | null>((resolve) => child.on('close', resolve));
  if (code === null) return { stopped: 'time' };
  if (code === 3) return { stopped: 'memory' };
  if (code !== 0) throw new Error(`the counter broke down with ${code}`);
  const [log2 = NaN, ms = NaN] = said.split(' ').map(Number);
  return { log2, ms };
}
