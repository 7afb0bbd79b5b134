/** DDI-Lifecycle: sound by the standard's own order, every reference leads somewhere, and it comes back with the same routes. */
import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { describe, it } from 'node:test';
import { RelaxNGValidator, XmlDocument } from 'libxml2-wasm';
import { randomChain, randomDocument } from '../../../../tests/agree/documents';
import { FEATURED } from '../../../../tests/agree/featured';
import { seedsToTry } from '../../../../tests/agree/seeds';
import { sameRouting } from '../../analysis';
import { readDocument, readDocumentText, writeDocument } from '../../document/read';
import type { Question, Questionnaire } from '../../document/types';
import { childOf, readXml, type ReadElement } from '../../exchange/xml';
import { planOf } from '../../routing/planner';
import { FORMATS } from '../formats';
import { NO_WORK } from '../../exchange/work-file';
import { lossesBetween } from '../losses';
import { readDdiLifecycle } from './read-lifecycle';
import { structured } from './structured';

const SEEDS = seedsToTry([], 40);
const DEMOS = ['tern-valley-home-heating', 'street-lighting-doorstep', 'winter-diary'].map((name) => {
  const read = readDocumentText(readFileSync(`demo/${name}.fork.json`, 'utf8'));
  assert.ok(read.ok);
  return read.document;
});

const written = (document: Questionnaire) => FORMATS['ddi-lifecycle'].write({ document, work: NO_WORK });
const back = (text: string) => readDdiLifecycle(new TextEncoder().encode(text), 'back');

function rootOf(text: string): ReadElement {
  const read = readXml(new TextEncoder().encode(text));
  assert.ok(read.ok);
  return read.root;
}

/** As it comes from a file, with its properties in one order. */
function asRead(document: unknown): Questionnaire {
  const read = readDocument(document);
  assert.ok(read.ok);
  return read.document;
}

/** By URN, what the part is called; a URN that comes twice is a fault. */
function partsIn(root: ReadElement): Map<string, string> {
  const parts = new Map<string, string>();
  const look = (at: ReadElement) => {
    const urn = childOf(at, 'URN')?.text;
    if (urn !== undefined && !at.name.endsWith('Reference')) {
      assert.ok(!parts.has(urn), `${urn} comes twice`);
      parts.set(urn, at.name);
    }
    at.children.forEach(look);
  };
  look(root);
  return parts;
}

describe('DDI-Lifecycle', () => {
  const schema = XmlDocument.fromString(readFileSync('tests/schemas/ddi-lifecycle.rng', 'utf8'));
  const validator = RelaxNGValidator.fromDoc(schema);

  it('is in order, refers to what is there, and comes back but for what it says', async () => {
    for (const document of [...DEMOS, ...(FEATURED as readonly Questionnaire[])]) {
      const text = await written(document);
      const parsed = XmlDocument.fromString(text);
      validator.validate(parsed);
      parsed.dispose();
      const root = rootOf(text);
      const parts = partsIn(root);
      const references = (at: ReadElement): ReadElement[] =>
        at.name.endsWith('Reference') ? [at] : at.children.flatMap(references);
      for (const reference of references(root))
        assert.equal(
          parts.get(childOf(reference, 'URN')?.text ?? ''),
          childOf(reference, 'TypeOfObject')?.text,
          `${document.title}, line ${reference.line}`,
        );
      const read = back(text);
      assert.ok(read.ok, document.title);
      assert.deepEqual(lossesBetween(structured(document).document, read.content.document), []);
      const told = await FORMATS['ddi-lifecycle'].losses({ document, work: NO_WORK });
      const skips = document.sections.flatMap(({ items, onward }) => [
        ...items.filter((item) => item.kind !== 'page_break' && (item.skips ?? []).length > 0),
        ...(onward === undefined ? [] : [onward]),
      ]);
      assert.ok(told.length >= skips.length);
    }
  });

  it(`leads everybody the same way once it is read again, ${SEEDS.words}`, async () => {
    let converted = 0;
    for (const document of [
      ...DEMOS,
      ...FEATURED,
      ...SEEDS.all.flatMap((seed) => [randomDocument(seed), randomChain(seed)]),
    ].map(asRead)) {
      const made = structured(document);
      converted += made.converted.size;
      const read = back(await written(document));
      assert.ok(read.ok, `${document.title}: ${JSON.stringify(read)}`);
      assert.equal(writeDocument(read.content.document), writeDocument(made.document));
      const plan = planOf(document);
      if (plan.problems.length > 0) assert.equal(made.converted.size, 0);
      // Null: not to be told exactly; then no skip was touched.
      const same = sameRouting(plan, planOf(read.content.document));
      assert.ok(same === true || (same === null && made.converted.size === 0), document.title);
    }
    assert.ok(converted >= 6, `${converted} items lost a skip`);
  });

  it('gives an unchanged part the same name in every version, and a changed one another version', async () => {
    const [demo] = DEMOS;
    assert.ok(demo !== undefined);
    const edited: Questionnaire = {
      ...demo,
      sections: demo.sections.map((section) => ({
        ...section,
        items: section.items.map((item) =>
          item.kind === 'question' && item.name === 'bill' ? { ...item, text: `${item.text}!` } : item,
        ),
      })),
    };
    const [before, after] = await Promise.all(
      [demo, edited].map(async (each) => partsIn(rootOf(await written(each)))),
    );
    const questions = (parts: Map<string, string> | undefined) =>
      [...(parts ?? [])]
        .filter(([, name]) => name.startsWith('Question') && name !== 'QuestionScheme')
        .map(([urn]) => urn);
    const known = new Set(questions(before));
    const fresh = questions(after).filter((urn) => !known.has(urn));
    assert.equal(fresh.filter((urn) => urn.includes('question-')).length, 1);
    assert.match(fresh.join(' '), /question-bill:1\.\d+/);
  });
});

describe('DDI-Lifecycle of another program', () => {
  const foreign = readFileSync('tests/schemas/foreign-lifecycle.xml', 'utf8');

  it('is taken over as far as it is understood, and the rest is told by its line', () => {
    const read = back(foreign);
    assert.ok(read.ok);
    const { sections, title, language } = read.content.document;
    assert.equal(`${title} (${language})`, 'Gardens (de)');
    assert.deepEqual(
      sections.map((section) => [
        section.title,
        section.items.map((item) =>
          item.kind === 'page_break'
            ? '-'
            : `${item.name}${item.askIf === undefined ? '' : ` if ${item.askIf}`}`,
        ),
      ]),
      [
        ['Start', ['hello', 'has_garden']],
        ['Garden', ['size_m2 if has_garden = 1', 'plans if not (has_garden = 1)', 'why']],
      ],
    );
    const questions = sections
      .flatMap(({ items }) => items)
      .filter((item): item is Question => item.kind === 'question');
    assert.deepEqual(
      questions.map(({ answer }) => answer),
      [
        {
          type: 'single',
          options: [
            { code: 1, label: 'Ja' },
            { code: 2, label: 'Nein' },
          ],
        },
        { type: 'number', min: 1, max: 5000 },
        {
          type: 'multiple',
          options: [
            { code: 1, label: 'Ja' },
            { code: 2, label: 'Nein' },
          ],
        },
        { type: 'text' },
      ],
    );
    const doubts = (read.doubts ?? []).map(
      ({ line, what }) => `${foreign.split('\n')[line - 1]?.trim().slice(0, 24)}: ${what}`,
    );
    assert.deepEqual(doubts.length, 3, doubts.join('\n'));
    assert.match(doubts.join('\n'), /V1 eq 1.*no condition.*\n.*refers to itself.*\n.*computation/s);
  });

  it('is refused where it is no such file, or holds what no such file needs', () => {
    const refused = (text: string) => {
      const read = back(text);
      assert.ok(!read.ok);
      return read.problems.join(' ');
    };
    assert.match(refused('<html/>'), /no DDI-Lifecycle.*<html>/);
    assert.match(refused('<!DOCTYPE a [<!ENTITY b "c">]><a>&b;</a>'), /document type/);
    assert.match(refused('<a><b></a>'), /no sound XML/);
    assert.match(refused(`${'<a>'.repeat(5000)}`), /too deep/);
    assert.match(refused('<DDIInstance xmlns="ddi:instance:3_3"/>'), /no question/);
  });
});
