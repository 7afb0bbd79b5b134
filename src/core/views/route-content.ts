/**
 * What a route presents to a respondent, as a fingerprint: the words, answers and messages, in order.
 *
 * A verdict is kept under it, so an edit re-opens just the routes on which something is shown differently;
 * renaming a variable or moving what a route does not meet changes none.
 */
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import type { Plan, PlanItem } from '../routing/plan';

/** SHA-256 of the route's content, in hexadecimal. */
export function routeFingerprint(plan: Plan, items: readonly string[], ending: string): string {
  const byName = new Map<string, PlanItem>();
  for (const section of plan.sections)
    for (const planItem of section.items) byName.set(planItem.item.name, planItem);
  const shown = items.map((key) => {
    const [name = '', pass] = key.split('#');
    return [presented(byName.get(name)), pass ?? null];
  });
  const end = plan.document.endings.find(({ id }) => id === ending);
  return bytesToHex(
    sha256(utf8ToBytes(JSON.stringify([shown, end?.kind, end?.messages.map(({ text }) => text), end?.next]))),
  );
}

/** What a respondent sees of an item: nothing of names, codes' meaning for routing, or conditions. */
function presented(planItem: PlanItem | undefined): unknown {
  if (planItem === undefined) return null;
  const { item } = planItem;
  if (item.kind === 'statement') return [item.text, item.image?.src];
  const { answer } = item;
  const rows = answer.type === 'grid' ? answer.rows.map(({ label }) => label) : [];
  const options = 'options' in answer ? answer.options : 'specials' in answer ? (answer.specials ?? []) : [];
  const { askIf: _, ...rest } = {
    askIf: undefined,
    ...answer,
    rows,
    options: options.map(({ askIf: __, ...option }) => option),
  };
  const checks = item.checks?.map(({ kind, message }) => [kind, message]);
  return [
    item.text,
    item.note,
    item.image?.src,
    item.required,
    item.requiredMessage,
    item.limitMessage,
    item.comment,
    rest,
    checks,
  ];
}
