/** The plain-text script: what is written reads back to the identical questionnaire, and what cannot be read says where and why. */
import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { randomChain, randomDocument } from '../../../../tests/agree/documents';
import { FEATURED } from '../../../../tests/agree/featured';
import { mutated } from '../../../../tests/agree/mutations';
import { seedsToTry } from '../../../../tests/agree/seeds';
import { ask, questionnaire, say, section } from '../../../../tests/support/questionnaire';
import { eachProperty } from '../../document/each-property';
import { PROPERTIES } from '../../document/properties';
import { readDocument, readDocumentText, writeDocument } from '../../document/read';
import { ANSWER_TYPES, type Questionnaire } from '../../document/types';
import { STUDY } from './grammar';
import { readScript } from './read-script';
import type { Shape, Slot } from './slots';
import { writeScript } from './write-script';

const SEEDS = seedsToTry([], 400);

function comesBack(document: Questionnaire, about: string): void {
  const text = writeScript(document);
  const read = readScript(text);
  assert.ok(read.ok, `${about}: ${JSON.stringify(read)}\n${text.slice(0, 2000)}`);
  assert.equal(writeDocument(read.document), writeDocument(document), about);
}

function demo(name: string): Questionnaire {
  const read = readDocumentText(readFileSync(`demo/${name}.fork.json`, 'utf8'));
  assert.ok(read.ok);
  return read.document;
}
const DEMOS = ['tern-valley-home-heating', 'street-lighting-doorstep', 'winter-diary'].map(demo);

describe('a script', () => {
  it('has every property of a questionnaire', () => {
    const met = new Set<string>();
    for (const document of [...FEATURED, ...DEMOS]) {
      comesBack(document, document.title);
      eachProperty(document, ({ kind, name }) => met.add(`${kind}.${name}`));
    }
    const all = Object.entries(PROPERTIES).flatMap(([kind, of]) =>
      Object.keys(of).map((name) => `${kind}.${name}`),
    );
    assert.deepEqual(
      all.filter((each) => !met.has(each)),
      [],
    );
  });

  it(`comes back as it was, ${SEEDS.words} changed at random: empty lists, switches off and all`, () => {
    let count = 0;
    for (const seed of SEEDS.all)
      for (const document of [FEATURED[seed % FEATURED.length], randomDocument(seed), randomChain(seed)]) {
        const read = readDocument(JSON.parse(JSON.stringify(mutated(document as Questionnaire, seed))));
        if (!read.ok) continue;
        comesBack(read.document, `seed ${seed}`);
        count += 1;
      }
    assert.ok(count > SEEDS.count / 2, `only ${count} could be written`);
  });

  it('keeps every text to the letter, whatever stands in it', () => {
    const words = fc.oneof(
      fc.string({ unit: 'binary', maxLength: 40 }),
      fc.stringMatching(/^[ "|#:\\\n\r\ta-c]{0,20}$/),
      fc.constantFrom(
        '',
        ' ',
        '\n',
        '"',
        '| x',
        '# y',
        'a\n',
        '\n a',
        'a \nb',
        '1: x',
        'skip to item a',
        'a\u2028b',
      ),
    );
    fc.assert(
      fc.property(fc.array(words, { minLength: 1, maxLength: 12 }), (texts) => {
        const document = structuredClone(FEATURED[texts.length % FEATURED.length]) as Questionnaire;
        let n = 0;
        eachProperty(document, ({ holder, name, property, value }) => {
          const isText = ['words', 'piped words', 'condition', 'expression'].includes(property.holds);
          if (isText && typeof value === 'string') holder[name] = texts[n++ % texts.length];
        });
        comesBack(document, JSON.stringify(texts));
      }),
      { numRuns: 150 },
    );
  });

  it('reads in a mail: one thought a line', () => {
    const document = questionnaire([
      section(
        'home',
        [
          say('hello', { text: 'Good day.\nThis takes a minute.' }),
          ask('fuel', 2, {
            label: 'Fuel',
            askIf: 'hello asked',
            required: true,
            skips: [{ if: 'fuel = 2', to: { ending: 'out' } }, { to: { section: 'more' } }],
          }),
        ],
        { onward: [{ if: 'fuel = 1', to: { ending: 'done' } }] },
      ),
      section('more', [], { onward: { ending: 'done' }, repeat: { each: 'fuel', max: 3 } }),
    ]);
    assert.deepEqual(writeScript(document).split('\n').slice(11, 41), [
      '',
      'section home: home',
      '  kind: topic',
      '',
      '  statement hello:',
      '    | Good day.',
      '    | This takes a minute.',
      '',
      '  question fuel: fuel?',
      '    label: Fuel',
      '    ask if: hello asked',
      '    answer: single',
      '      1: Answer 1',
      '      2: Answer 2',
      '    required',
      '    skip to ending out if fuel = 2',
      '    skip to section more',
      '  onward to ending done if fuel = 1',
      '',
      'section more: more',
      '  kind: topic',
      '  repeat for each fuel, at most 3',
      '  no items',
      '  everybody onward to ending done',
      '',
      'ending done',
      '  kind: complete',
      '  message: Thank you.',
      '',
      'ending out',
    ]);
  });
});

const HEAD = 'Jolly Fork script, 1\ntitle: T\nlanguage: en\n';
const BODY = `${HEAD}section a: A
  kind: topic
  question fuel: Which?
    answer: single
      1: Gas
ending done
  kind: complete
  message: Thanks.
${['not_applicable', 'not_drawn', 'no_answer', 'not_reached'].map((reason, n) => `missing ${reason}: M\n  code: -${n + 1}\n`).join('')}`;
/** What is told of a script, as `line: what`. */
function told(text: string): string[] {
  const read = readScript(text);
  return read.ok ? [] : read.problems.map(({ line, what }) => `${line}: ${what}`);
}

describe('a script that cannot be read', () => {
  it('is told by line, each time with what to do', () => {
    const cases: readonly (readonly [string, RegExp])[] = [
      ['', /^1: a script begins with the line “Jolly Fork script, 1”/],
      ['title: T', /^1: a script begins/],
      [
        BODY.replace('kind: topic', 'kind topic'),
        /^5: “kind topic” is not understood here\. Here can stand: kind: …;/,
      ],
      [BODY.replace('    answer', '   answer'), /^7: indent with two spaces a step: here are 3/],
      [
        BODY.replace('    answer', '      answer'),
        /^7: this is indented by 6 spaces, further than anything above it goes/,
      ],
      [BODY.replace('    answer', '\tanswer'), /^7: indent with two spaces a step, not with tabs/],
      [BODY.replace('single', 'tick'), /^7: “tick” is no type of answer: take single, multiple,/],
      [BODY.replace('1: Gas', '1: Gas\n        kind: x'), /^9: “kind: x” is not understood here/],
      [BODY.replace('kind: topic', 'kind: topic\n  kind: topic'), /^6: this was said already/],
      [BODY.replace('kind: topic', 'kind: topic\n    more'), /^6: nothing can stand under this line/],
      [BODY.replace('Which?', '"Which?'), /^6: the quotes are not closed/],
      ...['ending', 'ending done at once', 'nowhere'].map(
        (place) =>
          [
            BODY.replace('kind: topic', `kind: topic\n  everybody onward to ${place}`),
            /^6: after “everybody onward to” stands one place for all: /,
          ] as const,
      ),
      [
        BODY.replace('kind: topic', `kind: topic${'\n  everybody onward to ending done'.repeat(2)}`),
        /^7: after “everybody onward to” stands one place for all/,
      ],
      [
        BODY.replace('1: Gas', '1: Gas\n    skip to cars'),
        /^9: after “skip to” stands where to: item NAME, section ID/,
      ],
      [
        BODY.replace('1: Gas', '1: Gas\n    skip to item cars when x'),
        /^9: after item cars stands nothing more, or “if”/,
      ],
      [BODY.replace('1: Gas', '1: Gas\n    seconds: soon'), /^9: a number is needed after “seconds:”/],
      [BODY.replace('1: Gas', '1: Gas\n    agrees: 1; 2'), /^9: codes are whole numbers with commas/],
      [
        BODY.replace('kind: topic', 'kind: topic\n  repeat twice'),
        /^6: write “repeat NAME times, at most 6”/,
      ],
      [BODY.replace('language', '  language'), /^3: nothing can stand under this line/],
      [BODY.replace('title: T', '  title: T'), /^2: nothing can stand under the line above/],
      [
        BODY.replace('1: Gas', '1: Gas\n    required\n      | yes'),
        /^10: a longer text stands under a line that ends with its colon/,
      ],
      [
        BODY.replace('1: Gas', '1: Gas:\n        | yes'),
        /^8: the text stands behind the colon or below, not both/,
      ],
      [`| a\n${BODY}`, /^1: a line with a bar belongs under a line of its own/],
      // What the questionnaire itself refuses is told at the line it comes from.
      [BODY.replace('kind: topic', 'kind: tropic'), /^5: a section is of kind consent, screening/],
      [BODY.replace('      1: Gas\n', ''), /^7: at least one option is needed|^7: /],
      [BODY.replace('question fuel', 'question and'), /^6: /],
      [HEAD, /^1: /],
    ];
    for (const [text, expected] of cases) assert.match(told(text)[0] ?? 'nothing', expected, text);
  });

  it('tells all of it at once, in order, and not without end', () => {
    const some = told(BODY.replace('kind: topic', 'kynd: topic').replace('1: Gas', '1 Gas'));
    assert.deepEqual(
      some.map((each) => each.split(':')[0]),
      ['5', '8'],
    );
    assert.equal(told(`${BODY}${'oops\n'.repeat(500)}`).length, 20);
  });

  it('takes line ends of any kind, notes, and a mark of the encoding', () => {
    const noted = BODY.replace('section a', '# to be agreed\n\nsection a');
    for (const text of [noted, noted.replaceAll('\n', '\r\n'), `\uFEFF${noted}`])
      assert.deepEqual(told(text), []);
  });
});

describe('docs/script-text.md', () => {
  const page = readFileSync('docs/script-text.md', 'utf8');

  it('shows a script that can be read', () => {
    const [, example = ''] = /```script\n([^]*?)```/.exec(page) ?? [];
    assert.deepEqual(told(example), []);
    assert.ok(example.length > 500);
  });

  it('tells every line that the grammar has', () => {
    const looks = new Set<string>();
    const seen = new Set<Shape>();
    const look = (slots: readonly Slot[]) => {
      for (const slot of slots) {
        for (const each of slot.looks.split('; ')) looks.add(each);
        for (const shape of slot.shapes ?? []) {
          if (seen.has(shape)) continue;
          seen.add(shape);
          for (const type of ANSWER_TYPES) look(shape.slots({ type }));
        }
      }
    };
    look(STUDY);
    assert.ok(looks.size > 70, `only ${looks.size} are known`);
    assert.deepEqual(
      [...looks].filter((each) => !page.includes(`\`${each}\``)),
      [],
    );
  });
});
