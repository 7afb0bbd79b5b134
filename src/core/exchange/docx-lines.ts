/** A questionnaire in a word processor's file as the lines that people would paste: headings, numbers, bullets, tables. */
import { childrenOf, readXml, type ReadElement } from './xml';
import { atHand, workbookProblem, type WorkbookLimits } from './workbook-size';

export type DocxRead =
  | { readonly ok: true; readonly text: string }
  /** A sentence. */
  | { readonly ok: false; readonly problem: string };

/** In bytes; with pictures, as much as a questionnaire may hold. */
const MOST_BYTES = 30_000_000;
const LIMITS = { unpacked: 150_000_000, texts: 300_000 };

export async function docxLines(bytes: Uint8Array, limits: WorkbookLimits = LIMITS): Promise<DocxRead> {
  if (bytes[0] !== 0x50 || bytes[1] !== 0x4b)
    return { ok: false, problem: 'It is no DOCX file: save it as DOCX in the word processor.' };
  if (bytes.length > MOST_BYTES)
    return { ok: false, problem: `It is larger than ${MOST_BYTES / 1e6} MB: take its pictures out.` };
  const problem = await workbookProblem(atHand(bytes), limits);
  if (problem !== null) return { ok: false, problem: `It cannot be opened: ${problem.split(':')[0]}.` };
  const { default: mammoth } = await import('mammoth');
  try {
    const input = { arrayBuffer: new Uint8Array(bytes).buffer, buffer: bytes };
    // Pictures are no text, and are not taken out of the file at all.
    const { value } = await mammoth.convertToHtml(input as never, {
      convertImage: mammoth.images.imgElement(() => Promise.resolve({ src: '' })),
      includeDefaultStyleMap: true,
    });
    const read = readXml(new TextEncoder().encode(`<all>${value}</all>`));
    if (!read.ok) return { ok: false, problem: read.problem };
    return { ok: true, text: linesOf(read.root).join('\n') };
  } catch {
    return {
      ok: false,
      problem: 'It cannot be read as a document: open it in a word processor and save it again as DOCX.',
    };
  }
}

function linesOf(all: ReadElement): string[] {
  const lines: string[] = [];
  let number = 0;
  for (const part of all.children) {
    if (/^h[1-6]$/.test(part.name)) lines.push('', `# ${wordsOf(part)}`);
    else if (part.name === 'ol') {
      for (const item of childrenOf(part, 'li')) {
        number += 1;
        lines.push('', `${number}. ${ownWords(item)}`, ...bulletsIn(item));
      }
    } else if (part.name === 'ul')
      lines.push(...childrenOf(part, 'li').flatMap((item) => [`- ${ownWords(item)}`, ...bulletsIn(item)]));
    else if (part.name === 'table') lines.push(...rowsOf(part));
    else lines.push(wordsOf(part));
  }
  return lines;
}

/**
 * Rows of a table: where each holds words with a code beside them they are answers, with where they lead; else they stay a
 * table, whose cells are parted by tabs.
 */
function rowsOf(table: ReadElement): string[] {
  const rows = [table, ...childrenOf(table, 'thead'), ...childrenOf(table, 'tbody')].flatMap((part) =>
    childrenOf(part, 'tr').map((row) =>
      row.children.filter(({ name }) => name === 'td' || name === 'th').map(wordsOf),
    ),
  );
  const answers = rows.map(answerIn);
  // What follows is no further answer.
  if (answers.every((answer) => answer !== null)) return [...answers, ''];
  return ['', ...rows.map((cells) => cells.join('\t').trimEnd()), ''];
}

const CODE = /^-?\d{1,9}$/;

/** “- 2 No (go to B3)”; null where the row is no answer with its code. */
function answerIn(cells: readonly string[]): string | null {
  const codes = cells.filter((cell) => CODE.test(cell));
  const [words, ...more] = cells.filter((cell) => cell !== '' && !CODE.test(cell));
  if (codes.length !== 1 || words === undefined || more.length > 1) return null;
  const lead = more.length === 0 ? '' : ` (${more[0]})`;
  return `- ${codes[0]} ${words}${lead}`;
}

const bulletsIn = (item: ReadElement) =>
  item.children
    .filter(({ name }) => name === 'ul' || name === 'ol')
    .flatMap((list) => childrenOf(list, 'li').map((each) => `- ${wordsOf(each)}`));

/** Without those of the lists in it. */
function ownWords(item: ReadElement): string {
  const lists = item.children.filter(({ name }) => name === 'ul' || name === 'ol').map(({ text }) => text);
  return lists
    .reduce((text, list) => text.replace(list, ' '), item.text)
    .replaceAll(/\s+/g, ' ')
    .trim();
}

function wordsOf(part: ReadElement): string {
  return part.text.replaceAll(/\s+/g, ' ').trim();
}
