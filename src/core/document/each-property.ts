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

/** Visits every property that is there, before those of the parts that it holds; in the order of the table. */
export function eachProperty(document: Questionnaire, visit: (held: Held) => void): void {
  eachOf(document, 'study', WHOLE_STUDY, null, visit);
}

function eachOf(
  part: object,
  kind: HolderKind,
  around: Address,
  inside: WithinAnswer | null,
  visit: (held: Held) => void,
): void {
  const holder = part as Record<string, unknown>;
  const at = addressOf(kind, holder) ?? around;
  const within = withinOf(kind, holder) ?? inside;
  for (const [name, property] of Object.entries(propertiesOf(kind))) {
    const value = holder[name];
    if (value === undefined) continue;
    visit({ holder, kind, name, property, value, at, within });
    if (property.parts === undefined) continue;
    const of = property.parts;
    for (const each of Array.isArray(value) ? (value as object[]) : [value as object])
      eachOf(each, kindOfPart(of, each), at, within, visit);
  }
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

/** Every part that can be selected, in document order, with where it stands: that of an item in its section. */
export function eachPart(
  document: Questionnaire,
  visit: (at: Address, place: { readonly index: number; readonly section: number | null }) => void,
): void {
  document.given?.forEach(({ name }, index) => visit(address('given', name), { index, section: null }));
  document.quotas?.forEach(({ id }, index) => visit(address('quota', id), { index, section: null }));
  document.sections.forEach(({ id, items }, section) => {
    visit(address('section', id), { index: section, section: null });
    items.forEach((item, index) => {
      if (item.kind !== 'page_break') visit(address('item', item.name), { index, section });
    });
    visit(address('onward', id), { index: section, section: null });
  });
  document.derived?.forEach(({ name }, index) => visit(address('derived', name), { index, section: null }));
  document.endings.forEach(({ id }, index) => visit(address('ending', id), { index, section: null }));
}
