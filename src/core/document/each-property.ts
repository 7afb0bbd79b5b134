/** Going through a questionnaire property by property, with what the table of properties says of each. */
import { address, WHOLE_STUDY, type Address } from './addresses';
import { propertiesOf, type HolderKind, type PartOf, type Property } from './properties';
import type { Questionnaire } from './types';

export interface Held {
  /** The part that has the property, which can be changed where the questionnaire is a draft. */
  readonly holder: Record<string, unknown>;
  readonly kind: HolderKind;
  readonly name: string;
  readonly property: Property;
  /** Never undefined. */
  readonly value: unknown;
  /** The nearest part round it that can be selected. */
  readonly at: Address;
  /** The answer or row of it that holds the property. */
  readonly within: WithinAnswer | null;
}

export type WithinAnswer = { readonly option: number } | { readonly row: string };

/** A part that can be selected, and where it stands. */
export interface PlacedPart {
  readonly at: Address;
  /** In its list. */
  readonly index: number;
  /** Of an item, the index of its section; else null. */
  readonly section: number | null;
}

interface Visitor {
  readonly property?: (held: Held) => void;
  readonly part?: (placed: PlacedPart) => void;
}

/** Visits every property that is there, before those of the parts that it holds; in the order of the table. */
export function eachProperty(document: Questionnaire, visit: (held: Held) => void): void {
  eachOf(document, 'study', { at: WHOLE_STUDY, index: 0, section: null }, null, { property: visit });
}

/** Visits every part that can be selected, in the order of the table; the end of a section behind what stands in it. */
export function eachPart(document: Questionnaire, visit: (placed: PlacedPart) => void): void {
  eachOf(document, 'study', { at: WHOLE_STUDY, index: 0, section: null }, null, { part: visit });
}

function eachOf(
  part: object,
  kind: HolderKind,
  placed: PlacedPart,
  within: WithinAnswer | null,
  visitor: Visitor,
): void {
  // Nothing that can be selected stands deeper: this is asked for with every key that is pressed.
  if (visitor.property === undefined && kind !== 'study' && kind !== 'section') return;
  const holder = part as Record<string, unknown>;
  for (const [name, property] of Object.entries(propertiesOf(kind))) {
    const value = holder[name];
    if (value === undefined) continue;
    visitor.property?.({ holder, kind, name, property, value, at: placed.at, within });
    const of = property.parts;
    if (of === undefined) continue;
    const list = Array.isArray(value) ? (value as object[]) : [value as object];
    list.forEach((each, index) => {
      const inner = kindOfPart(of, each);
      const own = addressOf(inner, each as Record<string, unknown>);
      const at =
        own === null ? placed : { at: own, index, section: kind === 'section' ? placed.index : null };
      if (own !== null) visitor.part?.(at);
      eachOf(each, inner, at, withinOf(inner, each as Record<string, unknown>) ?? within, visitor);
    });
  }
  if (kind === 'section') visitor.part?.({ ...placed, at: address('onward', String(holder.id)) });
}

/** Items are told apart by what they say they are; a section's end that leads to one target is that target. */
function kindOfPart(of: PartOf, part: object): HolderKind {
  if (of === 'item') {
    const { kind } = part as { kind: 'question' | 'statement' | 'page_break' };
    return kind === 'page_break' ? 'pageBreak' : kind;
  }
  return of === 'skip' && !('to' in part) ? 'target' : of;
}

function addressOf(kind: HolderKind, { id, name }: Record<string, unknown>): Address | null {
  switch (kind) {
    case 'section':
    case 'ending':
    case 'quota':
      return address(kind, String(id));
    case 'given':
    case 'derived':
      return address(kind, String(name));
    case 'question':
    case 'statement':
      return address('item', String(name));
    default:
      return null;
  }
}

function withinOf(kind: HolderKind, { code, name }: Record<string, unknown>): WithinAnswer | null {
  if (kind === 'option') return { option: Number(code) };
  return kind === 'row' ? { row: String(name) } : null;
}
