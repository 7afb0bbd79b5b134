/** The places of a questionnaire that can be commented on, and how one is found again after it was renamed. */
import { address, readAddress, type Address } from '../document/addresses';
import { eachPart } from '../document/each-property';
import type { Questionnaire } from '../document/types';

/** Every place that can be commented on, with where it stands. */
function placesIn(document: Questionnaire): Map<Address, string> {
  const places = new Map<Address, string>();
  eachPart(document, ({ at, index, section }) => {
    const { kind } = readAddress(at);
    if (kind !== 'onward') places.set(at, `${kind} ${section ?? ''} ${index}`);
  });
  return places;
}

/**
 * Where the places went that an edit gave another name: what stands just where they stood, if it is new and nothing else
 * has their name.
 */
export function renamedPlaces(
  before: Questionnaire,
  after: Questionnaire,
  keys: readonly Address[],
): { readonly from: Address; readonly to: Address }[] {
  const [old, now] = [placesIn(before), placesIn(after)];
  const byStand = new Map([...now].map(([key, stand]) => [stand, key]));
  return keys.flatMap((key) => {
    const own = selectionOf(key);
    const stood = old.get(own);
    if (stood === undefined || now.has(own)) return [];
    const to = byStand.get(stood);
    if (to === undefined || old.has(to)) return [];
    const { kind, detail } = readAddress(key);
    return [{ from: key, to: kind === 'skip' ? address('skip', readAddress(to).name, detail ?? '') : to }];
  });
}

/** What to select for a commented place: of a skip its item. */
export function selectionOf(place: Address): Address {
  const { kind, name } = readAddress(place);
  return kind === 'skip' ? address('item', name) : place;
}
