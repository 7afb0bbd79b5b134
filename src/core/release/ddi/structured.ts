/**
 * A questionnaire whose skips are written as ask-ifs of what they lead over, as far as that leads everybody the same way:
 * DDI knows structure, and no way to jump. What cannot is left as it is, and told.
 */
import { sameRouting } from '../../analysis';
import { address } from '../../document/addresses';
import type { Item, Questionnaire } from '../../document/types';
import type { Loss } from '../format-types';
import { applyChange } from '../../editing/change';
import { skipToAskIf } from '../../editing/convert';
import type { ItemPlace } from '../../editing/structure';
import { planOf } from '../../routing/planner';

export interface Structured {
  readonly document: Questionnaire;
  /** Places of the skips that became ask-ifs, by the item's name. */
  readonly converted: ReadonlySet<string>;
}

interface Candidate {
  readonly place: ItemPlace;
  readonly name: string;
  readonly index: number;
}

/** Proofs that are tried at most: each takes about as long as counting the routes. */
const MOST_PROOFS = 24;

export function structured(document: Questionnaire): Structured {
  const candidates = document.sections.flatMap(({ items }, section) =>
    items.flatMap((item, at) => skipsOf(item).map((_, index) => candidate(section, at, item, index))),
  );
  const before = planOf(document);
  let proofs = 0;
  /** Those of a list that can go together, found by halving it where they cannot. */
  const provable = (some: readonly Candidate[], known: readonly Candidate[]): readonly Candidate[] => {
    if (some.length === 0 || proofs >= MOST_PROOFS) return known;
    const tried = convertedBy(document, [...known, ...some]);
    proofs += 1;
    if (tried.done.length > known.length && sameRouting(before, planOf(tried.document)) === true)
      return tried.done;
    if (some.length === 1) return known;
    const half = Math.ceil(some.length / 2);
    return provable(some.slice(half), provable(some.slice(0, half), known));
  };
  const { document: made, done } = convertedBy(document, provable(candidates, []));
  return { document: made, converted: new Set(done.map(({ name }) => name)) };
}

function candidate(section: number, item: number, of: Item, index: number): Candidate {
  return { place: { section, item }, name: of.kind === 'page_break' ? '' : of.name, index };
}

const skipsOf = (item: Item) => (item.kind === 'page_break' ? [] : (item.skips ?? []));

/** From the last to the first, so that the places of those before stay as they are. */
function convertedBy(document: Questionnaire, candidates: readonly Candidate[]) {
  let made = document;
  const done: Candidate[] = [];
  const ordered = [...candidates].sort(
    (a, b) => b.place.section - a.place.section || b.place.item - a.place.item || b.index - a.index,
  );
  for (const each of ordered) {
    const change = skipToAskIf(made, each.place, each.index);
    if (change === null) continue;
    made = applyChange(made, change).document;
    done.push(each);
  }
  return { document: made, done };
}

/** Of the skips of a questionnaire, what became of each that is no structure as it stands. */
export function skipsToldOf(document: Questionnaire, made: Questionnaire): Loss[] {
  return document.sections.flatMap(({ id, items, onward }, s) => [
    ...items.flatMap((item, n): Loss[] => {
      const before = skipsOf(item);
      if (item.kind === 'page_break' || before.length === 0) return [];
      const after = skipsOf(made.sections[s]?.items[n] ?? item).length;
      const at = address('item', item.name);
      const became = before.length - after;
      return [
        ...(became > 0 ? [{ at, what: `${counted(became)}, written as ask-ifs of what it leads over` }] : []),
        ...(after > 0 ? [{ at, what: `${counted(after)}, written as its condition and no structure` }] : []),
      ];
    }),
    ...(onward === undefined
      ? []
      : [
          {
            at: address('section', id),
            what: 'where its end leads, written as its condition and no structure',
          },
        ]),
  ]);
}

const counted = (count: number) => (count === 1 ? 'a skip' : `${count} skips`);
