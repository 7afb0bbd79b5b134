/** Pasted frequency tables as people have them, and what is said of those that cannot be read. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, questionnaire, section } from '../../../../tests/support/questionnaire';
import type { MultipleAnswer } from '../../document/types';
import { sharesOfPicks } from '../../routing/pick-shares';
import { readPasted } from './pasted';

const FUELS: MultipleAnswer = {
  type: 'multiple',
  options: [1, 2].map((code) => ({ code, label: `Fuel ${code}` })),
};
const STUDY = questionnaire([
  section('a', [
    ask('heating', {
      type: 'single',
      options: [
        { code: 1, label: 'Gas' },
        { code: 2, label: 'Heat pump' },
        { code: 8, label: "Don't know", missing: 'dont_know' },
      ],
    }),
    ask('fuels', FUELS),
    ask('age', { type: 'number', min: 16, max: 110 }),
    ask('moved', { type: 'date', min: '2000-01-01' }),
  ]),
]);
const read = (text: string, about: string | null = null) => {
  const { shares, problems } = readPasted(STUDY, text, about);
  return { shares: Object.fromEntries(shares), problems };
};

describe('a pasted frequency table', () => {
  it('with counts has its base, by labels or codes, with a head and a total or without', () => {
    const shares = { 1: 0.5, 2: 0.25, 8: 0.25 };
    for (const text of [
      "heating\tn\t%\nGas\t600\t40\nHeat pump\t300\t20\nDon't know\t300\t20\nblank\t300\t20\nTotal\t1500\t100",
      'Answer;n\n1;600\n2;300\n8;300\nno answer;300\n',
      'gas,"1,200"\n heat pump ,600\n8,600\nleft blank,600',
    ]) {
      const { heating } = read(text, 'heating').shares;
      assert.deepEqual(heating?.assume, { shares, blank: 0.2 }, text);
      assert.equal(heating.base, text.startsWith('gas') ? 3000 : 1500);
    }
  });

  it('in per cent has the base that it tells, or none', () => {
    const table = 'Gas\t72,5 %\nHeat pump\t27,5 %';
    assert.deepEqual(read(table, 'heating').shares.heating, {
      base: 0,
      assume: { shares: { 1: 0.725, 2: 0.275 } },
    });
    assert.equal(read(`${table}\nBase\t412`, 'heating').shares.heating?.base, 412);
    assert.deepEqual(read('1\t0.6\n2\t0.4', 'heating').shares.heating?.assume, {
      shares: { 1: 0.6, 2: 0.4 },
    });
  });

  it('is of several questions where each line, or a line before, names its variable', () => {
    const { shares, problems } = read(
      'variable,answer,n\nheating,Gas,30\nheating,Heat pump,10\nage\n16-24,25\n25 to 64,50\n65+,25\n',
    );
    assert.deepEqual(problems, []);
    assert.deepEqual(shares.heating, { base: 40, assume: { shares: { 1: 0.75, 2: 0.25 } } });
    assert.deepEqual(shares.age?.assume.ranges, [
      { from: 16, to: 24, share: 0.25 },
      { from: 25, to: 64, share: 0.5 },
      { from: 65, to: 110, share: 0.25 },
    ]);
  });

  it('takes stretches of a number in every way in which people write them, and none that is empty', () => {
    const stretches = (text: string) => read(`${text}\t1\n90+\t1`, 'age').shares.age?.assume.ranges?.[0];
    for (const [text, from, to] of [
      ['up to 24', 16, 24],
      ['until 24', 16, 24],
      ['≤ 24', 16, 24],
      ['20–24', 20, 24],
      ['20 … 24', 20, 24],
      ['20-20', 20, 20],
      ['20', 20, 20],
      ['16 to 16', 16, 16],
    ] as const)
      assert.deepEqual(stretches(text), { from, to, share: 0.5 }, text);
    const wrong = read('24 to 20\t1', 'age');
    assert.deepEqual([wrong.shares, wrong.problems.length], [{}, 1]);
  });

  it('in shares or in per cent that do not quite add up has the base of its total, where there is one', () => {
    const base = (text: string) => read(text, 'heating').shares.heating?.base;
    assert.deepEqual(
      [
        base('1\t0.61\n2\t0.4'),
        base('1\t0.61\n2\t0.4\ntotal\t250'),
        base('1\t60\n2\t41'),
        base('1\t60\n2\t41\ntotal\t250'),
        // Whole numbers that add up to something else are people.
        base('1\t60\n2\t42'),
      ],
      [0, 250, 0, 250, 102],
    );
  });

  it('of several picks has shares of those asked, who have to be told', () => {
    const table = 'Fuel 1\t80\nFuel 2\t40\nblank\t20';
    const { base, assume } = read(`${table}\nbase\t120`, 'fuels').shares.fuels ?? {};
    assert.deepEqual([base, assume?.blank], [120, 1 / 6]);
    // Of 100 who answered; its chances are others, as whoever answers picks something.
    assert.deepEqual(
      sharesOfPicks(FUELS, assume ?? {}).map((share) => share.toFixed(6)),
      ['0.800000', '0.400000'],
    );
    assert.match(
      read('Fuel 1\t60\nFuel 2\t30\nbase\t100', 'fuels').problems[0]?.message ?? '',
      /nobody can have picked so at fuels.*count those who picked nothing as “blank”/,
    );
    assert.match(
      read(table, 'fuels').problems[0]?.message ?? '',
      /add a line “base” with how many were asked/,
    );
    assert.match(
      read(`${table}\nbase\t50`, 'fuels').problems[0]?.message ?? '',
      /more gave an answer of fuels/,
    );
  });

  it('of dates has stretches with both ends', () => {
    const { shares } = read('2000-01-01 to 2009-12-31\t3\n2010-01-01 and later\t1', 'moved');
    const [first, second] = shares.moved?.assume.ranges ?? [];
    assert.deepEqual(first, { from: '2000-01-01', to: '2009-12-31', share: 0.75 });
    assert.equal(second?.from, '2010-01-01');
  });

  it('that cannot be read is told by line, with what to do, and nothing of that question is taken', () => {
    const of = (text: string, about: string | null = 'heating') => {
      const { shares, problems } = read(text, about);
      assert.deepEqual(shares, {});
      return problems.map(({ line, message }) => `${line}: ${message}`);
    };
    assert.deepEqual(of('Gas\t3\nDiesel\t4'), [
      "2: “Diesel” is no answer of heating: its answers are 1 Gas, 2 Heat pump, 8 Don't know",
    ]);
    assert.deepEqual(of('24-16\t4', 'age'), [
      '1: “24-16” is no answer of age: write a number, or from and to, as in 18–24',
    ]);
    assert.match(of('Gas\t3', null)[0] ?? '', /1: it is not said which question “Gas” is an answer of/);
    assert.match(of('nothing here')[0] ?? '', /no line with an answer and a number/);
    assert.match(of('Gas\t0\nHeat pump\t0')[0] ?? '', /more gave an answer/);
  });
});
