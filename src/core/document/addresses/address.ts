/** What of a questionnaire is pointed at: selected, anchored in the sheet, commented on, drawn as a node. */
import * as v from 'valibot';
import { keySchema, type Branded } from './brand';

/** `study` has no name; `option` and `skip` have an item's and behind it a code or a number from 1, `break` two indices. */
export const ADDRESS_KINDS = [
  'study',
  'item',
  'section',
  'ending',
  'given',
  'quota',
  'derived',
  'option',
  'skip',
  'item-skips',
  'onward',
  'break',
] as const;
export type AddressKind = (typeof ADDRESS_KINDS)[number];

/** `KIND:NAME` or `KIND:NAME/DETAIL`: what is selected, anchored in the sheet, commented on, drawn as a node. */
export type Address = Branded<'address'>;
/** The study as a whole. */
export const WHOLE_STUDY = 'study' as Address;

export interface AddressParts {
  readonly kind: AddressKind;
  readonly name: string;
  readonly detail: string | null;
}

export function address(
  kind: Exclude<AddressKind, 'study'>,
  name: string | number,
  detail?: string | number,
): Address {
  return `${kind}:${name}${detail === undefined ? '' : `/${detail}`}` as Address;
}

export function readAddress(at: Address): AddressParts {
  if (at === WHOLE_STUDY) return { kind: 'study', name: '', detail: null };
  const [, kind = '', name = '', detail = null] = ADDRESS.exec(at) ?? [];
  return { kind: kind as AddressKind, name, detail };
}

const ADDRESS = new RegExp(`^(${ADDRESS_KINDS.slice(1).join('|')}):([^/]*)(?:/(.*))?$`, 's');

export function parseAddress(text: string): Address | null {
  return text === WHOLE_STUDY || ADDRESS.test(text) ? (text as Address) : null;
}

export const AddressSchema = v.pipe(
  keySchema(parseAddress, 'a part of a questionnaire is meant'),
  v.maxLength(200),
);

/** The name of what has the address, if it is of that kind; else null. */
export function nameAt(at: Address | null, kind: AddressKind): string | null {
  if (at === null) return null;
  const parts = readAddress(at);
  return parts.kind === kind ? parts.name : null;
}
