/** A figure from a table as a sentence that may be quoted: always with its base. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { findingSentences } from './finding';

const finding = { label: 'Gas', count: 30, all: 200, asked: 100, answered: 60, passes: false, madeUp: false };

describe('a finding in sentences', () => {
  it('tells one share for each base that is another', () => {
    const cases = [
      [
        finding,
        'they rent',
        [
          'Of those asked, where they rent (n = 100), 30% say “Gas”.',
          'Of those who gave an answer (n = 60), 50% say “Gas”.',
          'Of all respondents (n = 200), 15% say “Gas”.',
        ],
      ],
      [{ ...finding, asked: 200, answered: 200 }, null, ['Of all respondents (n = 200), 15% say “Gas”.']],
      [
        { ...finding, answered: 100 },
        null,
        ['Of those asked (n = 100), 30% say “Gas”.', 'Of all respondents (n = 200), 15% say “Gas”.'],
      ],
      [
        { ...finding, asked: 200, answered: 60 },
        null,
        [
          'Of those who gave an answer (n = 60), 50% say “Gas”.',
          'Of all respondents (n = 200), 15% say “Gas”.',
        ],
      ],
    ] as const;
    for (const [of, where, sentences] of cases) assert.deepEqual(findingSentences(of, where), sentences);
  });

  it('names what was counted, and divides by nothing', () => {
    const said = (of: typeof finding) => findingSentences(of, null)[0];
    assert.equal(
      said({ ...finding, count: 1, passes: true, all: 1200, asked: 1200, answered: 1200 }),
      'Of all passes (n = 1,200), 0% say “Gas”.',
    );
    const alone = { ...finding, all: 1, asked: 1, answered: 1, count: 1 };
    assert.equal(said(alone), 'Of the one respondent (n = 1), 100% say “Gas”.');
    assert.equal(
      said({ ...finding, madeUp: true }),
      'Of those made-up respondents asked (n = 100), 30% say “Gas”.',
    );
    assert.equal(
      said({ ...finding, all: 0, asked: 0, answered: 0, count: 0 }),
      'Of all respondents (n = 0), 0% say “Gas”.',
    );
  });
});
