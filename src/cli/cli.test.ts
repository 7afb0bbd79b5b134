/** The command line as it is called: what it prints, and what it exits with. */
import assert from 'node:assert/strict';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { describe, it } from 'node:test';
import { fileURLToPath } from 'node:url';
import { called, refused } from '../../tests/support/command';

const root = path.join(path.dirname(fileURLToPath(import.meta.url)), '..', '..');
const demo = (name: string) => path.join(root, 'demo', `${name}.fork.json`);
const folder = mkdtempSync(path.join(tmpdir(), 'jolly-fork-cli-'));

function file(name: string, content: unknown): string {
  const full = path.join(folder, name);
  writeFileSync(full, typeof content === 'string' ? content : JSON.stringify(content));
  return full;
}

describe('jolly-fork', () => {
  it('checks: exit 0 without errors, 1 with, each snag at its place', () => {
    assert.deepEqual(called('check', demo('tern-valley-home-heating'), '--json').json(), { snags: [] });
    const unfinished = called('check', demo('street-lighting-doorstep'), '--json');
    assert.equal(unfinished.status, 1);
    const snags = unfinished.json().snags as { rule: string; severity: string; at: unknown }[];
    assert.deepEqual(
      snags.map(({ rule, severity, at }) => [severity, rule, at]),
      [
        ['warning', 'values-unclaimed', { item: 'years' }],
        ['warning', 'falls-through', { section: 'newer' }],
        ['note', 'asked-twice', { item: 'dark_old' }],
        ['warning', 'blank-decides', { item: 'broken' }],
        ['error', 'skip-shadowed', { item: 'out_late', skip: 1 }],
        ['warning', 'picks-contradict', { item: 'walks', option: 4 }],
        ['error', 'backward-skip', { item: 'feel', skip: 0 }],
        ['warning', 'text-compared', { item: 'reply' }],
      ],
    );
    assert.match(
      called('check', demo('street-lighting-doorstep')).stdout,
      /error {2}backward-skip {2}at skip 1 of item feel/,
    );
  });

  it('lists routes by number, and walking each gives just that route', () => {
    const study = demo('tern-valley-home-heating');
    const listed = called(
      'routes',
      study,
      '--from',
      '600000',
      '--limit',
      '3',
      '--through',
      'hp_kind',
      '--json',
    );
    assert.equal(listed.status, 0);
    const { total, routes } = listed.json() as {
      total: string;
      routes: { number: string; items: string[]; ending: string; answers: object; draws: object }[];
    };
    assert.equal(total, '682752');
    assert.equal(routes.length, 3);
    for (const { items, ending, answers, draws } of routes) {
      const walked = called(
        'walk',
        study,
        '--answers',
        file('answers.json', { answers, draws }),
        '--json',
      ).json();
      assert.deepEqual([walked.presented, walked.ending], [items, ending]);
    }
    assert.match(called('routes', study, '--limit', '1').stdout, /2048263 routes/);
  });

  it('lists the routes that take a skip, with somebody who takes it', () => {
    const study = demo('winter-diary');
    const { total, routes } = called('routes', study, '--taking', 'keep:1', '--json').json() as {
      total: string;
      routes: { number: string; ending: string; answers: Record<string, unknown> }[];
    };
    assert.deepEqual([total, routes.length], ['1', 1]);
    assert.deepEqual([routes[0]?.number, routes[0]?.ending, routes[0]?.answers.keep], ['5', 'declined', 2]);
  });

  it('finds routes for every two forks on demand', () => {
    const { pairs, pairsAtLeast, cover } = called(
      'analyse',
      demo('winter-diary'),
      '--pairs',
      '--json',
    ).json() as {
      pairs: { number: string }[];
      pairsAtLeast: number;
      cover: unknown[];
    };
    assert.ok(pairs.length >= pairsAtLeast && pairs.length >= cover.length);
  });

  it('makes up respondents: the same file for the same seed, each row coded to its last column', () => {
    const study = demo('winter-diary');
    const simulate = (name: string, seed: string) => {
      const out = path.join(folder, name);
      const answer = called('simulate', study, '-n', '50', '--seed', seed, '--out', out, '--json');
      assert.equal(answer.status, 0, answer.stderr);
      return { ...answer.json(), text: readFileSync(out, 'utf8') } as { text: string; columns: number };
    };
    const { text, columns } = simulate('a.csv', '4');
    const rows = text.trimEnd().split('\r\n');
    assert.equal(rows.length, 51);
    assert.match(rows[0] ?? '', /^heat_main,.*,ending$/);
    for (const row of rows) assert.equal(row.split(',').length, columns);
    assert.equal(simulate('b.csv', '4').text, text);
    assert.notEqual(simulate('c.csv', '5').text, text);
  });

  it('refuses what it cannot use in one line that names the place, with exit 2', async () => {
    const study = demo('winter-diary');
    const cases: [readonly string[], RegExp][] = [
      [['check', path.join(folder, 'nowhere.json')], /nowhere\.json: there is no such file/],
      [['check', file('half.json', '{"format"')], /half\.json: .*JSON/],
      [['check', file('odd.json', { format: 'jolly-fork/questionnaire', version: 1 })], /odd\.json: \w+/],
      [['routes', study, '--from', '0'], /--from takes a whole number from 1/],
      [['routes', study, '--through', 'nobody'], /there is no item "nobody"/],
      [['routes', study, '--taking', 'keep:2'], /"keep" has one skip, so no number 2/],
      [['walk', study], /walk needs --answers/],
      [
        [
          'walk',
          study,
          '--answers',
          file('bad.json', { answers: { keep: 7 }, given: { heat_main: 2, people: 2 } }),
        ],
        /answers\.keep: /,
      ],
      [['fly', study], /there is no command "fly"/],
    ];
    for (const [args, words] of cases) {
      const { status, stdout, stderr } = await refused(...args);
      assert.deepEqual([status, stdout, stderr.trim().split('\n').length], [2, '', 1], args.join(' '));
      assert.match(stderr, words);
    }
    const { status, stdout, stderr } = called('fly', study);
    assert.deepEqual([status, stdout, stderr.trim().split('\n').length], [2, '', 1]);
  });
});
