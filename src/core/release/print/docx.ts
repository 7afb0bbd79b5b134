/** Pages as DOCX: headings, paragraphs and tables that a word processor can edit. */
import type { FileChild, ParagraphChild } from 'docx';
import { sound } from '../../exchange/markup';
import { settled } from '../../exchange/zipped';
import type { Block, Pages, Runs, Table } from './pages';

type Docx = typeof import('docx');

/** In twentieths of a point: what a page of A4 leaves between its margins. */
const WIDTH = 9300;
const SOFT = '696969';
const LINE = 'C0C0C0';

export async function pagesDocx({ title, what, version, blocks }: Pages): Promise<Uint8Array> {
  const docx = await import('docx');
  const { Document, Packer, Paragraph, TextRun, Header, Footer, PageNumber, AlignmentType, HeadingLevel } =
    docx;
  const document = new Document({
    creator: 'Jolly Fork',
    title: sound(`${title}: ${what}`),
    description: version,
    styles: {
      default: {
        document: { run: { font: 'Calibri', size: 21 }, paragraph: { spacing: { after: 60 } } },
        heading1: { run: { size: 32, bold: true }, paragraph: { spacing: { after: 80 } } },
        heading2: { run: { size: 26, bold: true }, paragraph: { spacing: { before: 280, after: 80 } } },
        heading3: { run: { size: 22, bold: true }, paragraph: { spacing: { before: 180, after: 40 } } },
      },
    },
    sections: [
      {
        headers: {
          default: new Header({
            children: [
              new Paragraph({
                children: [new TextRun({ text: sound(`${title} · ${version}`), size: 16, color: SOFT })],
              }),
            ],
          }),
        },
        footers: {
          default: new Footer({
            children: [
              new Paragraph({
                alignment: AlignmentType.RIGHT,
                children: [
                  new TextRun({
                    children: [PageNumber.CURRENT, ' of ', PageNumber.TOTAL_PAGES],
                    size: 16,
                    color: SOFT,
                  }),
                ],
              }),
            ],
          }),
        },
        children: [
          new Paragraph({ text: sound(`${title}: ${what}`), heading: HeadingLevel.HEADING_1 }),
          new Paragraph({ children: [new TextRun({ text: version, color: SOFT })] }),
          ...blocks.map((block) => childOf(docx, block)),
        ],
      },
    ],
  });
  const buffer = await Packer.toArrayBuffer(document);
  return settled(new Uint8Array(buffer));
}

function childOf(docx: Docx, block: Block): FileChild {
  const { Paragraph, HeadingLevel } = docx;
  switch (block.is) {
    case 'heading':
      return new Paragraph({
        children: runsOf(docx, block.runs),
        heading: [HeadingLevel.HEADING_1, HeadingLevel.HEADING_2, HeadingLevel.HEADING_3][block.level - 1],
        keepNext: true,
        pageBreakBefore: block.newPage === true,
      });
    case 'text':
      return new Paragraph({
        children: runsOf(docx, block.runs),
        ...(block.bullet ? { bullet: { level: 0 } } : {}),
        ...(block.apart ? { spacing: { before: 160, after: 60 } } : {}),
      });
    case 'table':
      return tableOf(docx, block);
    case 'picture':
      return pictureOf(docx, block);
    default:
      return block satisfies never;
  }
}

const KINDS = { png: 'png', jpeg: 'jpg', gif: 'gif' } as const;

/** What a word processor cannot show still has its words. */
function pictureOf(docx: Docx, { src, alt }: Extract<Block, { is: 'picture' }>): FileChild {
  const { Paragraph, ImageRun, TextRun } = docx;
  const [, kind = '', data = ''] = /^data:image\/(png|jpeg|gif);base64,(.*)$/s.exec(src) ?? [];
  const type = KINDS[kind as keyof typeof KINDS];
  if (type === undefined)
    return new Paragraph({ children: [new TextRun({ text: sound(`[${alt}]`), color: SOFT })] });
  const bytes = Uint8Array.from(atob(data), (sign) => sign.charCodeAt(0));
  return new Paragraph({
    children: [
      new ImageRun({
        type,
        data: bytes,
        transformation: { width: 220, height: 160 },
        altText: { title: sound(alt), description: sound(alt), name: 'picture' },
      }),
    ],
  });
}

function tableOf(docx: Docx, { head, rows, widths }: Table): FileChild {
  const { Table, TableRow, TableCell, Paragraph, TextRun, WidthType, BorderStyle } = docx;
  const whole = widths.reduce((sum, width) => sum + width, 0);
  const sizes = widths.map((width) => Math.round((WIDTH * width) / whole));
  const none = { style: BorderStyle.NONE, size: 0, color: 'auto' };
  const line = head === null ? none : { style: BorderStyle.SINGLE, size: 4, color: LINE };
  const borders = { top: none, bottom: line, left: none, right: none };
  const row = (cells: readonly ParagraphChild[][], isHead = false) =>
    new TableRow({
      tableHeader: isHead,
      cantSplit: true,
      children: cells.map(
        (children, n) =>
          new TableCell({
            width: { size: sizes[n] ?? 0, type: WidthType.DXA },
            borders,
            children: [new Paragraph({ children, spacing: { after: 20 } })],
          }),
      ),
    });
  return new Table({
    columnWidths: sizes,
    width: { size: WIDTH, type: WidthType.DXA },
    ...(head === null ? { indent: { size: 360, type: WidthType.DXA } } : {}),
    rows: [
      ...(head === null
        ? []
        : [
            row(
              head.map((text) => [new TextRun({ text: sound(text), bold: true })]),
              true,
            ),
          ]),
      ...rows.map((cells) => row(cells.map((cell) => runsOf(docx, cell)))),
    ],
  });
}

function runsOf({ TextRun }: Docx, runs: Runs): ParagraphChild[] {
  return runs.map(
    ({ text, bold, italic, code, soft }) =>
      new TextRun({
        text: sound(text),
        ...(bold ? { bold } : {}),
        ...(italic ? { italics: italic } : {}),
        ...(code ? { font: 'Consolas' } : {}),
        ...(soft ? { color: SOFT } : {}),
      }),
  );
}
