/**
 * In how many passes of a repeat a condition holds: a running count, with a variable for its having come to 1, 2, … by
 * the end of each pass.
 */
import type { Condition } from '../../condition/syntax';
import type { Plan } from '../../routing/plan';
import { countKey, type Drivers } from '../answers/drivers';
import { TRUE, type Diagram, type Diagrams } from '../diagrams/diagram';
import type { Place } from './course';

/** How the end of a pass tells what a condition comes to in it. */
export interface PassesTold {
  /** That the pass was begun. */
  readonly begun: (section: number, pass: number) => Diagram;
  readonly condition: (condition: Condition, section: number, pass: number) => Diagram;
}

export class RunningCounts {
  private readonly kept = new Map<string, readonly number[]>();
  /** Where a tally is settled, by the level of each of its variables. */
  private readonly homes = new Map<number, number>();

  constructor(
    private readonly plan: Plan,
    private readonly diagrams: Diagrams,
    private readonly drivers: Drivers,
  ) {}

  /** The tallies to be kept at the end of a pass: what they mean, and what to do with the first level of each. */
  wantedAt({ section, pass }: Place & { kind: 'end' }, at: number) {
    const most = this.plan.sections[section]?.repeat?.max ?? 1;
    return [...this.drivers.counts].flatMap(([key, count]) => {
      if (count.section !== section) return [];
      const steps = Math.max(1, Math.min(most, Math.floor(count.most) + 1));
      const take = (first: number) => {
        const levels = Array.from({ length: Math.min(steps, pass) }, (_, n) => first + n);
        this.kept.set(`${key} #${pass}`, levels);
        for (const level of levels) this.homes.set(level, at);
      };
      return [{ meaning: `count ${key} #${pass}`, take }];
    });
  }

  /** Where the variable of a tally is settled; undefined for others. */
  settledWith(level: number): number | undefined {
    return this.homes.get(level);
  }

  /** By number from 0: that the count over all passes has come to as much; null where none is kept. */
  total(section: number, condition: Condition): readonly Diagram[] | null {
    return this.by(countKey(section, condition), this.plan.sections[section]?.repeat?.max ?? 1);
  }

  /** What the tallies have come to at the end of a pass, whether it was run or passed over. */
  settle({ section, pass }: Place & { kind: 'end' }, told: PassesTold): Diagram {
    const { diagrams } = this;
    let result = TRUE;
    for (const [key, count] of this.drivers.counts) {
      const now = this.by(key, pass);
      if (count.section !== section || now === null) continue;
      const before = this.by(key, pass - 1) ?? [TRUE];
      const holds = diagrams.and(told.begun(section, pass), told.condition(count.condition, section, pass));
      now.forEach((reached, n) => {
        if (n === 0) return;
        const more = diagrams.and(holds, before[n - 1] ?? 0);
        const is = diagrams.or(before[n] ?? 0, more);
        result = diagrams.and(result, diagrams.choose(is, reached, diagrams.not(reached)));
      });
    }
    return result;
  }

  private by(key: string, pass: number): Diagram[] | null {
    const found = this.kept.get(`${key} #${pass}`);
    return found === undefined ? null : [TRUE, ...found.map((level) => this.diagrams.variable(level))];
  }
}
