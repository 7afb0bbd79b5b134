/** The command line as it is called from a shell. */
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = path.join(path.dirname(fileURLToPath(import.meta.url)), '..', '..');

/** What it prints, and what it ends with. */
export function called(...args: readonly string[]) {
  const bin = path.join(root, 'bin', 'jolly-fork');
  const { status, stdout, stderr } = spawnSync('node', [bin, ...args], { encoding: 'utf8' });
  return { status, stdout, stderr, json: () => JSON.parse(stdout) as Record<string, unknown> };
}
