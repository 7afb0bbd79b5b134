/** `convert --to test-pack` and `verify` as others call them: the pack goes out, and what was seen comes back. */
import assert from 'node:assert/strict';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { describe, it } from 'node:test';
import { called, refused } from '../../../tests/support/command';

const DEMO = 'demo/winter-diary.fork.json';
const folder = mkdtempSync(path.join(tmpdir(), 'jolly-fork-verify-'));
const at = (name: string) => path.join(folder, name);

interface Told {
  respondents: number;
  agree: number;
  differ: { respondent: string; step: number; expected: string; seen: string; because: string }[];
  forks: { all: number; taken: number; untaken: string[] };
}
function verified(rows: string, ...options: string[]) {
  writeFileSync(at('seen.csv'), rows);
  return called('verify', DEMO, '--observed', at('seen.csv'), ...options);
}
const told = (rows: string) => {
  const { status, stderr, json } = verified(rows, '--json');
  return { status, stderr, ...(stderr === '' ? (json() as unknown as Told) : {}) };
};

describe('the test pack', () => {
  const pack = called('convert', DEMO, '--to', 'test-pack', '--out', at('pack'), '--json');

  it('is a folder with the same steps three times', () => {
    assert.equal(pack.status, 0, pack.stderr);
    assert.deepEqual(readdirSync(at('pack')).sort(), ['steps.csv', 'steps.html', 'steps.json']);
    assert.deepEqual((pack.json() as { written: string[] }).written.sort(), [
      at('pack/steps.csv'),
      at('pack/steps.html'),
      at('pack/steps.json'),
    ]);
    const { respondents } = JSON.parse(readFileSync(at('pack/steps.json'), 'utf8')) as {
      respondents: { respondent: string; steps: { item: string }[] }[];
    };
    const page = readFileSync(at('pack/steps.html'), 'utf8');
    const csv = readFileSync(at('pack/steps.csv'), 'utf8');
    for (const { respondent, steps } of respondents) {
      assert.ok(page.includes(`Respondent ${respondent}, on route`));
      assert.equal(
        csv.split('\r\n').filter((line) => line.startsWith(`${respondent},`)).length,
        steps.length,
      );
    }
    // Marked as what it is.
    assert.match(page, /<p class="running">Draft<\/p>/);
    called('convert', DEMO, '--to', 'test-pack', '--out', at('again'));
    for (const name of ['steps.csv', 'steps.html', 'steps.json'])
      assert.equal(readFileSync(at(`again/${name}`), 'utf8'), readFileSync(at(`pack/${name}`), 'utf8'));
  });

  it('comes back as it went out: all agree, and every fork was tried', () => {
    const found = told(readFileSync(at('pack/steps.csv'), 'utf8'));
    assert.equal(found.status, 0, found.stderr);
    assert.deepEqual([found.agree, found.differ, found.forks?.untaken], [found.respondents, [], []]);
    assert.match(
      verified(readFileSync(at('pack/steps.csv'), 'utf8')).stdout,
      /^\d+ respondents: \d+ as they should be, 0 not\n\nAll \d+ outcomes of forks were tried\.\n$/,
    );
  });
});

const SEEN = `item;respondent;step;answer;note
given heat_main;a;0;4;
given people;a;0;1;
keep;a;1;1;
day;a;2;2027-01-14;
on_at;a;3;07:30;
logs;a;4;3;
`;

describe('verify', () => {
  it('takes columns in any order, and whoever stopped part-way; forks left over are named', () => {
    const found = told(SEEN);
    assert.equal(found.status, 0, found.stderr);
    assert.deepEqual([found.respondents, found.agree], [1, 1]);
    assert.ok((found.forks?.untaken.length ?? 0) > 0);
    assert.equal(found.forks?.all, (found.forks?.taken ?? 0) + (found.forks?.untaken.length ?? 0));
  });

  it('tells where somebody left the route, and why it should have gone otherwise', () => {
    // Without a stove nobody is asked about logs.
    const found = told(SEEN.replace('a;0;4', 'a;0;1'));
    assert.equal(found.status, 1);
    const [first] = found.differ ?? [];
    assert.deepEqual([first?.respondent, first?.step, first?.seen], ['a', 4, 'logs']);
    assert.match(first?.because ?? '', /logs is not asked: .*heat_main/);
    assert.match(
      verified(SEEN.replace('a;0;4', 'a;0;1')).stdout,
      / {2}a, step 4: logs was shown, .* should come \(/,
    );
    assert.match(
      told(SEEN.replace('a;1;1;', 'a;1;x;')).differ?.[0]?.because ?? '',
      /“x” is no answer to keep/,
    );
    assert.match(
      told(SEEN.replace('logs;a', 'attic;a')).differ?.[0]?.because ?? '',
      /the questionnaire has no item “attic”/,
    );
    assert.match(told('respondent,step,item,answer\nb,1,keep,1\n').differ?.[0]?.because ?? '', /heat_main/);
  });

  it('refuses in one line what it cannot read', async () => {
    for (const [rows, said] of [
      ['', /./],
      ['respondent,step,item\na,1,keep\n', /needed; missing: answer/],
      ['respondent,step,item,answer\na,1,,2\n', /row 2: there is no item/],
    ] as const) {
      writeFileSync(at('seen.csv'), rows);
      const { status, stderr } = await refused('verify', DEMO, '--observed', at('seen.csv'));
      assert.equal(status, 2, rows);
      assert.match(stderr, said);
      assert.equal(stderr.trim().split('\n').length, 1);
    }
    assert.match((await refused('verify', DEMO)).stderr, /needs --observed/);
  });
});
