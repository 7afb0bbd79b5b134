/**
 * Named sets of assumptions beside those at the questions (“low”, “high”): what each assumes, and how they are changed. What a set
 * says nothing of is assumed as at the question.
 */
import type { Draft } from 'immer';
import type { Assumptions } from '../analysis';
import type { Answer, Assume, AssumeSet, Questionnaire } from '../document/types';
import type { Change } from '../editing/change';

/** What stands at the questions has no name in the document; this is what it is called beside the sets. */
export const EXPECTED = 'expected';

export function setsOf({ settings }: Questionnaire): readonly AssumeSet[] {
  return settings?.forecast?.sets ?? [];
}

/** What a set assumes otherwise, by name; nothing for null, and for a set that is there no more. */
export function assumedInSet(document: Questionnaire, set: string | null): Assumptions {
  const own = assumedAtQuestions(document);
  const entries = setsOf(document).find(({ name }) => name === set)?.assume ?? [];
  return new Map(
    entries.map(({ of, ...assume }): [string, Assume] => [of, withConditionsOf(own.get(of)?.assume, assume)]),
  );
}

/** What is assumed of everything that is said something of, the set's before the question's. */
export function assumedOf(document: Questionnaire, set: string | null, name: string): Assume | undefined {
  return assumedInSet(document, set).get(name) ?? assumedAtQuestions(document).get(name)?.assume;
}

/** Of whom shares are assumed apart is the question's to say: a set has its own shares of them, or else those there. */
function withConditionsOf(atQuestion: Assume | undefined, { where = [], ...assume }: Assume): Assume {
  const apart = atQuestion?.where ?? [];
  if (apart.length === 0) return assume;
  return { ...assume, where: apart.map((of) => where.find((own) => own.if === of.if) ?? of) };
}

/** Questions and given values that answers can be assumed of. */
export function assumedAtQuestions(document: Questionnaire): ReadonlyMap<string, AssumableEntry> {
  const questions = document.sections.flatMap(({ items }) =>
    items.flatMap((item) => (item.kind === 'question' ? [item] : [])),
  );
  const given = (document.given ?? []).filter(({ random }) => random !== true);
  return new Map([
    ...given.map(({ name, answer, assume: of }): [string, AssumableEntry] => [
      name,
      { answer, required: true, ...(of === undefined ? {} : { assume: of }) },
    ]),
    ...questions.map(({ name, answer, required, assume: of }): [string, AssumableEntry] => [
      name,
      { answer, required: required === true, ...(of === undefined ? {} : { assume: of }) },
    ]),
  ]);
}

/** What answers can be assumed of; a value that is known beforehand is never blank. */
export interface AssumableEntry {
  readonly answer: Answer;
  readonly required: boolean;
  readonly assume?: Assume;
}

/** Other answers are assumed of a question, or of a given value: at the question itself, or in a set. */
export function assume(
  set: string | null,
  name: string,
  assumed: Assume | null,
  label = `Assume other shares of ${name}`,
): Change {
  return {
    label,
    mergeKey: `assume ${set ?? ''} ${name}`,
    apply: (draft) => assumeIn(draft, set, name, assumed),
  };
}

/** Several at once, as one step of the history. */
export function assumeAll(set: string | null, all: Assumptions, label: string): Change {
  return {
    label,
    apply(draft) {
      for (const [name, assumed] of all) assumeIn(draft, set, name, assumed);
    },
  };
}

function assumeIn(draft: Draft<Questionnaire>, set: string | null, name: string, assumed: Assume | null) {
  const value = assumed === null ? null : (structuredClone(assumed) as Draft<Assume>);
  if (set !== null) {
    const of = draft.settings?.forecast?.sets?.find((each) => each.name === set);
    if (of === undefined) return;
    const others = of.assume.filter((each) => each.of !== name);
    of.assume = value === null ? others : [...others, { of: name, ...value }];
    return;
  }
  const entries = [
    ...(draft.given ?? []),
    ...draft.sections.flatMap(({ items }) => items.filter((item) => item.kind === 'question')),
  ];
  for (const entry of entries) {
    if (entry.name !== name) continue;
    if (value === null) delete entry.assume;
    else entry.assume = value;
  }
}

/** What is wrong with a name for a set, as a sentence; null where it can have it. `now`: what it is called so far. */
export function setNameProblem(document: Questionnaire, name: string, now: string | null): string | null {
  const trimmed = name.trim();
  if (trimmed === '') return 'Give the set a name, such as low or high.';
  if (trimmed.toLowerCase() === EXPECTED)
    return `“${EXPECTED}” is what stands at the questions: give the set another name.`;
  const isTaken = setsOf(document).some((set) => set.name !== now && same(set.name, trimmed));
  return isTaken ? `There is a set “${trimmed}” already: give this one another name.` : null;
}

function same(a: string, b: string): boolean {
  return a.trim().toLowerCase() === b.trim().toLowerCase();
}

/** The names must have no problem; see `setNameProblem`. */
export function addSet(name: string): Change {
  return changingSets(`Add the assumptions “${name.trim()}”`, (sets) => [
    ...sets,
    { name: name.trim(), assume: [] },
  ]);
}

export function renameSet(set: string, name: string): Change {
  return changingSets(`Call the assumptions “${name.trim()}”`, (sets) =>
    sets.map((each) => (each.name === set ? { ...each, name: name.trim() } : each)),
  );
}

export function removeSet(set: string): Change {
  return changingSets(`Delete the assumptions “${set}”`, (sets) => sets.filter(({ name }) => name !== set));
}

function changingSets(label: string, change: (sets: Draft<AssumeSet>[]) => Draft<AssumeSet>[]): Change {
  return {
    label,
    apply(draft) {
      const sets = change(draft.settings?.forecast?.sets ?? []);
      const { sets: _, ...rest } = draft.settings?.forecast ?? {};
      draft.settings = {
        ...draft.settings,
        forecast: { ...rest, ...(sets.length > 0 ? { sets } : {}) },
      };
    },
  };
}
