/** An audit on rows worked out by hand: picks, ranks, draws, texts, checks, stops, labels, columns. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, say, section } from '../../../tests/support/questionnaire';
import { columnsOf } from '../coding/columns';
import type { Section } from '../document/types';
import { problemAt } from '../wording/audit';
import { Auditor } from './auditor';
import { headerProblem, likelyCaseColumn, matchColumns, raggedProblem } from './matching';
import { AuditRun } from './run';
import type { AuditOptions } from './types';

const option = (code: number, rest: object = {}) => ({ code, label: `Answer ${code}`, ...rest });

function auditOf(sections: readonly Section[], options: AuditOptions = {}) {
  const auditor = new Auditor(planFor(questionnaire(sections)), options);
  return (...texts: readonly string[]) => {
    const { problems, filled, came } = auditor.judge(texts);
    const out = texts.slice();
    for (const { column, value } of filled) out[column] = String(value);
    return {
      problems: problems.map(({ problem, column, value }) => `${problem} ${column} ${value}`),
      out,
      came,
    };
  };
}

describe('picks', () => {
  const fuels = ask('fuels', {
    type: 'multiple',
    minPicks: 2,
    maxPicks: 2,
    options: [
      option(1),
      option(2),
      option(3),
      option(8, { exclusive: true }),
      option(9, { missing: 'dont_know' }),
    ],
  });
  const audit = auditOf([section('a', [fuels])]);
  it('too many, too few, and picks that exclude each other are told', () => {
    assert.deepEqual(audit('1', '1', '0', '0', '0', 'done').problems, []);
    assert.deepEqual(audit('1', '1', '1', '0', '0', 'done').problems, ['too-many-picks fuels_1 1']);
    assert.deepEqual(audit('0', '1', '0', '0', '0', 'done').problems, ['too-few-picks fuels_1 0']);
    assert.deepEqual(audit('1', '0', '0', '1', '0', 'done').problems, ['contradictory-picks fuels_8 1']);
    assert.deepEqual(audit('0', '0', '0', '1', '0', 'done').problems, []);
    assert.deepEqual(audit('2', '1', '0', '0', '0', 'done').problems, ['unknown-code fuels_1 2']);
  });
  it('beside don’t know, blanks carry its code', () => {
    assert.deepEqual(audit('', '', '', '', '1', 'done').out, ['9', '9', '9', '9', '1', 'done']);
    assert.deepEqual(audit('9', '9', '9', '9', '0', 'done').problems.length, 4);
  });
  it('all blank, or all with one code of the plan, is one answer that is missing, or left open', () => {
    const blank = ['', '', '', '', ''];
    assert.deepEqual(audit(...blank, 'done').problems, ['missing-answer fuels_1 ']);
    assert.deepEqual(audit('-3', '-3', '-3', '-3', '-3', 'done').problems, []);
    assert.deepEqual(audit('-1', '-1', '-1', '-1', '-1', 'done').problems, ['missing-answer fuels_1 -1']);
    // Codes that differ stand for nothing, each by itself.
    assert.deepEqual(audit('-3', '-1', '-3', '-3', '-3', 'done').problems.length, 5);
    const filling = auditOf([section('a', [fuels])], { codeBlanks: true });
    assert.deepEqual(filling(...blank, 'done').out, ['-3', '-3', '-3', '-3', '-3', 'done']);
    const must = auditOf([section('a', [{ ...fuels, required: true }])], { codeBlanks: true });
    assert.deepEqual(must(...blank, 'done').problems, ['missing-answer fuels_1 ']);
    assert.deepEqual(must('-3', '-3', '-3', '-3', '-3', 'done').problems, ['missing-answer fuels_1 -3']);
  });
  it('a blank is a missing answer, unless it is said to mean not picked', () => {
    assert.deepEqual(audit('1', '1', '', '0', '0', 'done').problems, ['missing-answer fuels_3 ']);
    const lenient = auditOf([section('a', [fuels])], { blankPicks: true });
    assert.deepEqual(lenient('1', '1', '', '', '', 'done').out, ['1', '1', '0', '0', '0', 'done']);
  });
});

it('ranks: a place left open, a code twice, and one that is not on the list', () => {
  const audit = auditOf([
    section('a', [ask('top', { type: 'rank', options: [option(1), option(2), option(3)] })]),
  ]);
  assert.deepEqual(audit('2', '1', '-3', 'done').problems, []);
  assert.deepEqual(audit('2', '2', '-3', 'done').problems, ['contradictory-picks top_rank2 2']);
  assert.deepEqual(audit('2', '', '3', 'done').problems, ['missing-answer top_rank2 ']);
  assert.deepEqual(audit('7', '1', '2', 'done').problems, ['unknown-code top_rank1 7']);
});

it('draws: as many as were drawn, and the others filled in', () => {
  const audit = auditOf([section('a', [ask('x'), ask('y'), ask('z')], { draw: 2 })]);
  assert.deepEqual(audit('1', '', '2', 'done'), {
    problems: [],
    out: ['1', '-2', '2', 'done'],
    came: { to: 'ending', ending: 0 },
  });
  assert.deepEqual(audit('1', '1', '2', 'done').problems, ['wrong-number-drawn z 2']);
  assert.deepEqual(audit('1', '-2', '-2', 'done').problems, ['wrong-number-drawn y -2']);
});

describe('answers and the routing', () => {
  const items = [
    ask('own', 2, { required: true }),
    ask('rent', { type: 'number', min: 0, max: 900, decimals: 1 }, { askIf: 'own = 2', required: true }),
    ask('kind', {
      type: 'single',
      options: [option(1), option(2, { specify: true }), option(3, { askIf: 'own = 2' })],
    }),
    say('thanks'),
  ];
  const audit = auditOf([section('a', items)]);
  it('one fault is one problem: what follows from an answer that is missing is read off the rest', () => {
    assert.deepEqual(audit('2', '450', '1', '', 'done').problems, []);
    assert.deepEqual(audit('', '450', '1', '', 'done').problems, ['missing-answer own ']);
    assert.deepEqual(audit('7', '450', '1', '', 'done').problems, ['unknown-code own 7']);
    assert.deepEqual(audit('1', '450', '1', '', 'done').problems, ['unexpected-answer rent 450']);
    assert.deepEqual(audit('2', '901', '1', '', 'done').problems, ['out-of-limits rent 901']);
    assert.deepEqual(audit('2', '-3', '1', '', 'done').problems, ['missing-answer rent -3']);
  });
  it('a hidden option, and words to specify of another, are not expected', () => {
    assert.deepEqual(audit('1', '', '3', '', 'done').problems, ['unexpected-answer kind 3']);
    assert.deepEqual(audit('1', '', '1', 'Mine', 'done').problems, ['unexpected-answer kind_2_text Mine']);
    assert.deepEqual(audit('1', '', '2', 'Mine', 'done').problems, []);
  });
  it('labels and numbers with a comma are read, and written as codes', () => {
    const { problems, recoded } = new Auditor(planFor(questionnaire([section('a', items)]))).judge([
      'Answer 2',
      '450,5',
      'answer 1',
      '',
      'DONE',
    ]);
    assert.deepEqual(problems, []);
    assert.deepEqual(
      recoded.map(({ value }) => value),
      [2, 450.5, 1, 'done'],
    );
  });
  it('who stopped part-way is told apart from who came to an ending', () => {
    const stopped = audit('2', '', '', '', '');
    assert.deepEqual(stopped.problems, []);
    assert.deepEqual(stopped.came, { to: 'stop', at: 'own' });
    assert.deepEqual(stopped.out, ['2', '-4', '-4', '', '-4']);
    assert.deepEqual(audit('2', '450', '1', '', 'out').problems, ['wrong-ending ending out']);
    assert.deepEqual(audit('2', '450', '1', '', '').out.at(-1), 'done');
  });
  it('a blank that may be left is listed, or gets its code where that is said', () => {
    assert.deepEqual(audit('1', '', '', '', 'done').problems, ['missing-answer kind ']);
    const coded = auditOf([section('a', items)], { codeBlanks: true });
    assert.deepEqual(coded('1', '', '', '', 'done').out, ['1', '-1', '-3', '', 'done']);
  });
  it('a column that the file lacks is told once, and the rows are judged by the others', () => {
    const run = new AuditRun(planFor(questionnaire([section('a', items)])), [
      'case',
      'rent',
      'kind',
      'kind_2_text',
      'ending',
    ]);
    assert.deepEqual(
      run.columnProblems.map(({ problem, column }) => `${problem} ${column}`),
      ['unknown-column case', 'missing-column own'],
    );
    const judged = run.row(['c1', '450', '3', '', 'done']);
    assert.deepEqual(judged.problems, []);
    assert.deepEqual(judged.cells, ['c1', '450', '3', '', 'done', '']);
    assert.deepEqual(run.outHeader.at(-1), 'own');
  });
  it('a wrong ending is told with the right one', () => {
    const { problems } = new Auditor(planFor(questionnaire([section('a', items)]))).judge([
      ...['2', '450', '1', '', 'out'],
    ]);
    assert.deepEqual(
      problems.map((problem) => problemAt(problem, (e) => e)),
      ['wrong ending: they lead to done'],
    );
  });
});

describe('where several answers would explain a row as well', () => {
  const audit = auditOf([
    section('a', [
      ask('way', 3, { required: true }),
      ask('bus', 2, { askIf: 'way = 1', required: true }),
      ask('car', 2, { askIf: 'way <> 3', required: true }),
    ]),
  ]);
  it('only what follows from all of them is written', () => {
    // By bus or by car: who answers of the car took one of both, and of the bus nothing is known.
    const { problems, out } = audit('', '', '1', 'done');
    assert.deepEqual(problems, ['missing-answer way ']);
    assert.deepEqual(out, ['', '-1', '1', 'done']);
    // Nothing answered further on: they went on foot.
    assert.deepEqual(audit('', '', '', 'done'), {
      problems: ['missing-answer way '],
      out: ['', '-1', '-1', 'done'],
      came: { to: 'ending', ending: 0 },
    });
    assert.deepEqual(audit('', '2', '1', 'done').out, ['', '2', '1', 'done']);
  });
  it('an answer that is there counts for more than one that is not', () => {
    assert.deepEqual(audit('3', '', '1', 'done').problems, ['unexpected-answer car 1']);
    assert.deepEqual(audit('1', '', '1', 'done').problems, ['missing-answer bus ']);
  });
});

it('a hard check that holds could not have been passed', () => {
  const checks = [{ if: 'n < m', kind: 'hard' as const, message: 'No.' }];
  const number = { type: 'number' as const, min: 0, max: 9 };
  const audit = auditOf([section('a', [ask('m', number), ask('n', number, { checks }), ask('o')])]);
  assert.deepEqual(audit('5', '7', '1', 'done').problems, []);
  assert.deepEqual(audit('5', '3', '1', 'done').problems, ['out-of-limits n 3']);
});

describe('columns of a file', () => {
  const rows = [
    { name: 'g_heat', label: 'Heating' },
    { name: 'g_light', label: 'Light' },
  ];
  const items = [
    ask('own', 2, { label: 'Owns it' }),
    ask('rent', 2, { text: 'Same words' }),
    ask('pay', 2, { text: 'Same words' }),
    ask('g', { type: 'grid', rows, options: [option(1), option(2)] }),
    ask('some', { type: 'multiple', options: [option(1), option(2)] }),
  ];
  const plan = planFor(questionnaire([section('a', items)]));
  const matched = (header: readonly string[], said: Record<string, string | null> = {}) =>
    matchColumns(plan.document, columnsOf(plan), header, said).header.map(
      ({ column, by }) => `${column === null ? 'none' : (columnsOf(plan)[column]?.name ?? '')} by ${by}`,
    );
  it('are known by name, by small letters, by a label that one alone has, and as somebody said', () => {
    assert.deepEqual(matched(['own', 'RENT', 'Owns it', 'Same words', 'Heating', 'other']), [
      'own by name',
      'rent by name',
      'none by null',
      'none by null',
      'g_heat by label',
      'none by null',
    ]);
    assert.deepEqual(matched([' Owns  it', 'x', 'own'], { x: 'pay' }), [
      'none by null',
      'pay by hand',
      'own by name',
    ]);
    assert.deepEqual(matched(['OWNS IT']), ['own by label']);
    // What is said comes before what is called alike, and none of them is an answer, too.
    assert.deepEqual(matched(['own', 'x', 'y'], { own: null, x: 'own', y: 'gone' }), [
      'none by hand',
      'own by hand',
      'none by null',
    ]);
  });
  it('cannot be used without names of their own', () => {
    assert.equal(headerProblem(['own', 'rent']), null);
    assert.match(headerProblem(['own', ' ']) ?? '', /^Column 2 has no name/);
    assert.match(headerProblem(['own', 'rent', ' own']) ?? '', /^Columns 1 and 3 are both called “own”/);
  });
  it('are told where the file lacks them, or has one that nobody knows', () => {
    const told = new AuditRun(plan, ['own', 'x', 'y'], {}, { y: null }).columnProblems;
    assert.deepEqual(
      told.map(({ problem, column }) => `${problem} ${column}`),
      [
        'unknown-column x',
        ...['rent', 'pay', 'g_heat', 'g_light', 'some_1', 'some_2', 'ending'].map(
          (name) => `missing-column ${name}`,
        ),
      ],
    );
  });
  it('fit a row that has as many cells, or empty ones too many', () => {
    assert.equal(raggedProblem(4, ['1', '2'], 2), null);
    assert.equal(raggedProblem(4, ['1', '2', '', ''], 2), null);
    assert.match(raggedProblem(4, ['1', '2', '', '3'], 2) ?? '', /^Row 4 has 4 cells, and the first row 2/);
    assert.match(raggedProblem(4, ['1'], 2) ?? '', /^Row 4 has 1 cells/);
  });
  it('with case numbers are known by what they are usually called', () => {
    for (const [header, found] of [
      [['own', 'Respondent_ID'], 'Respondent_ID'],
      [['id', 'case'], 'id'],
      [['caseid'], 'caseid'],
      [['household no', 'x'], 'household no'],
      [['paid', 'idea', 'in case'], null],
    ] as const)
      assert.equal(likelyCaseColumn(header), found);
  });
});

it('where the time of a section ran out, the rest of it was not reached', () => {
  const audit = auditOf([section('a', [ask('x'), ask('y')], { timeLimit: 30 }), section('b', [ask('z')])]);
  assert.deepEqual(audit('1', '-4', '2', 'done').problems, []);
});
