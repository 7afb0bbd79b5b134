/**
 * Made-up respondents: each answers what they are presented, by the assumed answers. The same seed gives the same
 * people, whatever is worked out in between.
 */
import type { RandomGenerator } from 'pure-rand/types/RandomGenerator';
import { columnsOf } from '../coding/columns';
import { QuickCoder } from '../coding/quick-row';
import { codedCells } from '../coding/row';
import { passKey } from '../document/addresses';
import { optionsOf } from '../document/shape';
import type { AssumedShares, Given, Quota, Value } from '../document/types';
import { ENDINGS } from '../document/vocabularies';
import type { ShownParts } from '../routing/answers';
import { assumedAmong } from '../routing/assumed';
import { generatorOf, hash } from '../routing/chance';
import { drawQuestions } from '../routing/draws';
import type { Plan, PlanSection } from '../routing/plan';
import { Runner, type Respondent } from '../routing/runner';
import type { RunnerItem, RunnerPart } from '../routing/runner-program';
import { walk } from '../routing/walk';
import { detailOf, drawerOf, writeDetails, type Drawer } from './drawing';

export interface MadeUp {
  /** Index among the endings; null where they are stuck part-way. */
  readonly ending: number | null;
  /** `name`, or `name#pass`. */
  readonly presented: readonly string[];
  /** By `name`, or `name#pass`; with the words of what was to be specified. */
  readonly answers: Readonly<Record<string, Value | null>>;
  readonly given: Readonly<Record<string, Value>>;
  readonly draws: Readonly<Record<string, readonly string[]>>;
  /** The coded row, in the order of `columnsOf`. */
  row(): readonly (number | string)[];
}

/** Answers that break a hard check are thought over again, as often as this; then any answer will do, as often. */
const MOST_TRIES = 200;

/** One after the other; a quota is full once its target of interviews is complete, unless all stay open. */
export function* madeUpRespondents(
  plan: Plan,
  count: number,
  seed: number,
  { quotas }: { readonly quotas: 'fill' | 'open' } = { quotas: 'fill' },
): Generator<MadeUp> {
  const makers = new Makers(plan, quotas === 'fill' ? (plan.document.quotas ?? []) : []);
  for (let n = 1; n <= count; n += 1) yield makers.make(`${seed}/${n}`);
}

/** What somebody said, in order: thought over again, an answer stands again. Kept from one respondent to the next. */
class Said {
  private readonly items: RunnerItem[] = [];
  private readonly parts: RunnerPart[] = [];
  private readonly values: (Value | null)[] = [];
  private count = 0;

  clear(): void {
    this.count = 0;
  }

  add(item: RunnerItem, part: RunnerPart, value: Value | null): void {
    const { count } = this;
    this.items[count] = item;
    this.parts[count] = part;
    this.values[count] = value;
    this.count += 1;
  }

  /** What gives the answers by `name`, or `name#pass`, also once others have spoken: many rows are never asked for them. */
  keeping(): () => MadeUp['answers'] {
    const items = this.items.slice(0, this.count);
    const parts = this.parts.slice(0, this.count);
    const values = this.values.slice(0, this.count);
    return () => {
      const answers: Record<string, Value | null> = {};
      parts.forEach(({ name, answer }, n) => {
        const { pass } = items[n] as RunnerItem;
        const value = values[n] ?? null;
        answers[passKey(name, pass)] = value;
        writeDetails(name, optionsOf(answer), pass, value, answers);
      });
      return answers;
    };
  }
}

/** One of them, what is asked of them put together when it is asked for. */
class Person implements MadeUp {
  private known: MadeUp['answers'] | null = null;

  constructor(
    readonly ending: number | null,
    private readonly items: readonly RunnerItem[],
    private readonly said: () => MadeUp['answers'],
    readonly given: MadeUp['given'],
    readonly draws: MadeUp['draws'],
    private readonly coded: readonly (number | string)[] | ((person: MadeUp) => readonly (number | string)[]),
  ) {}

  get presented(): readonly string[] {
    return this.items.map(({ key }) => key);
  }

  get answers(): MadeUp['answers'] {
    return (this.known ??= this.said());
  }

  // On its own: `{ row }` of a person gives the row as well.
  readonly row = () => (typeof this.coded === 'function' ? this.coded(this) : this.coded);
}

/** Of an item, what draws each of its parts: where nothing but an even chance will do, and as is assumed of whom. */
interface ItemDrawers {
  readonly even: readonly Drawer[];
  readonly ofTheRest: readonly Drawer[];
  /** By index of the condition of those of whom other shares are assumed. */
  readonly where: readonly (readonly Drawer[])[];
}

function drawersFor({ planItem: { item }, parts }: RunnerItem): ItemDrawers {
  const { assume, required = false } = item.kind === 'question' ? item : {};
  const under = (shares: AssumedShares | undefined) =>
    parts.map(({ answer }) => drawerOf({ answer, assume: shares, required }));
  return {
    even: under(undefined),
    ofTheRest: under(assume),
    where: assume === undefined ? [] : (assume.where ?? []).map((_, n) => under(assumedAmong(assume, n))),
  };
}

/** Makes them up one after the other; tells the runner what they answer. */
class Makers implements Respondent {
  private readonly runner: Runner;
  private readonly coder: QuickCoder;
  private readonly reached = new Map<string, number>();
  private readonly targets: ReadonlyMap<string, number>;
  private readonly entries: readonly Given[];
  private readonly givenDrawers: readonly Drawer[];
  /** By item of the program. */
  private readonly drawers: readonly ItemDrawers[];
  private readonly said = new Said();
  // Of whoever is made up now:
  private seed = 0;
  private random: RandomGenerator = generatorOf('');
  /** By draw key. */
  private readonly drawnIn = new Map<string, { section: PlanSection; drawn: ReadonlySet<number> }>();

  /** `quotas`: those that can be full. */
  constructor(
    private readonly plan: Plan,
    quotas: readonly Quota[],
  ) {
    this.runner = new Runner(plan);
    this.coder = new QuickCoder(plan, this.runner);
    this.targets = new Map(quotas.map(({ id, target }) => [id, target]));
    this.entries = plan.document.given ?? [];
    this.givenDrawers = this.entries.map((entry) => drawerOf({ ...entry, required: true }));
    this.drawers = this.runner.items.map(drawersFor);
  }

  make(name: string): MadeUp {
    const { plan, runner, said } = this;
    this.seed = hash(name);
    this.random = generatorOf(name);
    this.drawnIn.clear();
    said.clear();
    runner.clear();
    const given: Record<string, Value> = {};
    this.entries.forEach(({ name: of }, n) => {
      const value = this.givenDrawers[n]?.(this.random, null) ?? null;
      given[of] = value as Value;
      runner.put(runner.given[n] ?? -1, value);
    });
    const ended = runner.run(this);
    const presented = runner.itemsPresented();
    const answers = said.keeping();
    const draws = this.draws();
    if (ended < 0) {
      const full = [...this.targets.keys()].filter((id) => this.isFull(id));
      return new Person(null, presented, answers, given, draws, (person) =>
        stuckRow(plan, { answers: person.answers, given, draws, full }),
      );
    }
    // Coded now: the runner goes on to the next.
    const row = this.coder.row(ended, detailOf);
    this.count(ended);
    return new Person(ended, presented, answers, given, draws, row);
  }

  isFull(quota: string): boolean {
    return (this.reached.get(quota) ?? 0) >= (this.targets.get(quota) ?? Infinity);
  }

  isDrawn({ planItem, pass, drawKey }: RunnerItem): boolean {
    let draw = this.drawnIn.get(drawKey ?? '');
    if (draw === undefined) {
      const section = this.plan.sections[planItem.section] as PlanSection;
      draw = { section, drawn: drawQuestions(section, pass ?? 1, this.seed) };
      this.drawnIn.set(drawKey ?? '', draw);
    }
    return draw.drawn.has(planItem.index);
  }

  /** Somebody makes up their answers to an item, again where a hard check has refused the ones before. */
  meets(item: RunnerItem, shown: ShownParts, tries: number): boolean {
    if (item.parts.length === 0 || tries > 2 * MOST_TRIES) return false;
    const drawers = this.drawersOf(item, tries);
    const options = item.hasConditionalOptions ? shown.options : null;
    for (let n = 0; n < item.parts.length; n += 1) {
      if (shown.rows[n] === false) continue;
      const part = item.parts[n] as RunnerPart;
      const value = (drawers[n] as Drawer)(this.random, options);
      this.runner.put(part.slot, value);
      this.said.add(item, part, value);
    }
    return true;
  }

  private drawersOf(item: RunnerItem, tries: number): readonly Drawer[] {
    const { even, ofTheRest, where } = this.drawers[item.index] as ItemDrawers;
    if (tries > MOST_TRIES) return even;
    const among = where.length === 0 ? null : this.runner.assumedOf(item);
    return (among === null ? undefined : where[among]) ?? ofTheRest;
  }

  private draws(): MadeUp['draws'] {
    const draws: Record<string, string[]> = {};
    for (const [key, { section, drawn }] of this.drawnIn)
      draws[key] = [...drawn].map((index) => section.items[index]?.item.name ?? '');
    return draws;
  }

  /** Counts a finished interview towards its quotas. */
  private count(ending: number): void {
    if (this.targets.size === 0) return;
    const kind = this.plan.endings[ending]?.ending.kind;
    if (kind === undefined || !ENDINGS[kind].counts) return;
    for (const id of this.runner.quotasMet()) this.reached.set(id, (this.reached.get(id) ?? 0) + 1);
  }
}

function stuckRow(
  plan: Plan,
  input: Pick<MadeUp, 'answers' | 'given' | 'draws'> & { readonly full: readonly string[] },
): readonly (number | string)[] {
  const result = walk(plan, input);
  if (!result.ok) return columnsOf(plan).map(() => '');
  return codedCells(plan, result.walk, input.answers).map(({ value }) => value);
}
