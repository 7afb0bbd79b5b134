/**
 * What the tests of an answer mean, as a text: while it is the same, so is every class of its values and the truth of
 * every test of it, and what was worked out with them before an edit still holds.
 */
import { printCondition } from '../condition/print';
import { eachName, type Condition, type Operand } from '../condition/syntax';
import { routingText } from '../document/routing-content';
import type { Answer } from '../document/types';
import { pipedBy, type Driver } from './drivers';
import type { Plan, PlanSection } from '../routing/plan';

export class Meanings {
  /** By lower-case name: everything that reads the answer, in the order of the document. */
  private readonly uses = new Map<string, string[]>();

  constructor(private readonly plan: Plan) {
    for (const section of plan.sections) this.section(section);
    for (const { ending, messages } of plan.endings)
      for (const { if: condition } of messages) this.use(condition, `message ${ending.id}`);
    for (const { derived, value, cases } of plan.derived) {
      if (value !== null) this.names(value, `value ${routingText(derived)}`);
      for (const { if: condition } of cases ?? []) this.use(condition, `case ${routingText(derived)}`);
    }
  }

  /** Of an answer that a driver is tested for, in a pass. */
  of(driver: Driver, answer: Answer, key: string): string {
    const group = driver.group.filter((other) => other !== driver);
    return [
      key,
      driver.variable.name,
      driver.variable.of,
      routingText(answer),
      driver.copies,
      driver.repeats,
      ...(this.uses.get(driver.key) ?? []),
      ...this.owner(driver),
      ...group.flatMap((other) => [...(this.uses.get(other.key) ?? []), ...this.owner(other)]),
    ].join('\n');
  }

  /** What an item asks besides its answer: whether one has to be given, and which rows of a grid are shown. */
  private owner({ variable }: Driver): string[] {
    if (variable.of === 'given') return [routingText(variable.given)];
    if (variable.of === 'derived') return [routingText(variable.derived)];
    return [
      routingText([variable.question.answer, variable.question.required]),
      ...(variable.of === 'row' ? (this.uses.get(variable.question.name.toLowerCase()) ?? []) : []),
    ];
  }

  private section({ section, gate, repeat, items, onward }: PlanSection): void {
    const passes = repeat === null ? '' : `${section.id} ${routingText(section.repeat)} `;
    this.use(gate, 'gate');
    if (repeat?.driver) this.add(repeat.driver.name, `repeat ${passes}`);
    for (const planItem of items) {
      const { item, askIf, optionIf, rowIf, checks, quotas, skips } = planItem;
      if (repeat !== null) this.add(item.name, passes);
      for (const condition of [askIf, ...optionIf, ...rowIf]) this.use(condition, passes);
      for (const check of checks) this.use(check.if, `${passes}${check.kind}`);
      for (const { if: condition } of [...quotas, ...skips]) this.use(condition, passes);
      for (const { name } of pipedBy(this.plan, planItem)) this.add(name, `${passes}piped`);
    }
    for (const { if: condition } of onward) this.use(condition, 'onward');
  }

  private use(condition: Condition | null, where: string): void {
    if (condition !== null) this.names(condition, `${where} ${printCondition(condition)}`);
  }

  /** Notes a use under every name read, derived ones traced to what they are worked out from. */
  private names(node: Condition | Operand, use: string): void {
    eachName(node, ({ name }) => {
      const variable = this.plan.variables.get(name.toLowerCase());
      if (variable === undefined) return;
      this.add(name, use);
      if (variable.of !== 'derived') return;
      const text = `${use} by ${routingText(variable.derived)}`;
      for (const input of this.plan.derived[variable.index]?.inputs ?? [])
        this.add(input.variable.name, text);
    });
  }

  private add(name: string, use: string): void {
    const key = name.toLowerCase();
    const uses = this.uses.get(key);
    if (uses === undefined) this.uses.set(key, [use]);
    else uses.push(use);
  }
}
