/**
 * A value that came anew, as a questionnaire from another thread does, with every part that it had before as the object that
 * it was then: so what is kept by part (plans of sections, pipes, answers allowed) is found again.
 */

/** Names by which parts of a list are known, whatever their place; as the schema has them. */
const NAMED_BY = ['name', 'id', 'code'] as const;

/** Equal to `now`. `before`, `now`: as JSON has them; neither is changed. */
export function withPartsOf<Value>(before: unknown, now: Value): Value {
  return shared(before, now) as Value;
}

function shared(before: unknown, now: unknown): unknown {
  if (typeof now !== 'object' || now === null || typeof before !== 'object' || before === null) return now;
  if (isAlike(before, now)) return before;
  if (Array.isArray(now)) {
    const list = Array.isArray(before) ? (before as readonly unknown[]) : [];
    const named = new Map(list.map((part) => [nameOf(part), part]));
    return now.map((part, n) => {
      const name = nameOf(part);
      return shared(name === null ? list[n] : named.get(name), part);
    });
  }
  return Object.fromEntries(
    Object.entries(now).map(([name, part]) => [name, shared(ownOf(before, name), part)]),
  );
}

/** With properties in the same order, too: it is what a file is written in. */
function isAlike(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  const [names, others] = [Object.keys(a), Object.keys(b)];
  return (
    names.length === others.length &&
    names.every((name, n) => name === others[n] && isAlike(ownOf(a, name), ownOf(b, name)))
  );
}

/** What a part has of its own: some names mean something on every object. */
function ownOf(part: object, name: string): unknown {
  return Object.hasOwn(part, name) ? (part as Record<string, unknown>)[name] : undefined;
}

function nameOf(part: unknown): string | null {
  if (typeof part !== 'object' || part === null) return null;
  const key = NAMED_BY.find((each) => each in part);
  return key === undefined ? null : `${key} ${String(ownOf(part, key))}`;
}
