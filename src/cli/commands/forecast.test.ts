/** `forecast` as others call it. */
import assert from 'node:assert/strict';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { describe, it } from 'node:test';
import { called, refused } from '../../../tests/support/command';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';

interface Told {
  starts: number;
  items: { name: string; pass?: number; share: number; expected: number; low: number; high: number }[];
  endings: { id: string; share: number }[];
  minutes: Record<'mean' | 'p10' | 'median' | 'p90' | 'longest', number>;
  goals: object[];
  exact: boolean;
  provisional?: true;
}

const folder = mkdtempSync(path.join(tmpdir(), 'jolly-fork-forecast-'));
function fileOf(name: string, document: object): string {
  const file = path.join(folder, `${name}.fork.json`);
  writeFileSync(file, JSON.stringify(document));
  return file;
}

/** Nine in ten have a pump; of those every other one is asked twice. */
const PUMPS = questionnaire([
  section('a', [
    ask('pump', 2, { required: true, assume: { shares: { '1': 0.9, '2': 0.1 } }, seconds: 60 }),
    ask('loud', { type: 'number', min: 1, max: 2 }, { askIf: 'pump = 1', required: true, seconds: 60 }),
  ]),
  section('b', [ask('when', 2, { required: true, seconds: 120 })], { repeat: { times: 'loud', max: 2 } }),
]);

describe('forecast', () => {
  it('tells bases of items and of passes, endings, minutes and goals, exactly', () => {
    const file = fileOf('pumps', PUMPS);
    const { status, stderr, json } = called(
      ...['forecast', file, '--starts', '1000', '--goal', 'when#2=90', '--goal', 'pump=5', '--json'],
    );
    assert.equal(stderr, '');
    const told = json() as unknown as Told;
    assert.equal(status, told.provisional ? 1 : 0);
    const share = ({ name, pass, share: of }: Told['items'][number]) => [
      `${name}${pass === undefined ? '' : ` ${pass}`}`,
      Math.round(of * 1e6) / 1e6,
    ];
    assert.deepEqual(told.items.map(share), [
      ['pump', 1],
      ['loud', 0.9],
      ['when', 0.9],
      ['when 1', 0.9],
      ['when 2', 0.45],
    ]);
    const [, loud] = told.items;
    assert.deepEqual([loud?.expected, loud?.low, loud?.high], [900, 881, 918]);
    assert.equal(told.endings[0]?.share, 1);
    // One minute for a tenth, four and six for the rest.
    const { minutes } = told;
    const near = (value: number, expected: number) =>
      assert.ok(Math.abs(value - expected) < 0.01, `${value}`);
    near(minutes.mean, 0.1 * 1 + 0.45 * 4 + 0.45 * 6);
    near(minutes.p10, 1);
    near(minutes.median, 4);
    near(minutes.p90, 6);
    near(minutes.longest, 6);
    assert.deepEqual(told.goals, [
      { name: 'when', pass: 2, n: 90, starts50: 199, starts90: 220, starts95: 227 },
      { name: 'pump', n: 5, starts50: 5, starts90: 5, starts95: 5 },
    ]);
    assert.equal(told.exact, true);
  });

  it('loses those who break off before what comes later', () => {
    const file = fileOf('pumps', PUMPS);
    const { json } = called('forecast', file, '--starts', '1000', '--break-off', '0.5', '--json');
    const { items, endings, minutes } = json() as unknown as Told;
    const shares = items.map(({ share }) => Math.round(share * 1e6) / 1e6);
    // Half are lost with every minute before it.
    assert.deepEqual(shares, [1, 0.45, 0.225, 0.225, 0.45 / 16]);
    const finished = 0.1 / 2 + 0.45 / 16 + 0.45 / 64;
    assert.ok(Math.abs((endings[0]?.share ?? 0) - finished) < 1e-9);
    // Of those who finish, more were quick.
    assert.ok(Math.abs(minutes.mean - (0.05 * 1 + (0.45 / 16) * 4 + (0.45 / 64) * 6) / finished) < 1e-6);
  });

  it('says in words what cannot be: a call that makes no sense, a goal out of reach', async () => {
    const sets = [{ name: 'few', assume: [{ of: 'pump', shares: { '1': 0.1 } }] }];
    const file = fileOf('pumps', { ...PUMPS, settings: { forecast: { sets } } });
    const few = JSON.parse(
      called('forecast', file, '--starts', '10', '--set', 'Few', '--json').stdout,
    ) as Told;
    assert.ok(Math.abs((few.items.find(({ name }) => name === 'loud')?.share ?? 0) - 0.1) < 1e-12);
    for (const [options, words] of [
      [[], '--starts takes a whole number from 1'],
      [['--starts', '0'], '--starts takes a whole number from 1, not "0"'],
      [
        ['--starts', '9', '--break-off', '1'],
        '--break-off 1: the chance of breaking off a minute is a number',
      ],
      [['--starts', '9', '--goal', 'nobody=5'], '“nobody” is neither an item nor an ending'],
      [['--starts', '9', '--goal', 'when#3=5'], '“when” has no pass 3'],
      [
        ['--starts', '9', '--set', 'low'],
        '--set low: the questionnaire has no such set of assumptions: it has few',
      ],
      [['--starts', '9', '--goal', 'pump'], 'give a name and how many are wanted'],
    ] as const) {
      const { status, stderr } = await refused('forecast', file, ...options);
      assert.equal(status, 2);
      assert.ok(stderr.includes(words), stderr);
    }
    const none = questionnaire([
      section('a', [
        ask('pump', 2, { required: true, assume: { shares: { '1': 0, '2': 1 } } }),
        ask('loud', 2, { askIf: 'pump = 1' }),
      ]),
    ]);
    const { stdout } = called('forecast', fileOf('none', none), '--starts', '50', '--goal', 'loud=10');
    assert.match(stdout, /loud +10 +no number +no number +no number/);
  });
});
