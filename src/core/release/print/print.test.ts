/** What is printed and put into sheets: nothing of the questionnaire is left out, and nothing in it is run or fetched. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { strFromU8, unzipSync } from 'fflate';
import { FEATURED } from '../../../../tests/agree/featured';
import { optionsOf } from '../../document/shape';
import type { Question, Questionnaire } from '../../document/types';
import { cellsOf } from '../../exchange/sheet-cells';
import { NO_WORK } from '../../exchange/work-file';
import { fillPipes } from '../../routing/pipes';
import { FORMATS } from '../formats';
import { codebookSheets } from '../sheets/codebook-workbook';
import { preparedFor } from '../formats/prepared';
import { pagesHtml } from './html';
import { markedBlocks, markedRuns } from './marked';
import { pagesPdf } from './pdf';
import { plain, textOf, type Pages } from './pages';
import { demo as demoStudy } from '../../../../tests/support/demo';

const demo = demoStudy();
const STUDIES = [demo, ...(FEATURED as readonly Questionnaire[])];

/** As the eye takes it: spaces alike, without marks of emphasis. */
const eyed = (text: string) =>
  text
    .replaceAll(/<[^>]*>/g, ' ')
    .replaceAll('&quot;', '"')
    .replaceAll('&lt;', '<')
    .replaceAll('&gt;', '>')
    .replaceAll('&amp;', '&')
    .replaceAll('&apos;', "'")
    .replaceAll(/[\s*_\\]+/g, '');

const questionsOf = ({ sections }: Questionnaire) =>
  sections.flatMap(({ items }) => items).filter((item): item is Question => item.kind === 'question');

/** Every word and code of a study that a reader of the script must find. */
function wordsOf(document: Questionnaire): string[] {
  return questionsOf(document).flatMap(({ name, text, answer }) => [
    name,
    // Where earlier answers are put in, the number of their question stands: what is around it is the same.
    ...fillPipes(text, () => '\n').split('\n'),
    ...optionsOf(answer).flatMap(({ label, code }) => [
      ...fillPipes(label, () => '\n').split('\n'),
      String(code),
    ]),
  ]);
}

describe('the script on paper', () => {
  it('holds every question, answer and code, and where to go, as a page and for a word processor', async () => {
    for (const document of STUDIES) {
      const content = { document, work: NO_WORK };
      const html = eyed(String(await FORMATS.paper.write(content, 'paper.html')));
      const docx = await FORMATS.paper.write(content, 'paper.docx');
      assert.ok(docx instanceof Uint8Array);
      const body = eyed(strFromU8(unzipSync(docx)['word/document.xml'] ?? new Uint8Array()));
      for (const words of wordsOf(document)) {
        assert.ok(html.includes(eyed(words)), `${document.title}: ${words}`);
        assert.ok(body.includes(eyed(words)), `${document.title}: ${words}`);
      }
    }
    const html = eyed(String(await FORMATS.paper.write({ document: demo, work: NO_WORK }, 'paper.html')));
    for (const goTo of ['go to B3', 'end: Declined', 'go to D1']) assert.ok(html.includes(eyed(goTo)), goTo);
  });
});

it('a form holds every question and answer', async () => {
  for (const document of STUDIES) {
    const html = eyed(String(await FORMATS.form.write({ document, work: NO_WORK }, 'form.html')));
    for (const { text, answer } of questionsOf(document))
      for (const words of [text, ...optionsOf(answer).map(({ label }) => label)])
        for (const part of fillPipes(words, () => '\n').split('\n'))
          assert.ok(html.includes(eyed(part)), part);
  }
});

it('a route book tells of each covering route who takes it, and every item that it asks', async () => {
  const html = String(await FORMATS['route-book'].write({ document: demo, work: NO_WORK }, 'routes.html'));
  const { analysis } = preparedFor(demo);
  const chapters = html.split('<h2').slice(1);
  assert.equal(chapters.length, analysis.cover.routes.length);
  analysis.cover.routes.forEach(({ number, items }, n) => {
    const chapter = chapters[n] ?? '';
    assert.ok(chapter.includes(`Route ${number.toLocaleString('en')}:`));
    for (const item of items) {
      const rows = questionsOf(demo).find(({ name }) => name === item)?.answer;
      const shown = rows !== undefined && 'rows' in rows ? rows.rows.map(({ name }) => name) : [item];
      assert.ok(
        shown.some((name) => chapter.includes(`<code>${name}</code>`)),
        item,
      );
    }
  });
});

it('a codebook is the same in its sheets and on its pages, and the workbook reads back cell by cell', async () => {
  const { plan, analysis } = preparedFor(demo);
  const [columns] = codebookSheets(plan, analysis);
  assert.ok(columns !== undefined);
  const book = await FORMATS.codebook.write({ document: demo, work: NO_WORK }, 'codebook.xlsx');
  assert.ok(book instanceof Uint8Array);
  const cells = await cellsOf(book);
  assert.ok(cells.ok);
  const whole = cells.cells.map((row) => columns.head.map((_, n) => row[n] ?? ''));
  assert.deepEqual(whole, [columns.head, ...columns.rows.map((row) => row.map(String))]);
  const html = eyed(String(await FORMATS.codebook.write({ document: demo, work: NO_WORK }, 'codebook.html')));
  for (const [column = '', label = ''] of columns.rows) {
    assert.ok(html.includes(eyed(String(column))));
    assert.ok(html.includes(eyed(String(label))));
  }
});

it('sets an author’s emphasis, and nothing else of their marks', () => {
  assert.deepEqual(markedRuns('Are you **aged _18_** or \\*over*?'), [
    { text: 'Are you ' },
    { text: 'aged ', bold: true },
    { text: '18', bold: true, italic: true },
    { text: ' or ' },
    { text: '*' },
    { text: 'over*?' },
  ]);
  const list = markedBlocks('Choose:\n\n- one\n- two <b>');
  assert.deepEqual(
    list.map((block) =>
      block.is === 'text' ? [block.bullet ?? false, block.runs.map(({ text }) => text).join('')] : [],
    ),
    [
      [false, 'Choose:'],
      [true, 'one'],
      [true, 'two <b>'],
    ],
  );
  assert.deepEqual(markedBlocks('---'), [textOf(plain('---'))]);
});

it('runs and fetches nothing that an author wrote, and holds signs that no such file can hold', async () => {
  const evil = '<script src="https://example.org/x.js"></script>\u0000\ud800 & "quoted"';
  const pages: Pages = {
    title: evil,
    what: 'script',
    language: 'en"><b>',
    version: 'Draft',
    blocks: [textOf(plain(evil)), { is: 'picture', src: 'data:image/svg+xml;base64,PHN2Zy8+', alt: evil }],
  };
  const html = pagesHtml(pages);
  assert.doesNotMatch(html, /<script|<b>|\u0000|\ud800/u);
  const pdf = await pagesPdf(pages);
  assert.equal(strFromU8(pdf.subarray(0, 5)), '%PDF-');
});
