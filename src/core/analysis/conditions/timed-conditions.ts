/**
 * Conditions as diagrams, each noted with the moment at which it is read; where every part of a condition is looked into,
 * also whether the answers it names were asked for and left blank.
 */
import type { Condition } from '../../condition/syntax';
import type { Variable } from '../../document/variables';
import type { Plan } from '../../routing/plan';
import type { AnswerSymbol } from '../answers/answer-symbol';
import { pipedBy, variablesIn, type Drivers } from '../answers/drivers';
import type { Diagram } from '../diagrams/diagram';
import type { Viewpoint } from './answers-read';
import { itemIn, type Course, type Place } from './course';
import type { Encoder } from './encoder';
import type { LastUse } from './last-use';

export class TimedConditions {
  constructor(
    private readonly plan: Plan,
    private readonly symbols: ReadonlyMap<string, AnswerSymbol>,
    private readonly encoder: Encoder,
    private readonly lastUse: LastUse,
    /** Whether every part of a condition can be asked about. */
    private readonly parts: boolean,
  ) {}

  condition(node: Condition, standing: Viewpoint, moment: number): Diagram {
    if (this.parts) {
      const parts =
        node.kind === 'and' || node.kind === 'or' ? node.parts : node.kind === 'not' ? [node.part] : [];
      for (const part of parts) this.condition(part, standing, moment);
      for (const variable of variablesIn(node, this.plan)) this.matters(variable, standing, moment);
    }
    return this.lastUse.used(this.encoder.condition(node, standing), moment);
  }

  /** Of a variable as it is seen from a place: that it was asked for, and that it was then left blank. */
  statesOf(
    variable: Variable,
    standing: Viewpoint,
  ): { readonly asked: Diagram; readonly blank: Diagram } | null {
    const symbol = this.symbols.get(this.encoder.keyOf(variable, standing));
    return symbol === undefined
      ? null
      : {
          asked: symbol.predicate(({ presented }) => presented, `${variable.name} asked`),
          blank: symbol.predicate(
            ({ presented, value }) => presented && value === null,
            `${variable.name} unanswered`,
          ),
        };
  }

  /** Where parts matter: whether a variable was asked for and left blank can be told at a moment. */
  matters(variable: Variable, standing: Viewpoint, moment: number): void {
    const states = this.statesOf(variable, standing);
    if (states === null) return;
    this.lastUse.used(states.asked, moment);
    this.lastUse.used(states.blank, moment);
  }

  /** What is counted over passes is read at the end of each. */
  countedMatter(drivers: Drivers, { section, pass }: Place & { kind: 'end' }, at: number): void {
    for (const count of drivers.counts.values()) {
      if (count.section !== section) continue;
      for (const variable of variablesIn(count.condition, this.plan))
        this.matters(variable, { section, pass }, 2 * at);
    }
  }

  /** What pipes and derived values use, at the places where it shows. */
  pipesMatter(course: Course): void {
    course.places.forEach((place, at) => {
      if (place.kind === 'item') {
        const { planItem, pass } = itemIn(this.plan, place);
        for (const variable of pipedBy(this.plan, planItem))
          this.matters(variable, { section: place.section, pass }, 2 * at);
      } else if (place.kind === 'ending') {
        const outside = { section: this.plan.sections.length, pass: null };
        for (const { value, inputs } of this.plan.derived) {
          if (value === null) continue;
          for (const { variable, overPasses } of inputs)
            if (!overPasses) this.matters(variable, outside, 2 * at);
        }
      }
    });
  }
}
