/** People who answered: what they say of the shares of answers, and how many of them were asked what. */
import { holds } from '../../condition/evaluate';
import { passKey } from '../../document/addresses';
import type { Answer, Answers, Assume, AssumedShares, Value } from '../../document/types';
import { isBlank } from '../../routing/answers';
import type { Plan } from '../../routing/plan';
import type { Walk, WalkStep } from '../../routing/walk';
import { groupKey } from '../groups';
import { sharesAmong, type SeenShares } from './seen-shares';

export interface SeenSample {
  /** Who started. */
  readonly people: number;
  /** More of them could not be read, and count nowhere. */
  readonly leftOut: number;
  /** By the name of the question or of what is known beforehand; what nobody was asked is left out. */
  readonly shares: ReadonlyMap<string, SeenShares>;
  /** By `groupKey`: who was presented an item, in a pass, or at all; anything of a section; who came to an ending. */
  readonly bases: ReadonlyMap<string, number>;
}

interface Seen {
  readonly answer: Answer;
  readonly values: Value[];
  blanks: number;
  base: number;
}

/** Reads one respondent after the other. */
export class SampleReader {
  private people = 0;
  private leftOut = 0;
  /** By name; of all, and of those of whom other shares are assumed than of the rest. */
  private readonly seen = new Map<string, { readonly all: Seen; readonly among: Map<number | null, Seen> }>();
  private readonly bases = new Map<string, number>();

  constructor(private readonly plan: Plan) {}

  leaveOut(): void {
    this.leftOut += 1;
  }

  /** `answered`: those steps of the walk at which an answer was given, or left blank. */
  read(walk: Walk, answers: Answers, answered: readonly WalkStep[]): void {
    this.people += 1;
    const { plan } = this;
    for (const { name, answer, random } of plan.document.given ?? [])
      // What chance allots is settled by the questionnaire.
      if (!random && walk.given[name] !== undefined)
        this.note(name, answer, null, [walk.given[name] ?? null]);
    for (const { planItem, parts, pass } of answered) {
      const { item, assumedIf, section } = planItem;
      if (item.kind === 'statement') continue;
      const values = parts.map(({ name }) => answers[passKey(name, pass)] ?? null);
      const where = assumedIf.findIndex((condition) => holds(condition, walk.environment(section, pass)));
      // The rows of a grid are answered alike.
      const [first] = parts;
      if (first !== undefined) this.note(item.name, first.answer, where < 0 ? null : where, values);
    }
    this.count(walk);
  }

  private count({ steps, ending }: Walk): void {
    const { plan } = this;
    const met = new Set<string>();
    for (const { planItem, key } of steps) {
      met.add(groupKey({ section: plan.sections[planItem.section]?.section.id ?? '' }));
      met.add(planItem.item.name);
      met.add(key);
    }
    if (ending !== null) met.add(groupKey({ ending: plan.endings[ending]?.ending.id ?? '' }));
    for (const key of met) this.bases.set(key, (this.bases.get(key) ?? 0) + 1);
  }

  private note(name: string, answer: Answer, where: number | null, values: readonly (Value | null)[]): void {
    const empty = (): Seen => ({ answer, values: [], blanks: 0, base: 0 });
    const of = this.seen.get(name) ?? { all: empty(), among: new Map<number | null, Seen>() };
    this.seen.set(name, of);
    const some = of.among.get(where) ?? empty();
    of.among.set(where, some);
    for (const each of [of.all, some]) {
      each.base += 1;
      for (const value of values)
        if (value === null || isBlank(value)) each.blanks += 1;
        else each.values.push(value);
    }
  }

  get sample(): SeenSample {
    return {
      people: this.people,
      leftOut: this.leftOut,
      bases: this.bases,
      shares: new Map(
        [...this.seen].map(([name, { all, among }]): [string, SeenShares] => [
          name,
          { base: all.base, assume: this.assumed(name, all, among) },
        ]),
      ),
    };
  }

  /** With the shares of those of whom others are assumed; of whom nobody was seen, what is assumed stands. */
  private assumed(name: string, all: Seen, among: ReadonlyMap<number | null, Seen>): Assume {
    const shares = ({ answer, values, blanks }: Seen): AssumedShares => sharesAmong(answer, values, blanks);
    const apart = this.apartAt(name);
    const rest = shares(among.get(null) ?? all);
    if (apart.length === 0) return rest;
    const where = apart.map((of, n) => {
      const found = among.get(n);
      return found === undefined ? of : { ...shares(found), if: of.if };
    });
    return { ...rest, where };
  }

  private apartAt(name: string): NonNullable<Assume['where']> {
    for (const { items } of this.plan.document.sections)
      for (const item of items)
        if (item.kind === 'question' && item.name === name) return item.assume?.where ?? [];
    return [];
  }
}
