/**
 * Every command of docs/command-line.md prints what the page shows. After a change that is meant, `npm run
 * document-commands` writes the page's output anew.
 */
import assert from 'node:assert/strict';
import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { it } from 'node:test';
import { fileURLToPath } from 'node:url';
import { openFile } from '../store/database-file';

const root = path.join(path.dirname(fileURLToPath(import.meta.url)), '..', '..');
const page = path.join(root, 'docs', 'command-line.md');
/** So that what a command writes does not land in the clone. */
const folder = mkdtempSync(path.join(tmpdir(), 'jolly-fork-documented-'));
for (const shared of ['demo', 'docs']) symlinkSync(path.join(root, shared), path.join(folder, shared));
// An installation whose database is saved and brought back.
mkdirSync(path.join(folder, 'data'));
openFile(path.join(folder, 'data', 'jolly-fork.sqlite')).close();

/** What a shell shows for a command: its output and errors, and how it ended if not with 0. */
function shown(command: string): string {
  const words = command.split(' ');
  if (words[0] === 'cat')
    return readFileSync(path.join(folder, words[1] ?? ''), 'utf8')
      .replaceAll('\r\n', '\n')
      .trimEnd();
  assert.deepEqual(words.slice(0, 2), ['npx', 'jolly-fork'], command);
  const args = [path.join(root, 'bin', 'jolly-fork'), ...words.slice(2)];
  const { stdout, stderr, status } = spawnSync('node', args, { encoding: 'utf8', cwd: folder });
  return `${stdout}${stderr}`.trimEnd() + (status === 0 ? '' : `\n[exit ${status}]`);
}

it('docs/command-line.md shows what the commands print', () => {
  const text = readFileSync(page, 'utf8');
  const fresh = text.replace(/```console\n([\s\S]*?)```/g, (_, block: string) => {
    const commands = block.split('\n').filter((line) => line.startsWith('$ '));
    const blocks = commands.map((line) => `${line}\n${shown(line.slice(2))}`);
    return `\`\`\`console\n${blocks.join('\n')}\n\`\`\``;
  });
  if (process.env.WRITE_PAGE === '1') writeFileSync(page, fresh);
  else assert.equal(text, fresh);
});
