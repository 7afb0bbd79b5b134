/**
 * Every variable of a questionnaire and how its values are typed.
 *
 * A question gives one variable, a grid one for each row besides its own name (which can only be asked
 * about as a whole). Columns of the data are worked out from these in `coding/`.
 */
import { hasRows, isListed, traitsOf, type ValueKind } from './answer-types';
import { optionsOf } from './shape';
import type {
  Answer,
  Derived,
  Given,
  GridAnswer,
  GridRow,
  Option,
  Question,
  Questionnaire,
  Section,
} from './types';

export type Variable = QuestionVariable | GridRowVariable | GivenVariable | DerivedVariable;

interface Common {
  /** In the document's own spelling. */
  readonly name: string;
  readonly kind: ValueKind;
  /** The codes that can occur, or null where values are not from a list. */
  readonly codes: readonly number[] | null;
}

interface PlacedVariable extends Common {
  readonly section: number;
  readonly item: number;
  readonly question: Question;
}

export interface QuestionVariable extends PlacedVariable {
  readonly of: 'question';
}

export interface GridRowVariable extends PlacedVariable {
  readonly of: 'row';
  readonly row: GridRow;
  readonly grid: GridAnswer;
}

export interface GivenVariable extends Common {
  readonly of: 'given';
  readonly given: Given;
}

export interface DerivedVariable extends Common {
  readonly of: 'derived';
  readonly derived: Derived;
  /** Index in the document's list. */
  readonly index: number;
}

/** Variables by lower-case name; where a name is used twice, the first one. */
export type Variables = ReadonlyMap<string, Variable>;

/** By name in small letters. Of two with one name the first counts; the checks tell of the second. */
export function variablesOf(document: Questionnaire): Variables {
  const found = new Map<string, Variable>();
  const add = (variable: Variable) => {
    const key = variable.name.toLowerCase();
    if (!found.has(key)) found.set(key, variable);
  };
  for (const given of document.given ?? []) {
    add({
      of: 'given',
      name: given.name,
      kind: traitsOf(given.answer).value,
      codes: codesOf(given.answer),
      given,
    });
  }
  document.sections.forEach((section, s) => {
    section.items.forEach((item, i) => {
      if (item.kind !== 'question') return;
      const place = { section: s, item: i, question: item };
      const { answer } = item;
      add({
        of: 'question',
        name: item.name,
        kind: traitsOf(answer).value,
        codes: codesOf(answer),
        ...place,
      });
      if (!hasRows(answer)) return;
      const kind = answer.pick === 'many' ? 'set' : 'number';
      for (const row of answer.rows) {
        add({ of: 'row', name: row.name, kind, codes: codesOf(answer), row, grid: answer, ...place });
      }
    });
  });
  document.derived?.forEach((derived, index) => {
    const codes =
      'cases' in derived
        ? [...derived.cases.map((c) => c.code), ...(derived.else ? [derived.else.code] : [])]
        : null;
    add({ of: 'derived', name: derived.name, kind: 'number', codes, derived, index });
  });
  return found;
}

function codesOf(answer: Answer): readonly number[] | null {
  return isListed(answer) ? answer.options.map((option) => option.code) : null;
}

/** The words that stand for a variable, apart from its name; a question has them only where it was given a label. */
export function labelOf(variable: Variable): string | undefined {
  switch (variable.of) {
    case 'question':
      return variable.question.label;
    case 'row':
      return variable.row.label;
    case 'given':
      return variable.given.label;
    case 'derived':
      return variable.derived.label;
    default:
      return variable satisfies never;
  }
}

/** Options a variable may be answered with, specials included. */
export function variableOptions(variable: Variable): readonly Option[] {
  switch (variable.of) {
    case 'question':
      return optionsOf(variable.question.answer);
    case 'row':
      return variable.grid.options;
    case 'given':
      return optionsOf(variable.given.answer);
    case 'derived':
      return [];
    default:
      return variable satisfies never;
  }
}

/** The letter shown for a section: A … Z, then AA, AB … */
export function sectionLetter(index: number): string {
  const letter = String.fromCharCode(65 + (index % 26));
  return index < 26 ? letter : sectionLetter(Math.floor(index / 26) - 1) + letter;
}

/** A section's number of passes at most: 1 where it is not repeated. */
export function maxPasses(section: Section): number {
  return section.repeat?.max ?? 1;
}

/** Whether a section's questions hold one value for each pass. */
export function isRepeated(section: Section): boolean {
  return section.repeat !== undefined;
}
