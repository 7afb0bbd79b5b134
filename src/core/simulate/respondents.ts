/**
 * Made-up respondents: each answers what they are presented, by the assumed answers. The same seed gives the same
 * people, whatever is worked out in between.
 */
import type { RandomGenerator } from 'pure-rand/types/RandomGenerator';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { columnsOf } from '../coding/columns';
import { QuickCoder } from '../coding/quick-row';
import { codedCells } from '../coding/row';
import { holds } from '../condition/evaluate';
import { passKey } from '../document/addresses';
import { optionsOf } from '../document/shape';
import type { Quota, Value } from '../document/types';
import { ENDINGS } from '../document/vocabularies';
import type { ShownParts } from '../routing/answers';
import { assumedAmong } from '../routing/assumed';
import { drawKey, drawQuestions, hash } from '../routing/draws';
import type { Plan, PlanSection } from '../routing/plan';
import { Runner, type Respondent } from '../routing/runner';
import type { RunnerItem, RunnerPart } from '../routing/runner-program';
import { walk } from '../routing/walk';
import { detailOf, drawAnswer, writeDetails } from './drawing';

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

/** What somebody said, in order: thought over again, an answer stands again. */
class Said {
  private readonly items: RunnerItem[] = [];
  private readonly parts: RunnerPart[] = [];
  private readonly values: (Value | null)[] = [];
  private known: MadeUp['answers'] | null = null;

  add(item: RunnerItem, part: RunnerPart, value: Value | null): void {
    this.items.push(item);
    this.parts.push(part);
    this.values.push(value);
  }

  /** By `name`, or `name#pass`: put together where somebody asks, which many rows never do. */
  get answers(): MadeUp['answers'] {
    if (this.known !== null) return this.known;
    const answers: Record<string, Value | null> = {};
    this.known = answers;
    this.parts.forEach(({ name, answer }, n) => {
      const { pass } = this.items[n] as RunnerItem;
      const value = this.values[n] ?? null;
      answers[passKey(name, pass)] = value;
      writeDetails(name, optionsOf(answer), pass, value, answers);
    });
    return answers;
  }
}

class Makers {
  private readonly runner: Runner;
  private readonly coder: QuickCoder;
  private readonly reached = new Map<string, number>();
  private readonly targets: ReadonlyMap<string, number>;
  private readonly allShown: readonly ShownParts[];

  /** `quotas`: those that can be full. */
  constructor(
    private readonly plan: Plan,
    quotas: readonly Quota[],
  ) {
    this.runner = new Runner(plan);
    this.coder = new QuickCoder(plan, this.runner);
    this.targets = new Map(quotas.map(({ id, target }) => [id, target]));
    this.allShown = (plan.document.given ?? []).map(({ answer }) => ({
      options: optionsOf(answer).map(() => true),
      rows: [],
    }));
  }

  make(name: string): MadeUp {
    const { plan, runner, coder } = this;
    const seed = hash(name);
    const random = xoroshiro128plus(seed);
    const said = new Said();
    const draws: Record<string, string[]> = {};
    const drawnIn = new Map<string, ReadonlySet<number>>();
    const entries = plan.document.given ?? [];
    const given = entries.map((entry, n) =>
      drawAnswer(random, { ...entry, required: true }, this.allShown[n] as ShownParts),
    );
    const respondent: Respondent = {
      meets: (item, shown, tries) => this.meets(item, shown, tries, random, said),
      isDrawn: ({ planItem, pass, drawKey: key }) => {
        let drawn = drawnIn.get(key ?? '');
        if (drawn === undefined) {
          const section = plan.sections[planItem.section] as PlanSection;
          drawn = drawQuestions(section, pass ?? 1, seed);
          drawnIn.set(key ?? '', drawn);
          draws[drawKey(section, pass ?? 1)] = [...drawn].map(
            (index) => section.items[index]?.item.name ?? '',
          );
        }
        return drawn.has(planItem.index);
      },
      isFull: (id) => (this.reached.get(id) ?? 0) >= (this.targets.get(id) ?? Infinity),
    };
    runner.clear();
    given.forEach((value, n) => {
      runner.put(runner.given[n] ?? -1, value);
    });
    const ended = runner.run(respondent);
    const presented = runner.itemsPresented().map(({ key }) => key);
    const ending = ended < 0 ? null : ended;
    const full = [...this.targets.keys()].filter((id) => respondent.isFull?.(id));
    const givenByName = Object.fromEntries(entries.map((entry, n) => [entry.name, given[n] as Value]));
    // Worked out now if at all: the runner goes on to the next.
    const row = ending === null ? null : coder.row(ending, detailOf);
    if (ending !== null) this.count(ending, said, givenByName, draws, full);
    return {
      ending,
      presented,
      get answers() {
        return said.answers;
      },
      given: givenByName,
      draws,
      row: () => row ?? stuckRow(plan, { answers: said.answers, given: givenByName, draws, full }),
    };
  }

  /** Somebody makes up their answers to an item, again where a hard check has refused the ones before. */
  private meets(
    item: RunnerItem,
    shown: ShownParts,
    tries: number,
    random: RandomGenerator,
    said: Said,
  ): boolean {
    const { item: of } = item.planItem;
    if (of.kind === 'statement' || tries > 2 * MOST_TRIES) return false;
    const { assume: assumed, required = false } = of;
    const assume =
      tries > MOST_TRIES || assumed === undefined
        ? undefined
        : assumedAmong(assumed, this.runner.assumedOf(item));
    for (let n = 0; n < item.parts.length; n += 1) {
      const part = item.parts[n] as RunnerPart;
      if (shown.rows[n] === false) continue;
      const value = drawAnswer(random, { answer: part.answer, assume, required }, shown);
      this.runner.put(part.slot, value);
      said.add(item, part, value);
    }
    return true;
  }

  /** Counts a finished interview towards its quotas. */
  private count(
    ending: number,
    said: Said,
    given: MadeUp['given'],
    draws: MadeUp['draws'],
    full: readonly string[],
  ): void {
    if (this.targets.size === 0) return;
    const kind = this.plan.endings[ending]?.ending.kind;
    if (kind === undefined || !ENDINGS[kind].counts) return;
    const result = walk(this.plan, { answers: said.answers, given, draws, full });
    // Of a questionnaire with errors, two parts of one name say, a walk can be refused: it counts towards none.
    if (!result.ok) return;
    for (const { planItem, pass } of result.walk.steps) {
      for (const { id, if: condition } of planItem.quotas) {
        if (holds(condition, result.walk.environment(planItem.section, pass)))
          this.reached.set(id, (this.reached.get(id) ?? 0) + 1);
      }
    }
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
