/** Problems found while a document is turned into a plan, each with its place. */
import type { ConditionRule } from '../condition/scope';
import type { TextSpan } from '../condition/syntax';
import { address, readAddress, type Address } from '../document/addresses';

export type PlanRule = ConditionRule | 'unknown-target' | 'backward-skip' | 'enters-repeat';

/** A place in the document, by the names its author gave. */
export interface DocumentPlace {
  readonly section?: string;
  readonly item?: string;
  readonly ending?: string;
  readonly derived?: string;
  readonly quota?: string;
  readonly given?: string;
  /** Index in the item's skips. */
  readonly skip?: number;
  /** Code of the option. */
  readonly option?: number;
  /** Name of the grid row. */
  readonly row?: string;
  /** Index in the section's onward list. */
  readonly onward?: number;
}

export interface PlanProblem {
  readonly rule: PlanRule;
  readonly at: DocumentPlace;
  /** Which of the place's texts: `askIf`, `if`, `to`, `text`, `repeat`, `cases[1].if` … */
  readonly field: string;
  readonly message: string;
  /** In that text, where it is one. */
  readonly span?: TextSpan;
}

/** The part that a place is in, as it can be selected; null for the study as a whole. */
export function partAt(at: DocumentPlace): Address | null {
  if (at.item !== undefined) return address('item', at.item);
  if (at.section !== undefined) return address('section', at.section);
  if (at.given !== undefined) return address('given', at.given);
  if (at.quota !== undefined) return address('quota', at.quota);
  if (at.derived !== undefined) return address('derived', at.derived);
  return at.ending === undefined ? null : address('ending', at.ending);
}

/** The place of a part that can be selected; of what is no part by itself, the study as a whole. */
export function placeAt(at: Address): DocumentPlace {
  const { kind, name } = readAddress(at);
  switch (kind) {
    case 'section':
    case 'item':
    case 'ending':
    case 'derived':
    case 'quota':
    case 'given':
      return { [kind]: name };
    default:
      return {};
  }
}
