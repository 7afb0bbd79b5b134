/** What the ledger lists, as it stands in the address: a link opens just these routes. */
import * as v from 'valibot';
import { address, parsePassCount, parseWay, passKey } from '../../core/document/addresses';
import type { Plan } from '../../core/routing/plan';
import { answerAsked } from '../../core/views/answers-asked';
import { ALL_ROUTES, ORDERS, type ListOrder, type ListQuery } from '../../worker/list-query';

/** Since when an edit counts as having touched a route. */
export type Since = 'edit' | 'opened';

/** Which verdicts the routes have that are listed; null: all. */
export type VerdictFilter = 'open' | 'walked' | 'changed' | 'drawn';

export interface RoutesShown {
  /** `NAME` of an item, or `section:ID`. */
  readonly through: readonly string[];
  readonly avoid: readonly string[];
  readonly ending: string | null;
  /** `NAME/INDEX` of a skip, `section:ID/INDEX` of an onward entry. */
  readonly taking: readonly string[];
  /** Conditions that read one question each. */
  readonly answering: readonly string[];
  /** `ID/COUNT`: so many passes of a repeated section. */
  readonly passes: readonly string[];
  readonly order: ListOrder;
  readonly folded: boolean;
  readonly since: Since | null;
  readonly verdict: VerdictFilter | null;
}

const Text = v.optional(v.string(), '');
const ListText = v.pipe(
  Text,
  v.transform((text) => text.split(',').filter((part) => part !== '')),
);
const ShownSchema = v.object({
  through: ListText,
  avoid: ListText,
  ending: v.optional(v.nullable(v.string()), null),
  taking: ListText,
  // A comma stands in conditions, a semicolon in none.
  answering: v.pipe(
    Text,
    v.transform((text) => text.split(';').filter((part) => part !== '')),
  ),
  passes: ListText,
  order: v.fallback(v.picklist(ORDERS), 'canonical'),
  folded: v.pipe(
    Text,
    v.transform((text) => text === 'drawn'),
  ),
  since: v.fallback(v.nullable(v.picklist(['edit', 'opened'])), null),
  verdict: v.fallback(v.nullable(v.picklist(['open', 'walked', 'changed', 'drawn'])), null),
});

/** Reads the address; what it does not understand is left out. */
export function readShown(search: string): RoutesShown {
  return v.parse(ShownSchema, Object.fromEntries(new URLSearchParams(search)));
}

/** As an address, with the leading question mark; empty where everything is listed. */
export function shownSearch(shown: Partial<RoutesShown>): string {
  const search = new URLSearchParams();
  for (const key of ['through', 'avoid', 'taking', 'answering', 'passes'] as const) {
    const list = shown[key] ?? [];
    if (list.length > 0) search.set(key, list.join(key === 'answering' ? ';' : ','));
  }
  for (const key of ['ending', 'since', 'verdict'] as const) {
    const value = shown[key];
    if (value) search.set(key, value);
  }
  if (shown.order !== undefined && shown.order !== 'canonical') search.set('order', shown.order);
  if (shown.folded === true) search.set('folded', 'drawn');
  const text = search.toString().replaceAll('%2C', ',').replaceAll('%3A', ':').replaceAll('%2F', '/');
  return text === '' ? '' : `?${text}`;
}

/** The part that the worker is asked for; what the questionnaire does not have any more is left out. */
export function listQuery(plan: Plan, shown: RoutesShown): ListQuery {
  const itemsOf = (place: string): string[] => {
    const section = plan.sections.find(({ section: { id } }) => place === address('section', id));
    if (section !== undefined) return section.items.map(({ item }) => item.name);
    return itemNames(plan).includes(place) ? [place] : [];
  };
  const passes = shown.passes.flatMap((text) => readPasses(plan, text) ?? []);
  return {
    ...ALL_ROUTES,
    through: [...shown.through.map(itemsOf), ...passes.map(({ through }) => through)].filter(
      (names) => names.length > 0,
    ),
    avoid: [...shown.avoid.flatMap(itemsOf), ...passes.flatMap(({ avoid }) => avoid)],
    ending: plan.endings.some(({ ending }) => ending.id === shown.ending) ? shown.ending : null,
    taking: shown.taking.flatMap((text) => readTaking(plan, text) ?? []),
    answering: shown.answering.filter((text) => answerAsked(plan, text).ok),
    order: shown.order,
    folded: shown.folded,
    touched: shown.since !== null,
  };
}

/** So many passes: something of the last one is presented, and nothing of a later one. */
function readPasses(plan: Plan, text: string): { through: string[]; avoid: string[] } | null {
  const { section: id, count = NaN } = parsePassCount(text) ?? {};
  const section = plan.sections.find((each) => each.section.id === id);
  const max = section?.repeat?.max ?? 0;
  if (section === undefined || !(count >= 0 && count <= max)) return null;
  const inPass = (pass: number) => section.items.map(({ item }) => passKey(item.name, pass));
  const later = Array.from({ length: max - count }, (_, n) => inPass(count + n + 1));
  return { through: count === 0 ? [] : inPass(count), avoid: later.flat() };
}

function readTaking(plan: Plan, text: string): ListQuery['taking'][number] | null {
  const way = parseWay(text);
  if (way === null) return null;
  if ('section' in way) {
    const section = plan.sections.find(({ section: { id } }) => id === way.section);
    return section?.onward.some((entry) => entry.index === way.onward) ? way : null;
  }
  const item = plan.sections.flatMap(({ items }) => items).find((each) => each.item.name === way.item);
  return item?.skips.some((skip) => skip.index === way.skip) ? way : null;
}

export function itemNames(plan: Plan): string[] {
  return plan.sections.flatMap(({ items }) => items.map(({ item }) => item.name));
}
