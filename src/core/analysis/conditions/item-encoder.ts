/** An item at a place as diagrams: who is asked it, what of it is shown, and what leads on from it. */
import type { Condition } from '../../condition/syntax';
import { passKey } from '../../document/addresses';
import { hasRows } from '../../document/answer-types';
import { partsAtMost } from '../../routing/answers';
import type { Plan, PlanItem, PlanSkip } from '../../routing/plan';
import { FALSE, TRUE, type Diagram, type Diagrams } from '../diagrams/diagram';
import type { Viewpoint } from './answers-read';
import { itemIn, type Course, type Place } from './course';
import type { Encoder } from './encoder';
import type { ConditionalPart, EncodedItem, Exit } from './exits';
import type { LastUse } from './last-use';
import type { SymbolTable } from './symbol-table';
import type { TimedConditions } from './timed-conditions';

export class ItemEncoder {
  constructor(
    private readonly plan: Plan,
    private readonly diagrams: Diagrams,
    private readonly course: Course,
    private readonly table: SymbolTable,
    private readonly encoder: Encoder,
    private readonly conditions: TimedConditions,
    private readonly lastUse: LastUse,
    private readonly withAssumed: boolean,
  ) {}

  encode(place: Place & { kind: 'item' }, at: number): EncodedItem {
    const { planItem, pass } = itemIn(this.plan, place);
    const standing = { section: place.section, pass };
    const [arriving, leaving] = [2 * at, 2 * at + 1];
    const askIf =
      planItem.askIf === null ? TRUE : this.conditions.condition(planItem.askIf, standing, arriving);
    const drawn = this.table.drawnLevel.get(at);
    const inDraw = drawn === undefined ? TRUE : this.lastUse.used(this.diagrams.variable(drawn), arriving);
    const answerable = this.lastUse.used(this.answerable(planItem, standing), arriving);
    this.useShown(planItem, standing, leaving);
    const checks = planItem.checks
      .filter(({ kind }) => kind === 'hard')
      .reduce((all, check) => {
        const fails = this.conditions.condition(check.if, standing, leaving);
        return this.diagrams.and(all, this.diagrams.not(fails));
      }, TRUE);
    const quotas = planItem.quotas.map(({ id, if: condition, to }, index): Exit => {
      const full = this.lastUse.used(this.diagrams.variable(this.table.fullLevel.get(id) as number), leaving);
      return {
        when: this.diagrams.and(this.conditions.condition(condition, standing, leaving), full),
        by: { list: 'quota', index },
        to: this.course.aim(to, place.section, place.pass),
      };
    });
    const skips = planItem.skips.map((skip) => this.exit(skip, 'skip', place, standing, leaving));
    const assumedIf = this.withAssumed
      ? planItem.assumedIf.map((condition) => this.conditions.condition(condition, standing, leaving))
      : [];
    const symbols = partsAtMost(planItem).flatMap(
      ({ name }) => this.table.symbols.get(passKey(name.toLowerCase(), pass)) ?? [],
    );
    return {
      asked: this.diagrams.and(this.diagrams.and(askIf, inDraw), answerable),
      askIf,
      shown: this.conditional(planItem, standing),
      ways: [...quotas, ...skips],
      checks,
      assumedIf,
      symbols,
      planItem,
      pass,
    };
  }

  /** The way on that is written as a skip, or as an onward entry. */
  exit(
    { index, if: condition, to }: PlanSkip,
    list: 'skip' | 'onward',
    from: { readonly section: number; readonly pass: number },
    standing: Viewpoint,
    moment: number,
  ): Exit {
    return {
      when: condition === null ? TRUE : this.conditions.condition(condition, standing, moment),
      by: { list, index },
      to: this.course.aim(to, from.section, from.pass),
    };
  }

  /** When each option (or special) of an item is shown. */
  optionsShown({ optionIf, section }: PlanItem, pass: number | null): Diagram[] {
    return optionIf.map((condition) => this.shown(condition, { section, pass }));
  }

  rowsShown({ rowIf, section }: PlanItem, pass: number | null): Diagram[] {
    return rowIf.map((condition) => this.shown(condition, { section, pass }));
  }

  /** Something but `missing` options is left to answer with. */
  private answerable({ item, optionIf, rowIf }: PlanItem, standing: Viewpoint): Diagram {
    if (item.kind === 'statement' || !('options' in item.answer)) return TRUE;
    const any = (conditions: readonly (Condition | null)[], counts: (index: number) => boolean) =>
      conditions.reduce(
        (some, condition, index) =>
          counts(index) ? this.diagrams.or(some, this.shown(condition, standing)) : some,
        FALSE,
      );
    const { answer } = item;
    const options = any(optionIf, (index) => answer.options[index]?.missing === undefined);
    return hasRows(answer)
      ? this.diagrams.and(
          options,
          any(rowIf, () => true),
        )
      : options;
  }

  private shown(condition: Condition | null, standing: Viewpoint): Diagram {
    return condition === null ? TRUE : this.encoder.condition(condition, standing);
  }

  private conditional({ optionIf, rowIf }: PlanItem, standing: Viewpoint): ConditionalPart[] {
    const of = (kind: ConditionalPart['of'], conditions: readonly (Condition | null)[]) =>
      conditions.flatMap((condition, index): ConditionalPart[] =>
        condition === null ? [] : [{ of: kind, index, when: this.shown(condition, standing) }],
      );
    return [...of('option', optionIf), ...of('row', rowIf)];
  }

  private useShown({ optionIf, rowIf }: PlanItem, standing: Viewpoint, moment: number): void {
    for (const condition of [...optionIf, ...rowIf])
      if (condition !== null) this.conditions.condition(condition, standing, moment);
  }
}
