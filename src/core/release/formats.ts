/**
 * The file formats that a study can be written in or read from: each with its name on the command line, what its files are
 * called, its writer and reader, and what it cannot hold. Whoever takes or gives a file asks here.
 */
import { analyse } from '../analysis';
import { WHOLE_STUDY } from '../document/addresses';
import { fileStem } from '../document/names';
import { problemText, readDocumentText, writeDocument } from '../document/read';
import type { Questionnaire } from '../document/types';
import { csvLines } from '../exchange/csv';
import { fromList } from '../exchange/from-list';
import { readItems } from '../exchange/items/read-items';
import { itemRows } from '../exchange/items/write-items';
import { readScript } from '../exchange/script/read-script';
import { writeScript } from '../exchange/script/write-script';
import { cellsOf } from '../exchange/sheet-cells';
import { NO_WORK, readWork, WORK_PARTS, writeWork } from '../exchange/work-file';
import type { Plan } from '../routing/plan';
import { planOf } from '../routing/planner';
import { dataFields, type DataField } from './data/fields';
import type { AboutData } from './data/csvw';
import type { DataRows } from './data/rows';
import type { FileFormat, Loss, StudyContent, Written } from './format-types';
import { lossesBetween } from './losses';
import type { Pages } from './print/pages';
import { testPack } from './test-pack';
import { testPackFiles } from './test-pack-files';
import { versionWords } from './version-words';

const NONE = () => [];

/** What a format of data is written of. */
function dataOf({ document, data, version }: StudyContent): {
  readonly plan: Plan;
  readonly fields: readonly DataField[];
  readonly data: DataRows;
  readonly about: AboutData;
} {
  if (data === undefined) throw new Error('a file of data needs rows');
  const plan = planOf(document);
  const { title, language } = document;
  return {
    plan,
    fields: dataFields(plan),
    data,
    about: { title, language, version: versionWords(version) },
  };
}

/** Of a file that holds the questionnaire alone. */
const workLost = ({ work }: StudyContent): Loss[] =>
  WORK_PARTS.filter((part) => work[part].length > 0).map((part) => ({ at: WHOLE_STUDY, what: part }));

/** Pages as the kind of file that an ending stands for. */
async function printed(pages: Pages, kind: string): Promise<Written> {
  if (kind.endsWith('html')) return (await import('./print/html')).pagesHtml(pages);
  if (kind.endsWith('docx')) return (await import('./print/docx')).pagesDocx(pages);
  return (await import('./print/pdf')).pagesPdf(pages);
}

/** What a questionnaire is called that comes from a file with this name. */
const titleFrom = (name: string) => name.replace(/(\.[a-z-]+)+$/i, '');

/** As it is written, with its skips as structure. */
async function lifecycleOf(document: Questionnaire, version: string) {
  const [{ ddiLifecycle }, { structured }] = await Promise.all([
    import('./ddi/lifecycle'),
    import('./ddi/structured'),
  ]);
  const made = structured(document);
  const plan = planOf(made.document);
  return { ...made, text: ddiLifecycle(plan, analyse(plan), made.document, version) };
}

async function codebookXml(document: Questionnaire, version: string): Promise<string> {
  const { ddiCodebook } = await import('./ddi/codebook');
  const plan = planOf(document);
  return ddiCodebook(plan, analyse(plan), version);
}

async function lifecycleLosses(document: Questionnaire): Promise<Loss[]> {
  const [{ readDdiLifecycle }, { text, document: made }, { skipsToldOf }] = await Promise.all([
    import('./ddi/read-lifecycle'),
    lifecycleOf(document, ''),
    import('./ddi/structured'),
  ]);
  const back = readDdiLifecycle(new TextEncoder().encode(text), fileStem(document.title));
  if (!back.ok) return [{ at: WHOLE_STUDY, what: 'all of it' }];
  return [...skipsToldOf(document, made), ...lossesBetween(made, back.content.document)];
}

/** What is other once the file is read again; all of it where it cannot be read. */
function lostByReading({ document }: StudyContent, back: (document: Questionnaire) => Questionnaire | null) {
  const read = back(document);
  return read === null ? [{ at: WHOLE_STUDY, what: 'all of it' }] : lossesBetween(document, read);
}

function itemsBack(document: Questionnaire): Questionnaire | null {
  const cells = itemRows(document).map((row) => row.map(String));
  const read = readItems(cells, fileStem(document.title));
  return read.ok ? read.document : null;
}

/** In bytes: as large as a questionnaire with pictures may be sent. */
const MOST_SCRIPT = 20_000_000;

export const FORMATS = {
  document: {
    words: 'Questionnaire',
    endings: ['fork.json', 'json'],
    mediaType: 'application/json; charset=utf-8',
    write: ({ document }) => writeDocument(document),
    read: (bytes) => {
      const read = readDocumentText(textOf(bytes));
      return read.ok
        ? { ok: true, content: { document: read.document, work: NO_WORK } }
        : { ok: false, problems: read.problems.map(problemText) };
    },
    losses: workLost,
  },
  work: {
    words: 'Questionnaire and work',
    endings: ['zip'],
    mediaType: 'application/zip',
    write: ({ document, work }) => writeWork(document, work),
    read: (bytes) => {
      const read = readWork(bytes);
      return read.ok ? { ok: true, content: read } : { ok: false, problems: [read.problem] };
    },
    losses: NONE,
  },
  script: {
    words: 'Plain-text script',
    endings: ['script.txt'],
    mediaType: 'text/plain; charset=utf-8',
    write: ({ document }) => writeScript(document),
    read: (bytes) => {
      if (bytes.length > MOST_SCRIPT)
        return { ok: false, problems: [`It is larger than ${MOST_SCRIPT / 1e6} MB, which no script is.`] };
      const text = utf8Of(bytes);
      if (text === null)
        return { ok: false, problems: ['It is no text in UTF-8: save it in that encoding, and try again.'] };
      const read = readScript(text);
      return read.ok
        ? { ok: true, content: { document: read.document, work: NO_WORK } }
        : { ok: false, problems: read.problems.map(({ line, what }) => `line ${line}: ${what}`) };
    },
    losses: workLost,
  },
  items: {
    words: 'List of items',
    endings: ['items.xlsx', 'items.csv', 'xlsx', 'csv'],
    kinds: ['items.xlsx', 'items.csv'],
    mediaType: 'application/octet-stream',
    write: async ({ document, version }, kind) => {
      if (kind.endsWith('csv')) return csvLines(itemRows(document));
      return (await import('./sheets/items-workbook')).itemsWorkbook(document, versionWords(version));
    },
    read: async (bytes, name) => {
      const read = await cellsOf(bytes);
      if (!read.ok) return { ok: false, problems: [read.problem] };
      const items = readItems(read.cells, titleFrom(name));
      return items.ok
        ? { ok: true, content: { document: items.document, work: NO_WORK }, doubts: items.doubts }
        : items;
    },
    losses: (content) => [...workLost(content), ...lostByReading(content, itemsBack)],
  },
  codebook: {
    words: 'Codebook',
    endings: ['codebook.xlsx', 'codebook.html', 'codebook.pdf'],
    kinds: ['codebook.xlsx', 'codebook.html', 'codebook.pdf'],
    mediaType: 'application/octet-stream',
    write: async ({ document, version }, kind) => {
      const plan = planOf(document);
      const analysis = analyse(plan);
      if (kind.endsWith('xlsx'))
        return (await import('./sheets/codebook-workbook')).codebookWorkbook(
          plan,
          analysis,
          versionWords(version),
        );
      const { codebookPages } = await import('./print/codebook-pages');
      return printed(codebookPages(plan, analysis, versionWords(version)), kind);
    },
    read: null,
    losses: NONE,
  },
  'route-book': {
    words: 'Route book',
    endings: ['routes.html', 'routes.pdf'],
    kinds: ['routes.html', 'routes.pdf'],
    mediaType: 'application/octet-stream',
    write: async ({ document, version }, kind) => {
      const plan = planOf(document);
      const { routeBookPages } = await import('./print/route-book');
      return printed(routeBookPages(plan, analyse(plan), versionWords(version)), kind);
    },
    read: null,
    losses: NONE,
  },
  paper: {
    words: 'Script on paper',
    endings: ['paper.html', 'paper.pdf', 'paper.docx'],
    kinds: ['paper.html', 'paper.pdf', 'paper.docx'],
    mediaType: 'application/octet-stream',
    write: async ({ document, version }, kind) => {
      const plan = planOf(document);
      const { scriptPages } = await import('./print/script-pages');
      return printed(scriptPages(plan, Object.fromEntries(analyse(plan).asked), versionWords(version)), kind);
    },
    read: null,
    losses: NONE,
  },
  form: {
    words: 'Form to fill in',
    endings: ['form.html', 'form.pdf', 'form.docx'],
    kinds: ['form.html', 'form.pdf', 'form.docx'],
    mediaType: 'application/octet-stream',
    write: async ({ document, version }, kind) => {
      const plan = planOf(document);
      const { formPages } = await import('./print/form-pages');
      return printed(formPages(plan, Object.fromEntries(analyse(plan).asked), versionWords(version)), kind);
    },
    read: null,
    losses: NONE,
  },
  schema: {
    words: 'JSON Schema',
    endings: ['schema.json'],
    mediaType: 'application/schema+json; charset=utf-8',
    write: async () => (await import('../exchange/json-schema')).questionnaireJsonSchemaText(),
    read: null,
    losses: NONE,
  },
  'test-pack': {
    words: 'Test pack',
    endings: ['test-pack.zip'],
    mediaType: 'application/zip',
    write: ({ document, version }) => {
      const plan = planOf(document);
      return testPackFiles(plan, testPack(plan, analyse(plan)), versionWords(version));
    },
    read: null,
    losses: NONE,
  },
  'ddi-lifecycle': {
    words: 'DDI-Lifecycle 3.3',
    endings: ['ddi33.xml'],
    mediaType: 'application/xml; charset=utf-8',
    write: async ({ document, version }) => (await lifecycleOf(document, versionWords(version))).text,
    read: async (bytes, name) =>
      (await import('./ddi/read-lifecycle')).readDdiLifecycle(bytes, titleFrom(name)),
    losses: async (content) => [...workLost(content), ...(await lifecycleLosses(content.document))],
  },
  'ddi-codebook': {
    words: 'DDI-Codebook 2.5',
    endings: ['ddi25.xml'],
    mediaType: 'application/xml; charset=utf-8',
    write: ({ document, version }) => codebookXml(document, versionWords(version)),
    read: async (bytes, name) =>
      (await import('./ddi/read-codebook')).readDdiCodebook(bytes, titleFrom(name)),
    losses: async (content) => {
      const { readDdiCodebook } = await import('./ddi/read-codebook');
      const bytes = new TextEncoder().encode(await codebookXml(content.document, ''));
      const back = readDdiCodebook(bytes, fileStem(content.document.title));
      return [
        ...workLost(content),
        ...lostByReading(content, () => (back.ok ? back.content.document : null)),
      ];
    },
  },
  csvw: {
    words: 'Data as CSV, with CSVW',
    endings: ['csvw.zip'],
    ofData: true,
    mediaType: 'application/zip',
    write: async (content) => {
      const { fields, data, about } = dataOf(content);
      return (await import('./data/csvw')).csvwFiles(fields, data, about);
    },
    read: null,
    losses: NONE,
  },
  'data-package': {
    words: 'Data as CSV, as a Data Package',
    endings: ['data-package.zip'],
    ofData: true,
    mediaType: 'application/zip',
    write: async (content) => {
      const { fields, data, about } = dataOf(content);
      return (await import('./data/data-package')).dataPackageFiles(fields, data, about);
    },
    read: null,
    losses: NONE,
  },
  parquet: {
    words: 'Data as Parquet',
    endings: ['parquet'],
    ofData: true,
    mediaType: 'application/vnd.apache.parquet',
    write: async (content) => {
      const { fields, data, about } = dataOf(content);
      return (await import('./data/parquet')).parquetFile(fields, data, about);
    },
    read: null,
    losses: NONE,
  },
  r: {
    words: 'Data as CSV, with a script for R',
    endings: ['r.zip'],
    ofData: true,
    mediaType: 'application/zip',
    write: async (content) => {
      const { fields, data, about } = dataOf(content);
      return (await import('./data/r-script')).rFiles(fields, data, about);
    },
    read: null,
    losses: NONE,
  },
  list: {
    words: 'List of questions',
    endings: ['txt'],
    mediaType: 'text/plain; charset=utf-8',
    write: null,
    read: (bytes, name) => {
      const { document, questions, lines } = fromList(textOf(bytes), titleFrom(name));
      if (questions === 0) return { ok: false, problems: ['There is no question in it.'] };
      const doubts = lines.flatMap(({ line, kind, says, doubt }) => {
        const what = doubt ?? (kind === 'trouble' ? says : null);
        return what === null ? [] : [{ line, what }];
      });
      return { ok: true, content: { document, work: NO_WORK }, doubts };
    },
    losses: NONE,
  },
} as const satisfies Readonly<Record<string, FileFormat>>;

export type FormatName = keyof typeof FORMATS;

/** One that can be read, by what the file is called; a document where nothing else fits, so that what is wrong is said. */
export function formatOfFile(name: string): FormatName {
  const known = (Object.keys(FORMATS) as FormatName[]).find(
    (format) =>
      FORMATS[format].read !== null &&
      FORMATS[format].endings.some((ending) => name.toLowerCase().endsWith(`.${ending}`)),
  );
  return known ?? 'document';
}

/** What a file of a study is called, with the number of the version it is of, if it is of one. */
export function fileNameFor(
  { title }: Pick<Questionnaire, 'title'>,
  format: FormatName,
  version?: number,
  kind: string = FORMATS[format].endings[0],
): string {
  const of = version === undefined ? '' : `-v${version}`;
  return `${fileStem(title)}${of}.${kind}`;
}

/** The kinds of file that a format is written as, by their endings; the first where nothing else is asked for. */
export function kindsOf(format: FormatName): readonly string[] {
  const { kinds, endings }: FileFormat = FORMATS[format];
  return kinds ?? [endings[0]];
}

/** Null where the bytes are no text in this encoding. */
function utf8Of(bytes: Uint8Array): string | null {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return null;
  }
}

function textOf(bytes: Uint8Array): string {
  return new TextDecoder().decode(bytes);
}
