/**
 * From bytes or JSON to a questionnaire, or to problems that each name their place; and back to a file.
 *
 * Reading then writing gives the same text for any file this module wrote.
 */
import * as v from 'valibot';
import { QuestionnaireSchema, SectionSchema } from './schema';
import { shapeProblems, type ShapeProblem } from './shape';
import type { Questionnaire, Section } from './types';

export type ReadResult =
  | { readonly ok: true; readonly document: Questionnaire }
  | { readonly ok: false; readonly problems: readonly ShapeProblem[] };

/** Reads the text of a `.fork.json` file. */
export function readDocumentText(text: string): ReadResult {
  let json: unknown;
  try {
    json = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch (error) {
    const detail = error instanceof Error ? error.message : String(error);
    return { ok: false, problems: [{ path: [], message: `this is not JSON: ${detail}` }] };
  }
  return readDocument(json);
}

/** Reads an already parsed JSON value. */
export function readDocument(json: unknown): ReadResult {
  const parsed = v.safeParse(QuestionnaireSchema, json);
  if (!parsed.success) return { ok: false, problems: parsed.issues.map(schemaProblem) };
  const problems = shapeProblems(parsed.output);
  return problems.length === 0 ? { ok: true, document: parsed.output } : { ok: false, problems };
}

/** Sections that were found in order, whatever stands around them. */
const sound = new WeakSet<Section>();

/** The same for a document that an edit made of one that could be used: only sections not seen before are read. */
export function readEdited(document: Questionnaire): ReadResult {
  const { sections } = document;
  const unseen = sections.filter((section) => !sound.has(section));
  const rest = unseen.length === 0 ? sections.slice(0, 1) : unseen;
  const parts = v.safeParse(QuestionnaireSchema, { ...document, sections: rest });
  // All of it where something is wrong, for the places of the problems.
  if (!parts.success || sections.length === 0) return readDocument(document);
  const problems = shapeProblems(document);
  if (problems.length > 0) return { ok: false, problems };
  for (const section of unseen) sound.add(section);
  return { ok: true, document };
}

/** The text of the file: two-space JSON with properties in the schema's order. */
export function writeDocument(document: Questionnaire): string {
  return `${JSON.stringify(v.parse(QuestionnaireSchema, document), null, 2)}\n`;
}

/** Sections as they stand in the file, by what they are: most of a questionnaire is as it was at the last save. */
const written = new WeakMap<Section, string>();

/** The same text as `writeDocument` gives, where only sections not written before are looked at. */
export function writeEdited(document: Questionnaire): string {
  const { sections } = document;
  const texts = sections.map((section) => {
    const known = written.get(section);
    if (known !== undefined) return known;
    const text = JSON.stringify(v.parse(SectionSchema, section), null, 2).replaceAll('\n', '\n    ');
    written.set(section, text);
    return text;
  });
  const around = writeDocument({ ...document, sections: sections.slice(0, 1) });
  // No text within has a line break of its own in JSON, so what stands alone at this depth is the list of sections.
  const from = around.indexOf('\n  "sections": [') + 1;
  const to = around.indexOf('\n  ]', from);
  return `${around.slice(0, from)}  "sections": [\n    ${texts.join(',\n    ')}${around.slice(to)}`;
}

/** `sections[1].items[0].name`; the root is `document`. */
export function pathText(path: readonly (string | number)[]): string {
  if (path.length === 0) return 'document';
  return path
    .map((key, index) => (typeof key === 'number' ? `[${key}]` : index === 0 ? key : `.${key}`))
    .join('');
}

/** One line: the place, then what is wrong there. */
export function problemText(problem: ShapeProblem): string {
  return `${pathText(problem.path)}: ${problem.message}`;
}

function schemaProblem(issue: v.BaseIssue<unknown>): ShapeProblem {
  const path = (issue.path ?? []).map((step) => step.key as string | number);
  const last = path.at(-1);
  if (issue.type === 'strict_object' && issue.expected === 'never') {
    return { path, message: `unknown property "${String(last)}": remove it or check its spelling` };
  }
  if (issue.received === 'undefined' && last !== undefined) {
    return { path, message: `the property "${String(last)}" is missing` };
  }
  // Messages of our own are sentences; Valibot's speak of what it expected.
  const own = !issue.message.startsWith('Invalid ');
  if (own) return { path, message: issue.message };
  return { path, message: `expected ${plainType(issue.expected)}, found ${plainType(issue.received)}` };
}

function plainType(expected: string | null): string {
  if (expected === null) return 'something else';
  return expected
    .replace(/^\((.*)\)$/, '$1')
    .replaceAll(' | ', ' or ')
    .replace(/^Object$/, 'an object')
    .replace(/^Array$/, 'a list');
}

/** What another thread was given, which is a questionnaire unless something went wrong before: throws the first problem. */
export function documentGiven(value: unknown): Questionnaire {
  const read = readDocument(value);
  if (!read.ok) throw new Error(read.problems[0]?.message);
  return read.document;
}
