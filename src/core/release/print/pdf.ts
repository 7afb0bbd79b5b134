/** Pages as PDF, with their version and number on every page. */
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import { sound } from '../../exchange/markup';
import type { Block, Pages, Run, Runs, Table } from './pages';

/** Sizes in points. */
const SIZES = { 1: 16, 2: 13, 3: 10.5 } as const;
const SOFT = 'dimgray';
const LINE = 'silver';

/** Nothing in the file hangs on when it was made: PDF wants a date, and gets this one. */
const WHEN = new Date(Date.UTC(1980, 0, 1));

export async function pagesPdf(pages: Pages): Promise<Uint8Array> {
  const [{ default: pdfmake }, { default: fonts }] = await Promise.all([
    import('pdfmake'),
    import('pdfmake/build/vfs_fonts.js'),
  ]);
  for (const [name, data] of Object.entries(fonts)) virtualFiles(pdfmake).writeFileSync(name, data, 'base64');
  pdfmake.setFonts({
    Roboto: {
      normal: 'Roboto-Regular.ttf',
      bold: 'Roboto-Medium.ttf',
      italics: 'Roboto-Italic.ttf',
      bolditalics: 'Roboto-MediumItalic.ttf',
    },
  });
  // Everything it draws is handed to it: it may fetch nothing, and open nothing of the machine.
  pdfmake.setUrlAccessPolicy(() => false);
  pdfmake.setLocalAccessPolicy?.((path: string) => path.startsWith('Roboto-'));
  return new Uint8Array(await pdfmake.createPdf(definition(pages)).getBuffer());
}

function definition({ title, what, language, version, blocks }: Pages): TDocumentDefinitions {
  return {
    info: { title: `${title}: ${what}`, producer: 'Jolly Fork', creator: 'Jolly Fork', creationDate: WHEN },
    language,
    pageSize: 'A4',
    pageMargins: [46, 56, 46, 50],
    defaultStyle: { fontSize: 9.5, lineHeight: 1.15 },
    header: () => ({
      text: sound(`${title} · ${version}`),
      color: SOFT,
      fontSize: 8,
      margin: [46, 26, 46, 0],
    }),
    footer: (page, of) => ({
      text: `${page} of ${of}`,
      color: SOFT,
      fontSize: 8,
      alignment: 'right',
      margin: [46, 10, 46, 0],
    }),
    content: [
      { text: sound(`${title}: ${what}`), fontSize: SIZES[1], bold: true, margin: [0, 0, 0, 2] },
      { text: version, color: SOFT, margin: [0, 0, 0, 10] },
      ...blocks.map(contentOf),
    ],
  };
}

function contentOf(block: Block): Content {
  switch (block.is) {
    case 'heading':
      return {
        text: runsOf(block.runs),
        fontSize: SIZES[block.level],
        bold: true,
        margin: [0, block.level === 3 ? 7 : 12, 0, 3],
        headlineLevel: block.level,
        ...(block.newPage ? { pageBreak: 'before' as const } : {}),
      };
    case 'text': {
      const text = block.bullet ? [{ text: '• ' }, ...runsOf(block.runs)] : runsOf(block.runs);
      return { text, margin: [block.bullet ? 18 : 0, block.apart ? 7 : 0, 0, 2.5] };
    }
    case 'table':
      return tableOf(block);
    case 'picture':
      // What PDF cannot draw still has its words.
      return /^data:image\/(png|jpeg);/.test(block.src)
        ? { image: block.src, fit: [220, 160], margin: [0, 2, 0, 4] }
        : { text: `[${block.alt}]`, color: SOFT };
    default:
      return block satisfies never;
  }
}

function tableOf({ head, rows, widths }: Table): Content {
  const whole = widths.reduce((sum, width) => sum + width, 0);
  const cells: TableCell[][] = rows.map((row) => row.map((cell) => ({ text: runsOf(cell) })));
  const top: TableCell[][] = head === null ? [] : [head.map((text) => ({ text: sound(text), bold: true }))];
  if (cells.length === 0 && top.length === 0) return { text: '' };
  return {
    table: {
      headerRows: top.length,
      dontBreakRows: true,
      widths: widths.map((width) => `${((100 * width) / whole).toFixed(2)}%`),
      body: [...top, ...cells],
    },
    layout: {
      hLineWidth: (at) => (head === null || at === 0 ? 0 : 0.5),
      vLineWidth: () => 0,
      hLineColor: () => LINE,
      paddingLeft: () => 0,
      paddingRight: () => 6,
      paddingTop: () => 1.5,
      paddingBottom: () => 1.5,
    },
    margin: [head === null ? 18 : 0, 1, 0, 5],
  };
}

function runsOf(runs: Runs) {
  return runs.map(({ text, bold, italic, code, soft }: Run) => ({
    text: sound(text),
    ...(bold || code ? { bold: true } : {}),
    ...(italic ? { italics: true } : {}),
    ...(soft ? { color: SOFT } : {}),
  }));
}

/** Where it looks for fonts: both its builds have it, and only that for browsers a way of its own to fill it. */
function virtualFiles(pdfmake: object) {
  return (pdfmake as { virtualfs: { writeFileSync: (name: string, data: string, encoding: string) => void } })
    .virtualfs;
}
