/** LibreOffice and pdftotext: whether what they open holds every question, answer, code and go-to. */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { optionsOf } from '../src/core/document/shape';
import { itemRows } from '../src/core/exchange/items/write-items';
import { codebookSheets } from '../src/core/release/sheets/codebook-workbook';
import { forecastedFor, forecastSheets } from '../src/core/release/sheets/forecast-tables';
import type { Sheet } from '../src/core/release/sheets/workbook';
import { preparedFor } from '../src/core/release/formats/prepared';
import { paperOf } from '../src/core/views/paper';
import Papa from 'papaparse';
import { called, fileOf, type Unpacked } from './package';
import { lackingWords, type Verdict } from './verdict';

/** As the eye takes it: spaces, emphasis and kinds of apostrophes alike. */
const eyed = (text: string) => text.replaceAll(/[\s*_\\]+/g, '').replaceAll(/[’']/g, "'");

/** A figure with a fraction is held to fifteen digits, as many as a sheet keeps. */
function isSame(seen: string, meant: string | number): boolean {
  if (typeof meant === 'string' || Number.isInteger(meant)) return seen === String(meant);
  return seen !== '' && Math.abs(Number(seen) - meant) <= 1e-14 * Math.max(1, Math.abs(meant));
}

/** What must be found on paper: names, words between pipes, codes, and where to go. */
function wanted(study: Unpacked, withCodes: boolean): string[] {
  const { analysis } = preparedFor(study.document);
  const paper = paperOf(study.plan, Object.fromEntries(analysis.asked));
  const goTos = paper.sections.flatMap(({ items }) =>
    items.flatMap(({ lines }) => lines.flatMap(({ goTo }) => (goTo === null ? [] : [goTo]))),
  );
  const between = (text: string) => text.split(/\{[^}]*\}/);
  return [
    ...study.questions.flatMap(({ text, answer }) => [
      ...between(text),
      ...optionsOf(answer).flatMap(({ label, code }) => [
        ...between(label),
        ...(withCodes ? [String(code)] : []),
      ]),
    ]),
    ...(withCodes ? [...study.questions.map(({ name }) => name), ...goTos] : []),
  ].filter((part) => part.trim() !== '');
}

export function byLibreOffice(study: Unpacked): Verdict[] {
  const { analysis, plan } = preparedFor(study.document);
  const out = path.join(study.folder, 'office');
  const opened = (file: string, as: string) =>
    called('soffice', ['--headless', '--convert-to', as, '--outdir', out, file]);
  const workbook = (ending: string, sheets: readonly Pick<Sheet, 'name' | 'head' | 'rows'>[]): Verdict => {
    const file = fileOf(study, ending);
    // The last of these asks for every sheet, each in a file of its own.
    opened(file, 'csv:Text - txt - csv (StarCalc):44,34,76,1,,0,false,true,false,false,false,-1');
    const read = sheets.map(({ name, head, rows }) => {
      const text = readFileSync(path.join(out, `${path.basename(file, '.xlsx')}-${name}.csv`), 'utf8');
      const { data } = Papa.parse<string[]>(text.trim());
      const wanted = [head, ...rows];
      const other = wanted.flatMap((row, n) =>
        row.flatMap((cell, c) =>
          isSame(data[n]?.[c] ?? '', cell) ? [] : [`${name}, row ${n + 1}: ${cell}, not ${data[n]?.[c]}`],
        ),
      );
      if (data.length !== wanted.length) other.push(`${name}: ${data.length} rows, and not ${wanted.length}`);
      return { words: `${name} ${data.length} by ${data[0]?.length ?? 0}`, other };
    });
    const other = read.flatMap((sheet) => sheet.other);
    return {
      file: ending,
      reader: 'LibreOffice',
      saw: `${read.map(({ words }) => words).join(', ')}; ${
        other.length === 0 ? 'every cell as it is meant' : `other: ${other.slice(0, 3).join('; ')}`
      }`,
      ok: other.length === 0,
    };
  };
  const document = (ending: string, withCodes: boolean): Verdict => {
    const file = fileOf(study, ending);
    opened(file, 'txt:Text (encoded):UTF8');
    const text = eyed(readFileSync(path.join(out, path.basename(file).replace(/docx$/, 'txt')), 'utf8'));
    const words = wanted(study, withCodes);
    const lacking = words.filter((part) => !text.includes(eyed(part)));
    return {
      file: ending,
      reader: 'LibreOffice',
      saw: `${words.length.toLocaleString('en')} questions, answers${withCodes ? ', codes and go-tos' : ''} looked for; ${lackingWords(lacking)}`,
      ok: lacking.length === 0,
    };
  };
  const [head = [], ...items] = itemRows(study.document);
  return [
    workbook('items.xlsx', [{ name: 'Items', head: head.map(String), rows: items }]),
    workbook('codebook.xlsx', codebookSheets(plan, analysis)),
    workbook('forecast.xlsx', forecastSheets(plan, forecastedFor(plan))),
    document('paper.docx', true),
    document('form.docx', false),
  ];
}

export function byPdfToText(study: Unpacked): Verdict[] {
  const { analysis, plan } = preparedFor(study.document);
  const [columns] = codebookSheets(plan, analysis);
  const all: readonly (readonly [ending: string, words: readonly string[]])[] = [
    ['paper.pdf', wanted(study, true)],
    ['form.pdf', wanted(study, false)],
    ['codebook.pdf', (columns?.rows ?? []).map(([column]) => String(column))],
    ['forecast.pdf', study.questions.map(({ name }) => name)],
    ['routes.pdf', analysis.cover.routes.map(({ number }) => `Route ${number.toLocaleString('en')}:`)],
  ];
  return all.map(([ending, words]) => {
    const text = called('pdftotext', ['-raw', fileOf(study, ending), '-']);
    const pages = text.split('\f').length - 1;
    const found = eyed(text);
    const lacking = words.filter((part) => !found.includes(eyed(part)));
    const marked = text
      .split('\f')
      .slice(0, pages)
      .filter((page) => !page.includes('Draft')).length;
    return {
      file: ending,
      reader: 'pdftotext',
      saw: `${pages} pages, ${marked === 0 ? 'each marked as the draft' : `${marked} without the mark`}; ${words.length} things looked for; ${lackingWords(lacking)}`,
      ok: lacking.length === 0 && marked === 0,
    };
  });
}
