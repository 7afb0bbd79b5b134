/** The command line as it is called from a shell, and, where it refuses, without one: that is many times as fast. */
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { COMMANDS } from '../../src/cli/all-commands';
import { run } from '../../src/cli/run';

const root = path.join(path.dirname(fileURLToPath(import.meta.url)), '..', '..');

/** What it prints, and what it ends with. */
export function called(...args: readonly string[]) {
  const bin = path.join(root, 'bin', 'jolly-fork');
  const { status, stdout, stderr } = spawnSync('node', [bin, ...args], { encoding: 'utf8' });
  return { status, stdout, stderr, json: () => JSON.parse(stdout) as Record<string, unknown> };
}

/** What it says, and what it ends with, of a call that is to be refused. */
export async function refused(...args: readonly string[]) {
  let [stdout, stderr] = ['', ''];
  const status = await run(COMMANDS, args, {
    out: (text) => (stdout += text),
    problem: (text) => (stderr += text),
  });
  return { status, stdout, stderr };
}
