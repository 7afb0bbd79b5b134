/** From a plain-text script to the questionnaire, or to problems that each name their line and how to mend it. */
import { readDocument } from '../../document/read';
import type { ShapeProblem } from '../../document/shape';
import { FORMAT, VERSION, type Questionnaire } from '../../document/types';
import { STUDY } from './grammar';
import { readLines, type LineProblem, type ScriptLine } from './lines';
import { readSlots, type Held, type Reading } from './slots';
import { FIRST_LINE } from './write-script';

export type ReadScript =
  | { readonly ok: true; readonly document: Questionnaire }
  /** In the order of the lines. */
  | { readonly ok: false; readonly problems: readonly LineProblem[] };

/** So many are told; more of them are mostly those again. */
const MOST_PROBLEMS = 20;

export function readScript(text: string): ReadScript {
  const read = readLines(text.replace(/^\uFEFF/, ''));
  if (!read.ok) return { ok: false, problems: [read.problem] };
  const [first, ...rest] = read.lines;
  if (first?.words !== FIRST_LINE)
    return {
      ok: false,
      problems: [{ line: first?.number ?? 1, what: `a script begins with the line “${FIRST_LINE}”` }],
    };
  const made = new Made();
  const study: Held = { format: FORMAT, version: VERSION };
  made.made(study, null, first);
  readSlots([], first.under, study, made);
  readSlots(STUDY, rest, study, made);
  if (made.problems.length > 0) return { ok: false, problems: firstOf(made.problems) };
  const result = readDocument(study);
  if (result.ok) return { ok: true, document: result.document };
  return { ok: false, problems: firstOf(result.problems.map((problem) => made.placed(study, problem))) };
}

function firstOf(problems: readonly LineProblem[]): readonly LineProblem[] {
  return [...problems].sort((a, b) => a.line - b.line).slice(0, MOST_PROBLEMS);
}

/** Which line each part and each property was read from. */
class Made implements Reading {
  readonly problems: LineProblem[] = [];

  get isFull(): boolean {
    return this.problems.length >= 10 * MOST_PROBLEMS;
  }
  private readonly lines = new WeakMap<object, Map<string | null, number>>();

  refuse({ number }: ScriptLine, what: string): void {
    this.problems.push({ line: number, what });
  }

  made(object: object, property: string | null, { number }: ScriptLine): void {
    const of = this.lines.get(object) ?? new Map<string | null, number>();
    this.lines.set(object, of);
    if (!of.has(property)) of.set(property, number);
  }

  /** What the questionnaire itself refuses, at the line that comes nearest to its place. */
  placed(study: Held, { path, message }: ShapeProblem): LineProblem {
    let line = 1;
    let at: unknown = study;
    for (const key of path) {
      if (typeof at !== 'object' || at === null) break;
      line = this.lines.get(at)?.get(String(key)) ?? line;
      at = (at as Record<string | number, unknown>)[key];
      if (typeof at === 'object' && at !== null) line = this.lines.get(at)?.get(null) ?? line;
    }
    return { line, what: message };
  }
}
