/**
 * A study with the work done on it, as one `.zip`: the questionnaire beside a folder `work` with one JSON file for each
 * kind of work. The same study gives the same bytes.
 */
import { strFromU8, unzipSync } from 'fflate';
import * as v from 'valibot';
import { fileStem } from '../document/names';
import { pathText, problemText, readDocumentText, writeDocument } from '../document/read';
import type { Questionnaire } from '../document/types';
import { fingerprint } from '../routing/route-content';
import { AsideRecord, CommentRecord, DrawRecord, RespondentRecord, VerdictRecord } from './work-records';
import { zipped } from './zipped';

/** Each kind of work: what one of it is. */
const PARTS = {
  comments: CommentRecord,
  verdicts: v.pipe(
    VerdictRecord,
    v.check(
      ({ route, marks }) => fingerprint(marks) === route,
      'the fingerprint of the route is not that of its marks',
    ),
  ),
  asides: AsideRecord,
  respondents: RespondentRecord,
  draws: DrawRecord,
} as const;

export type WorkPart = keyof typeof PARTS;
export const WORK_PARTS = Object.keys(PARTS) as readonly WorkPart[];
/** What was done on a study, by its kind; a kind that was not taken along is empty. */
export type Work = { readonly [Part in WorkPart]: readonly v.InferOutput<(typeof PARTS)[Part]>[] };

export const NO_WORK: Work = { comments: [], verdicts: [], asides: [], respondents: [], draws: [] };

/** The bytes of the `.zip`. Kinds of which there is nothing have no file in it. */
export function writeWork(document: Questionnaire, work: Work): Uint8Array {
  const done = WORK_PARTS.filter((part) => work[part].length > 0);
  return zipped([
    { name: `${fileStem(document.title)}.fork.json`, text: writeDocument(document) },
    ...done.map((part) => ({ name: pathOf(part), text: `${JSON.stringify(work[part], null, 2)}\n` })),
  ]);
}

export type ReadWork =
  | { readonly ok: true; readonly document: Questionnaire; readonly work: Work }
  /** A sentence that names the file inside, where it is one of them. */
  | { readonly ok: false; readonly problem: string };

/** More than any study holds; in bytes, unpacked. */
const MOST_BYTES = 60_000_000;

/** Reads such a file; also one that a person packed, as long as it holds one questionnaire. */
export function readWork(bytes: Uint8Array): ReadWork {
  let files: Record<string, Uint8Array>;
  let size = 0;
  try {
    files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        const wanted = name.endsWith('.fork.json') || WORK_PARTS.some((part) => name.endsWith(pathOf(part)));
        if (wanted) size += originalSize;
        return wanted && size <= MOST_BYTES;
      },
    });
  } catch {
    return refused('This is no .zip file that can be opened: it may be cut short.');
  }
  if (size > MOST_BYTES) return refused(`What is packed in it is larger than ${MOST_BYTES / 1e6} MB.`);
  const documents = Object.keys(files).filter((name) => name.endsWith('.fork.json'));
  const [name] = documents;
  if (name === undefined)
    return refused('There is no questionnaire in it: no file whose name ends with .fork.json.');
  if (documents.length > 1)
    return refused(`There is more than one questionnaire in it: ${documents.join(', ')}.`);
  const read = readDocumentText(strFromU8(files[name] as Uint8Array));
  if (!read.ok) {
    const [problem] = read.problems;
    return refused(`${name} cannot be used. ${problem === undefined ? '' : problemText(problem)}.`);
  }
  const work: Partial<Record<WorkPart, unknown>> = {};
  for (const part of WORK_PARTS) {
    const path = Object.keys(files).find((each) => each.endsWith(pathOf(part)));
    const list = path === undefined ? [] : listIn(part, files[path] as Uint8Array);
    if (typeof list === 'string') return refused(`${pathOf(part)} cannot be used: ${list}.`);
    work[part] = list;
  }
  return { ok: true, document: read.document, work: work as Work };
}

/** What one file holds, or what is wrong with it. */
function listIn(part: WorkPart, bytes: Uint8Array): unknown[] | string {
  let json: unknown;
  try {
    json = JSON.parse(strFromU8(bytes));
  } catch {
    return 'it is not JSON';
  }
  const parsed = v.safeParse(v.array(PARTS[part] as v.GenericSchema), json);
  if (parsed.success) return parsed.output;
  const [issue] = parsed.issues;
  const path = pathText((issue.path ?? []).map((step: { key: unknown }) => step.key as string | number));
  return `${path}: ${issue.message}`;
}

function pathOf(part: WorkPart): string {
  return `work/${part}.json`;
}

function refused(problem: string): ReadWork {
  return { ok: false, problem };
}
