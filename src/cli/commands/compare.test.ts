/** `compare` as others call it: what it prints, and what it ends with. */
import assert from 'node:assert/strict';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { it } from 'node:test';
import type { Questionnaire } from '../../core/document/types';
import { called, refused } from '../../../tests/support/command';

const DEMO = 'demo/tern-valley-home-heating.fork.json';
const folder = mkdtempSync(path.join(tmpdir(), 'jolly-fork-compare-'));

function changed(change: (text: string) => string): string {
  const file = path.join(folder, 'new.fork.json');
  writeFileSync(file, change(readFileSync(DEMO, 'utf8')));
  return file;
}

it('ends with 0 where every route is the same, with 1 where some differ', () => {
  const same = called(
    'compare',
    DEMO,
    changed((text) => text),
  );
  assert.deepEqual([same.status, same.stderr], [0, '']);
  assert.match(same.stdout, /2048263 before, 2048263 now\n {2}the same routes in both\n/);
  const document = JSON.parse(readFileSync(DEMO, 'utf8')) as Questionnaire;
  const item = document.sections
    .flatMap(({ items }) => items)
    .find((each) => 'name' in each && each.name === 'hp_again');
  assert.ok(item?.kind === 'question');
  const other = changed((text) => text.replace(item.text, `${item.text} Please say.`));
  const report = called('compare', DEMO, other);
  assert.equal(report.status, 1);
  assert.match(report.stdout, /0 lost, 0 gained, \d+ worded, coded or answered otherwise/);
  assert.match(report.stdout, /9\.1% of the sample meets a difference/);
  const told = called('compare', DEMO, other, '--json').json();
  const routes = told.routes as Record<string, unknown>;
  assert.deepEqual(Object.keys(told).slice(0, 5), ['routes', 'bases', 'items', 'words', 'codes']);
  assert.deepEqual([routes.old, routes.new, routes.lost], ['2048263', '2048263', '0']);
  assert.deepEqual(told.words, [
    { at: { item: 'hp_again' }, part: 'words', old: item.text, new: `${item.text} Please say.` },
  ]);
});

it('ends with 2 and one line where it is not called with two files that can be used', async () => {
  for (const [args, said] of [
    [[DEMO], /^jolly-fork: two questionnaire files are needed/],
    [[DEMO, DEMO, DEMO], /2 files are expected; .* is one too many/],
    [[DEMO, path.join(folder, 'none.json')], /none\.json: there is no such file/],
    [[DEMO, changed(() => '{')], /new\.fork\.json: /],
  ] as const) {
    const { status, stderr, stdout } = await refused('compare', ...args);
    assert.equal(status, 2, args.join(' '));
    assert.match(stderr, said);
    assert.deepEqual([stderr.trim().split('\n').length, stdout], [1, '']);
  }
});
