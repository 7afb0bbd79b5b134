/** What is typed into: the fields of the sheet. */
import { parseAddress, type Address } from './address';
import type { Branded } from './brand';

/** What belongs to no item, and so begins with a sign that no name has. */
export type FieldOwner =
  '@whole' | '@section' | '@add' | '@onward' | '@given' | '@quota' | '@derived' | '@ending';

/** `NAME/label/2` and the like: what a field of the sheet edits, unique on it. */
export type FieldId = Branded<'field id'>;

/** `owner`: an item's name, or what else the field belongs to. */
export function fieldId(owner: FieldOwner | (string & {}), ...parts: readonly (string | number)[]): FieldId {
  return [owner, ...parts].join('/') as FieldId;
}

/** The field under which what has an address can be focused as a whole. */
export function wholeField(at: Address): FieldId {
  return fieldId('@whole', at);
}

/** The field of an element of the page, which only `fieldId` names; null where it has none. */
export function fieldOfElement(named: string | undefined): FieldId | null {
  return named === undefined || named === '' ? null : (named as FieldId);
}

export function readField(field: FieldId): { readonly owner: string; readonly parts: readonly string[] } {
  const [owner = '', ...parts] = field.split('/');
  return { owner, parts };
}

/** What a field stands for as a whole; null for fields of a part. */
export function addressOfField(field: FieldId): Address | null {
  const { owner, parts } = readField(field);
  return owner === '@whole' ? parseAddress(parts.join('/')) : null;
}
