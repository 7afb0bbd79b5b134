/**
 * Applying operations to a questionnaire that others may have changed since they were made.
 *
 * An operation applies where its part still holds what it was made on, or already holds what it makes. Any other is a
 * clash: both wrote in the same place, and somebody has to choose.
 */
import isEqual from 'fast-deep-equal';
import { enablePatches, produceWithPatches, type Patch } from 'immer';
import * as v from 'valibot';
import {
  listKey,
  ListSchema,
  partKey,
  PartSchema,
  readList,
  readPart,
  renamedPart,
  STUDY_LISTS,
  STUDY_PART,
  type ListKey,
  type PartKey,
} from '../document/addresses';
import { PROPERTY_NAMES } from '../document/properties';
import type { Questionnaire } from '../document/types';
import {
  itemsOf,
  LISTS_OF_ANSWER,
  listsOfItem,
  namedBy,
  operationsBetween,
  partsIn,
  valueOf,
  type DocumentPart,
  type Holder,
  type ListPosition,
  type Operation,
} from './operations';

// Here too: whoever applies operations need not have loaded what makes changes.
enablePatches();

export interface Clash {
  readonly operation: Operation;
  /** What is there now: of a property its value, of a part itself; undefined where there is none. */
  readonly theirs: unknown;
  /** The part itself is there no more. */
  readonly gone: boolean;
}

export interface Merged {
  readonly document: Questionnaire;
  /** Operations that were left out. */
  readonly clashes: readonly Clash[];
  readonly forward: readonly Patch[];
  readonly backward: readonly Patch[];
}

const SpotSchema = v.strictObject({ list: ListSchema, after: v.nullable(PartSchema) });
const Field = v.pipe(
  v.string(),
  v.check(
    (field) => field.split('.').length <= 2 && field.split('.').every((name) => PROPERTY_NAMES.has(name)),
    'a property of a questionnaire is meant',
  ),
);

/** What comes over the wire. Values are checked with the document that they make. */
export const OperationSchema: v.GenericSchema<unknown, Operation> = v.variant('do', [
  v.strictObject({
    do: v.literal('set'),
    part: PartSchema,
    field: Field,
    before: v.optional(v.unknown()),
    after: v.optional(v.unknown()),
  }),
  v.strictObject({
    do: v.literal('add'),
    part: PartSchema,
    to: SpotSchema,
    value: v.record(v.string(), v.unknown()),
  }),
  v.strictObject({ do: v.literal('remove'), part: PartSchema, value: v.unknown() }),
  v.strictObject({
    do: v.literal('move'),
    part: PartSchema,
    from: v.strictObject({ ...SpotSchema.entries, before: v.nullable(PartSchema) }),
    to: SpotSchema,
  }),
]);

/**
 * `force`: operations that apply whatever is there, because somebody has chosen so. `theirs`: what was done to the
 * document since the operations were made, where that is known, so that parts renamed by it are found.
 */
export function applyOperations(
  document: Questionnaire,
  operations: readonly Operation[],
  force: ReadonlySet<Operation> = new Set(),
  theirs: readonly Operation[] = [],
): Merged {
  const clashes: Clash[] = [];
  const [next, forward, backward] = produceWithPatches(document, (draft) => {
    const merge = new Merge(
      document as unknown as Holder,
      draft as unknown as Holder,
      renamesIn([...theirs, ...operations]),
    );
    for (const operation of operations) {
      const clash = merge.apply(operation, force.has(operation));
      if (clash !== null) clashes.push(clash);
    }
    merge.tidy();
  });
  return { document: next, clashes, forward, backward };
}

/** What turns the one document into the other, as patches in both directions. */
export function patchesBetween(
  before: Questionnaire,
  after: Questionnaire,
): Pick<Merged, 'forward' | 'backward'> {
  const { document, forward, backward } = applyOperations(before, operationsBetween(before, after));
  if (isEqual(document, after)) return { forward, backward };
  // Where names stand twice, parts cannot be told apart.
  const whole = (value: Questionnaire): Patch[] => [{ op: 'replace', path: [], value }];
  return { forward: whole(after), backward: whole(before) };
}

interface List {
  /** The list itself in the draft, made where it is absent; undefined where what held it is gone. */
  readonly values: () => Holder[] | undefined;
  /** The keys of what is in it, in order. */
  readonly keys: PartKey[];
  /**
   * What is in it, parallel to `keys`: by its place in the draft, or itself where it came from elsewhere. Null as long as the
   * draft is in order itself: that is rearranged once for all, since every step within a draft costs as much as it is long.
   */
  order: (number | Holder)[] | null;
}

/** Where every part is, found without opening the draft: that is done only for parts that are changed. */
class Merge {
  /** The list that each part is in. */
  private readonly homes = new Map<PartKey, ListKey>();
  private readonly lists = new Map<ListKey, List>();
  /** What stood beside each part before anything was applied. */
  private readonly neighbours = new Map<PartKey, readonly [PartKey | null, PartKey | null]>();
  private readonly touched = new Set<ListKey>();

  /** `renames`: old keys by new ones. What has its new name already is still called by the old one. */
  constructor(
    original: Holder,
    private readonly root: Holder,
    private readonly renames: ReadonlyMap<PartKey, PartKey>,
  ) {
    for (const list of Object.keys(STUDY_LISTS) as (keyof typeof STUDY_LISTS)[])
      this.addList(listKey(list), () => (root[list] ??= []) as Holder[], partsIn(list, original[list]));
    (original.sections as Holder[]).forEach((section, s) => {
      const key = this.lists.get(listKey('sections'))?.keys[s];
      if (key !== undefined) this.addItems(key, section);
    });
    for (const { keys } of this.lists.values())
      keys.forEach((key, n) => this.neighbours.set(key, [keys[n - 1] ?? null, keys[n + 1] ?? null]));
  }

  private addList(list: ListKey, values: List['values'], parts: readonly DocumentPart[]): void {
    const present = new Set(parts.map(({ key }) => key));
    const keys = parts.map(({ key }) => {
      const old = this.renames.get(key);
      return old === undefined || present.has(old) ? key : old;
    });
    this.lists.set(list, { values, keys, order: null });
    for (const key of keys) this.homes.set(key, list);
  }

  private addItems(key: PartKey, section: Holder): void {
    const list = listKey('items', readPart(key).name);
    this.settle(list);
    const items = itemsOf({ key, list: listKey('sections'), value: section });
    this.addList(list, () => this.value(key)?.items as Holder[] | undefined, items);
    items.forEach(({ key: item, value }, n) => this.addAnswers(this.lists.get(list)?.keys[n] ?? item, value));
  }

  private addAnswers(key: PartKey, item: Holder): void {
    const { kind, name: owner } = readPart(key);
    if (kind !== 'item') return;
    for (const name of LISTS_OF_ANSWER) this.settle(listKey(name, owner));
    const lists = listsOfItem(key, item);
    LISTS_OF_ANSWER.forEach((name, n) => {
      const values = () => {
        const answer = this.value(key)?.answer as Holder | undefined;
        return answer && ((answer[name] ??= []) as Holder[]);
      };
      this.addList(listKey(name, owner), values, lists[n] ?? []);
    });
  }

  /** The part itself, to be changed; undefined where there is none. */
  private value(key: PartKey): Holder | undefined {
    if (key === STUDY_PART) return this.root;
    const list = this.listOf(key);
    const at = list?.keys.indexOf(key) ?? -1;
    if (list === undefined || at < 0) return undefined;
    const entry = list.order === null ? at : list.order[at];
    return typeof entry === 'number' ? list.values()?.[entry] : entry;
  }

  private listOf(key: PartKey): List | undefined {
    const home = this.homes.get(key);
    return home === undefined ? undefined : this.lists.get(home);
  }

  private orderOf(list: List): (number | Holder)[] {
    return (list.order ??= list.keys.map((_, at) => at));
  }

  /** Null where it was applied, or had been. */
  apply(operation: Operation, forced: boolean): Clash | null {
    this.settleWithin(operation.part);
    const found = this.value(operation.part);
    const clash = (theirs: unknown, gone = false): Clash => ({ operation, theirs: plain(theirs), gone });
    switch (operation.do) {
      case 'set': {
        if (found === undefined) return clash(undefined, true);
        const now = plain(read(found, operation.field));
        if (isEqual(now, operation.after)) return null;
        if (!forced && !isEqual(now, operation.before)) return clash(now);
        write(found, operation.field, operation.after);
        if (operation.field === 'answer') {
          // Another answer: what was about to happen to the lists of the one before is over.
          const { name: owner } = readPart(operation.part);
          for (const name of LISTS_OF_ANSWER) this.lists.delete(listKey(name, owner));
          this.addAnswers(operation.part, found);
        }
        return null;
      }
      case 'add': {
        const value = plain(operation.value) as Holder;
        if (this.lists.get(operation.to.list)?.values() === undefined) return clash(undefined, true);
        if (found !== undefined) {
          if (isEqual(valueOf(operation.part, plain(found) as Holder), value)) return null;
          if (!forced) return clash(found);
          this.take(operation.part);
        }
        this.put(operation.part, value, operation.to);
        return null;
      }
      case 'remove': {
        if (found === undefined) return null;
        if (!forced && !isEqual(plain(found), operation.value)) return clash(found);
        this.take(operation.part);
        return null;
      }
      case 'move': {
        const { from, to } = operation;
        if (found === undefined || this.lists.get(to.list)?.values() === undefined)
          return clash(undefined, true);
        const home = this.homes.get(operation.part);
        const keys = this.listOf(operation.part)?.keys ?? [];
        const before = keys[keys.indexOf(operation.part) - 1] ?? null;
        if (home === to.list && before === to.after) return null;
        const [left, right] = this.neighbours.get(operation.part) ?? [null, null];
        const stayed = home === from.list && (left === from.after || right === from.before);
        if (!forced && !stayed) return clash(valueOf(operation.part, found));
        this.take(operation.part);
        this.put(operation.part, found, to);
        return null;
      }
      default:
        return operation satisfies never;
    }
  }

  private take(key: PartKey): void {
    const home = this.homes.get(key);
    const list = this.listOf(key);
    if (home === undefined || list === undefined) return;
    const at = list.keys.indexOf(key);
    this.orderOf(list).splice(at, 1);
    list.keys.splice(at, 1);
    this.homes.delete(key);
    this.touched.add(home);
  }

  /** Behind what it is to follow; where that is gone, at the end. */
  private put(key: PartKey, value: Holder, { list: name, after }: ListPosition): void {
    const list = this.lists.get(name);
    const values = list?.values();
    if (list === undefined || values === undefined) return;
    const behind = after === null ? -1 : list.keys.indexOf(after);
    const at = after !== null && behind < 0 ? list.keys.length : behind + 1;
    this.orderOf(list).splice(at, 0, value);
    list.keys.splice(at, 0, key);
    this.homes.set(key, name);
    this.touched.add(name);
    if (readPart(key).kind === 'section') this.addItems(key, value);
    else this.addAnswers(key, value);
  }

  /** The lists of a part, so that it can be compared as a whole. */
  private settleWithin(key: PartKey): void {
    const { kind, name } = readPart(key);
    if (kind === 'item') for (const list of LISTS_OF_ANSWER) this.settle(listKey(list, name));
    if (kind !== 'section') return;
    const items = listKey('items', name);
    this.settle(items);
    for (const item of this.lists.get(items)?.keys ?? []) this.settleWithin(item);
  }

  /** Puts what is in a list in its order in the draft. */
  private settle(name: ListKey): void {
    const list = this.lists.get(name);
    // Asking for the values makes the list where it is absent.
    if (list === undefined || list.order === null) return;
    const values = list.values();
    if (values === undefined) return;
    const next = list.order.map((entry) => (typeof entry === 'number' ? values[entry] : entry));
    list.order = null;
    values.length = 0;
    for (const value of next) if (value !== undefined) values.push(value);
  }

  /** Puts everything in its place in the draft; lists that are absent where they are empty are taken away. */
  tidy(): void {
    for (const name of this.touched) this.settle(name);
    for (const name of this.touched) {
      const { list, owner } = readList(name);
      if (!['given', 'quotas', 'derived', 'specials'].includes(list)) continue;
      if (this.lists.get(name)?.values()?.length !== 0) continue;
      if (owner === null) delete this.root[list];
      else delete (this.value(partKey('item', owner))?.answer as Holder | undefined)?.specials;
    }
  }
}

function renamesIn(operations: readonly Operation[]): Map<PartKey, PartKey> {
  return new Map(
    operations.flatMap((operation): [PartKey, PartKey][] => {
      if (operation.do !== 'set' || operation.field !== namedBy(operation.part)) return [];
      const { part, before, after } = operation;
      const now = renamedPart(part, String(before), String(after));
      return now === null ? [] : [[now, part]];
    }),
  );
}

function read(value: Holder, field: string): unknown {
  const [outer = '', inner] = field.split('.');
  return inner === undefined ? value[outer] : (value[outer] as Holder | undefined)?.[inner];
}

function write(value: Holder, field: string, to: unknown): void {
  const [outer = '', inner] = field.split('.');
  const holder = inner === undefined ? value : ((value[outer] ??= {}) as Holder);
  const name = inner ?? outer;
  if (to === undefined) delete holder[name];
  else holder[name] = plain(to);
  if (outer === 'settings' && Object.keys(value.settings as Holder).length === 0) delete value.settings;
}

/** Of a draft, itself as plain JSON. */
function plain(value: unknown): unknown {
  return value === undefined ? undefined : (JSON.parse(JSON.stringify(value)) as unknown);
}
