/** Reading a pasted list the way people write them. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { readDocument } from '../document/read';
import { planOf } from '../routing/planner';
import { snagsOf } from '../snags';
import { fromList, type LineKind } from './from-list';

const LIST = `CONSENT
We ask about the river path. It takes five minutes.

1. Are you aged 18 or over?
- Yes
- No (screen out)

# Use of the path
2) Do you use the river path?
   1. Yes
   2. No
If no, skip to 5
3. What do you use it for? (tick all that apply)
Walking
Cycling
Other, please specify
None of these
4. How many times a week? (0 to 14)
Q5. How did you hear of us?
1 = A poster
2 = A friend -> Q7
98 = Don't know
6. Which poster?
7. Anything else you wish to add?
If maybe, go to 3
Go to section Nowhere
`;

describe('a pasted list', () => {
  const understood = fromList(LIST, 'River path');
  const { document } = understood;
  const items = document.sections.flatMap((section) => section.items);
  const question = (name: string) => {
    const found = items.find((item) => item.kind === 'question' && item.name === name);
    assert.ok(found?.kind === 'question');
    return found;
  };

  it('becomes sections, questions and answers', () => {
    assert.deepEqual(
      document.sections.map(({ title, kind }) => [title, kind]),
      [
        ['Consent', 'consent'],
        ['Use of the path', 'topic'],
      ],
    );
    assert.equal(understood.questions, 7);
    assert.deepEqual(question('q2').answer, {
      type: 'single',
      options: [
        { code: 1, label: 'Yes' },
        { code: 2, label: 'No' },
      ],
    });
    assert.deepEqual(question('q3').answer, {
      type: 'multiple',
      options: [
        { code: 1, label: 'Walking' },
        { code: 2, label: 'Cycling' },
        { code: 3, label: 'Other', specify: true },
        { code: 97, label: 'None of these', exclusive: true },
      ],
    });
    assert.equal(question('q3').text, 'What do you use it for?');
    assert.deepEqual(question('q4').answer, { type: 'number', min: 0, max: 14 });
    assert.deepEqual(question('q7').answer, { type: 'text', lines: 'many' });
  });

  it('makes its words of skipping into skips', () => {
    assert.deepEqual(question('q1').skips, [{ if: 'q1 = 2', to: { ending: 'screened_out' } }]);
    assert.deepEqual(question('q2').skips, [{ if: 'q2 = 2', to: { item: 'q5' } }]);
    assert.deepEqual(question('q5').skips, [{ if: 'q5 = 2', to: { item: 'q7' } }]);
    assert.equal(understood.skips, 3);
  });

  it('says of every line what it was taken for, and what it could not use', () => {
    assert.equal(understood.lines.length, LIST.split('\n').filter((line) => line.trim() !== '').length);
    const trouble = understood.lines.filter(({ kind }) => kind === 'trouble').map(({ says }) => says);
    assert.equal(trouble.length, 2);
    assert.match(trouble[0] ?? '', /“maybe” is no answer of q7/);
    assert.match(trouble[1] ?? '', /“section Nowhere” is no question or section/);
  });

  it('is a document without snags, but for labels that are still to be written', () => {
    assert.ok(readDocument(document).ok);
    const snags = snagsOf(planOf(document)).filter(({ rule }) => rule !== 'unlabelled');
    assert.deepEqual(snags, []);
  });

  it('can be read otherwise, line by line', () => {
    const list = '1. Which park?\nThe old one\nThe new one\n2. Why?';
    const as = (line: number, kind: LineKind) => fromList(list, 'x', new Map([[line, kind]])).lines[line - 1];
    assert.equal(as(2, 'note')?.kind, 'note');
    assert.equal(as(2, 'question')?.says, 'question q2: a single answer');
    assert.equal(as(4, 'answer')?.says, 'answer 3 of q1');
    assert.equal(as(3, 'trouble')?.says, 'left out');
  });

  it('leaves no line out of its account, whatever stands in what order', () => {
    const pieces = fc.constantFrom(
      ...LIST.split('\n'),
      '',
      '[If yes at Q2]',
      'Yes / No / Not sure',
      '____',
      '3 Is it?',
      'Your Garden',
      '0 = low … 10 = high',
    );
    fc.assert(
      fc.property(fc.array(pieces, { maxLength: 14 }), (lines) => {
        const { document: made, lines: told } = fromList(lines.join('\n'), 'x');
        assert.ok(readDocument(made).ok);
        const written = lines.flatMap((line, n) => (line.trim() === '' ? [] : [n + 1]));
        assert.deepEqual(
          told.map(({ line }) => line),
          written,
        );
        assert.ok(told.every(({ says }) => says !== ''));
      }),
      { numRuns: 300 },
    );
  });

  it('never fails on any text', () => {
    for (const odd of ['', '???', '1.', '- - -', 'IF NO\n(go to 1)', '1. a\n(skip to 1)', '\t\n#']) {
      assert.ok(readDocument(fromList(odd, 'x').document).ok, odd);
    }
  });
});

it('says of a question how it is answered, and takes thanks for no answer', () => {
  const { document, lines } = fromList(
    '1. Rate it (1 to 5)\n2. Which?\n- This\n3. Anything else?\nThank you for your time.',
    'x',
  );
  assert.deepEqual(
    lines.filter(({ kind }) => kind === 'question').map(({ says }) => says),
    ['question q1: a scale from 1 to 5', 'question q2: a single answer', 'question q3: a long text'],
  );
  assert.match(lines.find(({ text }) => text.startsWith('2.'))?.doubt ?? '', /one answer only/);
  assert.equal(document.sections[0]?.items.at(-1)?.kind, 'statement');
});

it('finds a scale in the line of its question', () => {
  const { document } = fromList(
    '1. Rate the crew. 0 = bad ... 10 = good\n2. How warm was it? 1 2 3 4 5',
    'Test',
  );
  assert.deepEqual(
    document.sections[0]?.items.map((item) => item.kind === 'question' && [item.text, item.answer]),
    [
      ['Rate the crew.', { type: 'scale', min: 0, max: 10, lowLabel: 'bad', highLabel: 'good' }],
      ['How warm was it?', { type: 'scale', min: 1, max: 5 }],
    ],
  );
});

it('a line without end is left out, told, and holds nothing up', () => {
  const long = '1. Which of these? (Yes, '.repeat(20_000);
  const read = fromList(`1. Do you rent?\nYes\nNo\n${long}\n2. Do you own?\nYes\nNo`, 'Study');
  assert.equal(read.questions, 2);
  const row = read.lines.find(({ kind }) => kind === 'trouble');
  assert.match(row?.says ?? '', /more than 3,000 characters in one line/);
});
