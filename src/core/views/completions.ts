/** What can come next while a condition is typed: names, codes with their labels, words of the language. */
import type { Position } from '../condition/scope';
import { scan, type Token } from '../condition/scan';
import { labelOf, variableOptions, type Variable } from '../document/variables';
import { drivesRepeat } from '../routing/planner';
import type { Plan } from '../routing/plan';

export interface Completion {
  readonly label: string;
  /** The question's words, or the option's label. */
  readonly detail: string;
  readonly kind: 'name' | 'code' | 'word';
}

export interface Completions {
  /** Offset from which the completion replaces the text up to the caret. */
  readonly from: number;
  readonly list: readonly Completion[];
}

const AFTER_NAME = [
  '=',
  '<>',
  'in (',
  'not in (',
  '<',
  '<=',
  '>',
  '>=',
  'answered',
  'unanswered',
  'asked',
  'not asked',
];
const AFTER_SET = [
  'has',
  'has any (',
  'has all (',
  'has none (',
  'answered',
  'unanswered',
  'asked',
  'not asked',
];
const STARTS = ['not', 'count('];

/** Completions at `offset` of a condition that stands at `place`: what comes later is not offered. */
export function completionsAt(plan: Plan, place: Position, text: string, offset: number): Completions {
  const tokens = scan(text.slice(0, offset)).filter(({ kind }) => kind !== 'end');
  const last = tokens.at(-1);
  const typing =
    last !== undefined && (last.kind === 'word' || last.kind === 'number') && last.span.to === offset;
  const before = typing ? tokens.slice(0, -1) : tokens;
  const from = typing ? last.span.from : offset;
  const about = subjectOf(before);
  if (about !== null && about.wants === 'value') {
    const codes = codesOf(plan.variables.get(about.name.toLowerCase()));
    if (codes.length > 0) return { from, list: codes };
  }
  if (about !== null && about.wants === 'relation') {
    const variable = plan.variables.get(about.name.toLowerCase());
    const words = variable?.kind === 'set' || variable?.kind === 'order' ? AFTER_SET : AFTER_NAME;
    return { from, list: words.map((label) => ({ label, detail: '', kind: 'word' })) };
  }
  if (about !== null && about.wants === 'joiner') {
    return { from, list: ['and', 'or'].map((label) => ({ label, detail: '', kind: 'word' })) };
  }
  const names = namesBefore(plan, place);
  return {
    from,
    list: [...names, ...STARTS.map((label): Completion => ({ label, detail: '', kind: 'word' }))],
  };
}

/** What the tokens so far are about and what they want next; null where a test is to begin. */
function subjectOf(
  tokens: readonly Token[],
): { name: string; wants: 'relation' | 'value' | 'joiner' } | null {
  let name: string | null = null;
  let wants: 'relation' | 'value' | 'joiner' = 'relation';
  for (const { kind, text } of tokens) {
    const word = text.toLowerCase();
    if (kind === 'word' && (word === 'and' || word === 'or')) name = null;
    else if (kind === 'word' && name === null && !['not', 'count'].includes(word))
      [name, wants] = [text, 'relation'];
    else if (['answered', 'unanswered', 'asked', 'always', 'never'].includes(word)) wants = 'joiner';
    else if (kind === 'symbol' && [')'].includes(text) && name !== null) wants = 'joiner';
    else if (kind === 'number' || kind === 'text' || kind === 'date') wants = 'joiner';
    else if (kind === 'symbol' && text === '(' && name === null) wants = 'relation';
    else if (name !== null) wants = 'value';
  }
  return name === null ? null : { name, wants };
}

function codesOf(variable: Variable | undefined): Completion[] {
  if (variable === undefined) return [];
  const derived = variable.of === 'derived' && 'cases' in variable.derived ? variable.derived.cases : [];
  return [...variableOptions(variable), ...derived].map(({ code, label }) => ({
    label: String(code),
    detail: label,
    kind: 'code',
  }));
}

/** Variables that have a value at `place`, nearest first. */
export function namesBefore(plan: Plan, place: Position): Completion[] {
  return variablesBefore(plan, place).map((variable) => ({
    label: variable.name,
    detail: wordsOf(variable),
    kind: 'name',
  }));
}

/** What can be piped into a text at `place`: answers given before it, and in a repeated section what the pass is. */
export function pipesBefore(plan: Plan, place: Position): Completion[] {
  const repeat = plan.document.sections[place.section]?.repeat;
  const ofPass: Completion[] =
    repeat === undefined ? [] : [{ label: 'pass', detail: 'the number of the pass', kind: 'word' }];
  if (repeat !== undefined && 'each' in repeat)
    ofPass.unshift({ label: 'each', detail: `the answer of ${repeat.each} it is about`, kind: 'word' });
  return [...ofPass, ...namesBefore(plan, place)];
}

/** Variables that a condition at `place` may read, nearest first; given and derived ones last. */
export function variablesBefore(plan: Plan, place: Position): Variable[] {
  const all = [...plan.variables.values()];
  const placed = all.filter((variable) => {
    if (variable.of !== 'question' && variable.of !== 'row') return false;
    const { section, item } = variable;
    return section < place.section || (section === place.section && item < place.item);
  });
  const rest = all.filter(({ of }) => of === 'given' || of === 'derived');
  return [...placed.reverse(), ...rest];
}

/** What a section can be repeated by, nearest first. */
export function repeatDrivers(
  plan: Plan,
  section: number,
): { readonly kind: 'times' | 'each'; readonly variable: Variable }[] {
  return variablesBefore(plan, { section, item: 0 }).flatMap((variable) => {
    const home = 'section' in variable ? plan.document.sections[variable.section] : undefined;
    if (home?.repeat !== undefined) return [];
    return (['times', 'each'] as const).flatMap((kind) =>
      drivesRepeat(variable, kind) ? [{ kind, variable }] : [],
    );
  });
}

/** Its label, or else its question’s text, or else its name. */
export function wordsOf(variable: Variable): string {
  return labelOf(variable) ?? (variable.of === 'question' ? variable.question.text : variable.name);
}

/** A condition that could stand at `place`, in the study's own names; null where nothing is asked before it. */
export function exampleAt(plan: Plan, place: Position): string | null {
  const before = variablesBefore(plan, place);
  // Answers from a list show most of how conditions are written.
  const variable = before.find(({ codes }) => codes !== null && codes.length > 0) ?? before[0];
  if (variable === undefined) return null;
  const { name, kind } = variable;
  const code = codesOf(variable)[0]?.label ?? variable.codes?.[0];
  if (code === undefined) return `${name} answered`;
  return kind === 'set' || kind === 'order' ? `${name} has ${code}` : `${name} = ${code}`;
}
