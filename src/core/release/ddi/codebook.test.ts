/** DDI-Codebook: sound by the standard's own order, nothing refers to what is not there, and other houses' files are taken over. */
import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { describe, it } from 'node:test';
import { RelaxNGValidator, XmlDocument } from 'libxml2-wasm';
import { FEATURED } from '../../../../tests/agree/featured';
import { columnsOf } from '../../coding/columns';
import { readDocumentText } from '../../document/read';
import type { Question, Questionnaire } from '../../document/types';
import { allNamed, readXml } from '../../exchange/xml';
import { NO_WORK } from '../../exchange/work-file';
import { planOf } from '../../routing/planner';
import { FORMATS } from '../formats';
import { readDdiCodebook } from './read-codebook';

const DEMOS = ['tern-valley-home-heating', 'street-lighting-doorstep', 'winter-diary'].map((name) => {
  const read = readDocumentText(readFileSync(`demo/${name}.fork.json`, 'utf8'));
  assert.ok(read.ok);
  return read.document;
});
const back = (text: string) => readDdiCodebook(new TextEncoder().encode(text), 'back');

describe('DDI-Codebook', () => {
  const validator = RelaxNGValidator.fromDoc(
    XmlDocument.fromString(readFileSync('tests/schemas/ddi-codebook.rng', 'utf8')),
  );

  it('is in order, has every column, and refers to what is there', async () => {
    for (const document of [...DEMOS, ...(FEATURED as readonly Questionnaire[])]) {
      const text = await FORMATS['ddi-codebook'].write({ document, work: NO_WORK });
      const parsed = XmlDocument.fromString(text);
      validator.validate(parsed);
      parsed.dispose();
      const read = readXml(new TextEncoder().encode(text));
      assert.ok(read.ok);
      const variables = allNamed(read.root, 'var');
      assert.deepEqual(
        variables.map(({ attributes }) => attributes.name),
        columnsOf(planOf(document)).map(({ name }) => name),
      );
      const ids = new Set<string>();
      const references: string[] = [];
      for (const name of ['var', 'varGrp', 'qstn', 'forward', 'backward'])
        for (const { attributes } of allNamed(read.root, name)) {
          if (attributes.ID !== undefined) {
            assert.ok(!ids.has(attributes.ID), attributes.ID);
            ids.add(attributes.ID);
          }
          references.push(
            ...`${attributes.qstn ?? ''} ${name === 'varGrp' ? attributes.var : ''}`.split(' '),
          );
        }
      assert.deepEqual(
        references.filter((id) => id !== '' && !ids.has(id)),
        [],
      );
    }
  });

  it('brings back questions, codes and ask-ifs of the demo', async () => {
    const [demo] = DEMOS;
    assert.ok(demo !== undefined);
    const read = back(await FORMATS['ddi-codebook'].write({ document: demo, work: NO_WORK }));
    assert.ok(read.ok);
    const questions = ({ sections }: Questionnaire) =>
      sections.flatMap(({ items }) => items).filter((item): item is Question => item.kind === 'question');
    const told = ({ name, text, askIf, answer }: Question) => [
      name,
      text.trim(),
      askIf,
      'options' in answer ? answer.options.map(({ code, label }) => `${code} ${label}`) : answer.type,
    ];
    // A codebook knows no scale, and of picks in each row of a grid the single columns alone.
    const other = ({ answer }: Question) =>
      answer.type === 'scale' || (answer.type === 'grid' && answer.pick === 'many');
    const left = new Set(
      questions(demo)
        .filter(other)
        .map(({ name }) => name),
    );
    const kept = (document: Questionnaire) =>
      questions(document)
        .filter(({ name }) => !left.has(name))
        .map(told);
    assert.deepEqual(kept(read.content.document), kept(demo));
  });
});

it('takes over a codebook of another program, without words of questions and with codes of its own', () => {
  const read = back(`<?xml version="1.0"?>
<c:codeBook xmlns:c="ddi:codebook:2_5"><c:stdyDscr><c:citation><c:titlStmt><c:titl>Rivers</c:titl></c:titlStmt></c:citation></c:stdyDscr>
<c:dataDscr>
<c:var ID="V1" name="SWIM"><c:labl>Swims in rivers</c:labl><c:universe>Adults near a river</c:universe>
<c:catgry><c:catValu>1</c:catValu><c:labl>Yes</c:labl></c:catgry><c:catgry><c:catValu>2</c:catValu><c:labl>No</c:labl></c:catgry>
<c:catgry missing="Y"><c:catValu>9</c:catValu><c:labl>No answer</c:labl></c:catgry></c:var>
<c:var ID="V2" name="how often?"><c:labl>Times a year</c:labl><c:valrng><c:range min="0" max="365"/></c:valrng><c:varFormat type="numeric"/>
<c:catgry missing="Y"><c:catValu>9</c:catValu><c:labl>No answer</c:labl></c:catgry></c:var>
<c:var ID="V3" name="WHY"><c:labl>Why</c:labl><c:varFormat type="character"/></c:var>
</c:dataDscr></c:codeBook>`);
  assert.ok(read.ok);
  const [section, ...others] = read.content.document.sections;
  assert.deepEqual(others, []);
  assert.deepEqual(section?.items, [
    {
      kind: 'question',
      name: 'SWIM',
      text: 'Swims in rivers',
      answer: {
        type: 'single',
        options: [
          { code: 1, label: 'Yes' },
          { code: 2, label: 'No' },
        ],
      },
    },
    {
      kind: 'question',
      name: 'how_often',
      text: 'Times a year',
      answer: { type: 'number', min: 0, max: 365 },
    },
    { kind: 'question', name: 'WHY', text: 'Why', answer: { type: 'text' } },
  ]);
  assert.deepEqual(
    (read.doubts ?? []).map(({ line, what }) => [line, what.slice(0, 34)]),
    [
      [2, 'it has no words of questions: the '],
      [4, 'whom it is asked of, “Adults near '],
    ],
  );
});
