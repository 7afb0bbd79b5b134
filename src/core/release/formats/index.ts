/**
 * The file formats that a study can be written in or read from, whole: what each is called, its writer and reader, and what it
 * cannot hold. Whoever takes and gives files asks here; whoever only names them asks `known.ts`.
 */
import type { FileFormat } from '../format-types';
import { KNOWN, type FormatName } from './known';
import { NONE } from './lost';
import { READERS } from './readers';
import { WRITERS } from './writers';

export const FORMATS = {
  document: { ...KNOWN.document, ...WRITERS.document, read: READERS.document },
  work: { ...KNOWN.work, ...WRITERS.work, read: READERS.work },
  script: { ...KNOWN.script, ...WRITERS.script, read: READERS.script },
  items: { ...KNOWN.items, ...WRITERS.items, read: READERS.items },
  schema: { ...KNOWN.schema, ...WRITERS.schema, read: null },
  'test-pack': { ...KNOWN['test-pack'], ...WRITERS['test-pack'], read: null },
  docx: { ...KNOWN.docx, write: null, losses: NONE, read: READERS.docx },
  list: { ...KNOWN.list, write: null, losses: NONE, read: READERS.list },
  paper: { ...KNOWN.paper, ...WRITERS.paper, read: null },
  form: { ...KNOWN.form, ...WRITERS.form, read: null },
  codebook: { ...KNOWN.codebook, ...WRITERS.codebook, read: null },
  'route-book': { ...KNOWN['route-book'], ...WRITERS['route-book'], read: null },
  forecast: { ...KNOWN.forecast, ...WRITERS.forecast, read: null },
  map: { ...KNOWN.map, ...WRITERS.map, read: null },
  instrument: { ...KNOWN.instrument, ...WRITERS.instrument, read: null },
  'ddi-lifecycle': { ...KNOWN['ddi-lifecycle'], ...WRITERS['ddi-lifecycle'], read: READERS['ddi-lifecycle'] },
  'ddi-codebook': { ...KNOWN['ddi-codebook'], ...WRITERS['ddi-codebook'], read: READERS['ddi-codebook'] },
  csvw: { ...KNOWN.csvw, ...WRITERS.csvw, read: READERS.csvw },
  'data-package': { ...KNOWN['data-package'], ...WRITERS['data-package'], read: READERS['data-package'] },
  parquet: { ...KNOWN.parquet, ...WRITERS.parquet, read: null },
  r: { ...KNOWN.r, ...WRITERS.r, read: null },
  package: { ...KNOWN.package, ...WRITERS.package, read: null },
} as const satisfies Readonly<Record<FormatName, FileFormat>>;
