/** What is different for somebody on a route since it was looked at: told by what each item shows, not by its name. */

/** Names and marks of a route's items, in order; the ending's mark comes last. */
export interface ShownRoute {
  /** `name`, or `name#pass`. */
  readonly items: readonly string[];
  readonly marks: readonly string[];
}

export type RouteChange =
  /** Its words, answers or limits are others. */
  | { readonly kind: 'reworded'; readonly item: string }
  | { readonly kind: 'added'; readonly item: string }
  | { readonly kind: 'gone'; readonly item: string }
  | { readonly kind: 'moved' }
  | { readonly kind: 'ending' };

/** In the order of the route as it is now; empty where it shows the same. */
export function routeChanges(before: ShownRoute, now: ShownRoute): RouteChange[] {
  const changes: RouteChange[] = [];
  const [hadMarks, hasMarks] = [new Set(marksOf(before)), new Set(marksOf(now))];
  const [hadItems, hasItems] = [new Set(before.items), new Set(now.items)];
  now.items.forEach((item, n) => {
    if (hadMarks.has(now.marks[n] ?? '')) return;
    changes.push({ kind: hadItems.has(item) ? 'reworded' : 'added', item });
  });
  before.items.forEach((item, n) => {
    if (!hasMarks.has(before.marks[n] ?? '') && !hasItems.has(item)) changes.push({ kind: 'gone', item });
  });
  if (before.marks.at(-1) !== now.marks.at(-1)) changes.push({ kind: 'ending' });
  if (changes.length === 0 && before.marks.join() !== now.marks.join()) changes.push({ kind: 'moved' });
  return changes;
}

/** A clause without a full stop: “cars is asked now”. */
export function routeChangeWords(change: RouteChange): string {
  switch (change.kind) {
    case 'reworded':
      return `${change.item} shows something else`;
    case 'added':
      return `${change.item} is asked now`;
    case 'gone':
      return `${change.item} is not asked any more`;
    case 'moved':
      return 'the same in another order';
    case 'ending':
      return 'it ends otherwise';
    default:
      return change satisfies never;
  }
}

function marksOf({ items, marks }: ShownRoute): readonly string[] {
  return marks.slice(0, items.length);
}
