/**
 * Of all routes only those on which a given way is taken (a skip, a quota, an onward entry) or an answer is given. Who
 * takes it is known at its place, so everybody else is left out there; in a repeat a hidden choice says in which pass it
 * is taken, and is held to it.
 */
import type { Condition } from '../../condition/syntax';
import type { Plan, PlanItem } from '../../routing/plan';
import type { Via } from '../answers/via';
import { FALSE, TRUE, type Diagram, type Diagrams } from '../diagrams/diagram';
import type { Course } from './course';
import type { Exit } from './exits';

/** The index of an answer, which is no skip that was written. */
const ANSWERED = -1;

export class ViaDiagrams {
  /** Where it can be taken, one a pass. */
  readonly places: readonly number[];
  readonly isOnward: boolean;
  /** Index among its list, as `Via` has it. */
  readonly index: number;
  private readonly list: NonNullable<Exit['by']>['list'];
  /** In a repeat: the variable of its being taken at a place. */
  private readonly chosen = new Map<number, number>();

  constructor(
    plan: Plan,
    private readonly diagrams: Diagrams,
    course: Course,
    private readonly way: Via,
  ) {
    const passes = (section: number) =>
      Array.from({ length: plan.sections[section]?.repeat?.max ?? 1 }, (_, n) => n + 1);
    this.isOnward = 'section' in way;
    if ('section' in way) {
      this.list = 'onward';
      this.index = way.onward;
      this.places = plan.sections.flatMap(({ section, index }) =>
        section.id === way.section ? [course.end(index, passes(index).length)] : [],
      );
      return;
    }
    const has = ({ item, quotas }: PlanItem) =>
      'quota' in way ? quotas.some(({ id }) => id === way.quota) : item.name === way.item;
    const found = plan.sections.flatMap(({ items }) => items).find(has);
    this.list = 'quota' in way ? 'quota' : 'skip';
    if ('quota' in way) this.index = found?.quotas.findIndex(({ id }) => id === way.quota) ?? -1;
    else this.index = 'skip' in way ? way.skip : ANSWERED;
    this.places = found
      ? passes(found.section).map((pass) => course.item(found.section, pass, found.index))
      : [];
  }

  /** The answer that is asked for; null where a way is. */
  get answers(): Condition | null {
    return 'answers' in this.way ? this.way.answers : null;
  }

  /** An answer as a way, which it is looked at as. */
  answered(when: Diagram, at: number): Exit {
    return { when, by: { list: this.list, index: this.index }, to: at };
  }

  /** The hidden choice that belongs to a place. */
  wantedAt(at: number): { meaning: string; take: (level: number) => void }[] {
    if (this.places.length < 2 || !this.places.includes(at)) return [];
    const meaning = `taken ${JSON.stringify(this.way)} ${this.places.indexOf(at)}`;
    return [{ meaning, take: (level) => this.chosen.set(at, level) }];
  }

  /** That it is taken somewhere at all. */
  get somewhere(): Diagram {
    if (this.places.length === 1) return TRUE;
    return this.places.reduce((some, at) => this.diagrams.or(some, this.chosenAt(at)), FALSE);
  }

  /** What is true of those who pass by a place where it could be taken. */
  missedAt(at: number): Diagram {
    return this.places.includes(at) ? this.diagrams.not(this.chosenAt(at)) : TRUE;
  }

  /** The same of all places after one. */
  missedAfter(from: number): Diagram {
    return this.places.reduce(
      (all, at) => (at > from ? this.diagrams.and(all, this.missedAt(at)) : all),
      TRUE,
    );
  }

  /** What is true of those who are at a place: if it is to be taken there, it is, and no way before it. */
  takenAt(at: number, ways: readonly Exit[]): Diagram {
    const { diagrams } = this;
    let rest = TRUE;
    for (const { when, by } of ways) {
      if (by?.list === this.list && by.index === this.index)
        return diagrams.or(diagrams.not(this.chosenAt(at)), diagrams.and(rest, when));
      rest = diagrams.and(rest, diagrams.not(when));
    }
    return diagrams.not(this.chosenAt(at));
  }

  private chosenAt(at: number): Diagram {
    const level = this.chosen.get(at);
    return level === undefined ? TRUE : this.diagrams.variable(level);
  }
}
