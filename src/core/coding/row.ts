/**
 * The coded row of one walk: every column holds an answer or the code of the reason why there is none.
 *
 * Answers off the route never reach the row. Only specify texts and remarks can be empty.
 */
import type { Input } from '../condition/scope';
import { passKey } from '../document/addresses';
import { optionsOf } from '../document/shape';
import type { Answers, MissingReason, Question, Questionnaire, Value } from '../document/types';
import { isBlank, isMissingAnswer } from '../routing/answers';
import { drawKey } from '../routing/draws';
import type { Plan, PlanItem, PlanSection } from '../routing/plan';
import { passesOf } from '../routing/step';
import type { Walk, WalkStep } from '../routing/walk';
import { columnsOf, type Column, type ColumnSource, type ValueColumn } from './columns';

export interface Cell {
  readonly column: string;
  readonly value: number | string;
  /** Why there is no answer; null where there is one, or where an optional text is simply empty. */
  readonly reason: MissingReason | null;
}

/** What became of one item in one pass. */
export type Fate = 'presented' | 'not_drawn' | 'not_applicable' | 'not_reached';

/** One for each of `columns`, in their order. `answers`: all that were given, on the route or off it. */
export function codedCells(
  plan: Plan,
  walk: Walk,
  answers: Answers,
  columns: readonly Column[] = columnsOf(plan),
): Cell[] {
  return new Coder(plan, walk, answers).cells(columns);
}

/** The row as one object, column by column. */
export function codedRow(plan: Plan, walk: Walk, answers: Answers): Record<string, number | string> {
  return Object.fromEntries(codedCells(plan, walk, answers).map(({ column, value }) => [column, value]));
}

/** The code that stands for a reason in one variable's columns. */
export function missingCode(
  document: Questionnaire,
  question: Question | null,
  reason: MissingReason,
): number {
  const planned = document.missing.find((entry) => entry.reason === reason)?.code;
  return question?.missingCodes?.[reason] ?? planned ?? -1;
}

class Coder {
  private readonly steps: ReadonlyMap<string, WalkStep>;
  private readonly stoppedAt: WalkStep | null;
  private readonly passCounts = new Map<number, number | null>();

  constructor(
    private readonly plan: Plan,
    private readonly walk: Walk,
    private readonly answers: Answers,
  ) {
    this.steps = new Map(walk.steps.map((step) => [step.key, step]));
    this.stoppedAt = walk.ending === null ? (walk.steps.at(-1) ?? null) : null;
  }

  cells(columns: readonly Column[]): Cell[] {
    return columns.map((column) => {
      switch (column.kind) {
        case 'derived':
          return this.derived(column.name, column.index);
        case 'ending': {
          const { ending } = this.walk;
          const id = ending === null ? undefined : this.plan.endings[ending]?.ending.id;
          return id === undefined
            ? this.coded(column.name, null, 'not_reached')
            : { column: column.name, value: id, reason: null };
        }
        default:
          return this.valueCell(column);
      }
    });
  }

  private coded(column: string, question: Question | null, reason: MissingReason): Cell {
    return { column, value: missingCode(this.plan.document, question, reason), reason };
  }

  private valueCell(column: ValueColumn): Cell {
    const { source } = column;
    const optional = column.kind === 'specify' || column.kind === 'remark';
    if (source.of === 'given') return this.answered(column, this.walk.given[source.variable] ?? null);
    const fate = this.fateOf(source);
    if (fate !== 'presented') {
      if (optional) return { column: column.name, value: '', reason: null };
      return this.coded(column.name, source.question, fate);
    }
    return this.answered(column, this.answers[passKey(source.variable, source.pass)] ?? null);
  }

  private answered(column: ValueColumn, value: Value | null): Cell {
    const { source, name } = column;
    const question = source.of === 'item' ? source.question : null;
    const pass = source.of === 'item' ? source.pass : null;
    const cell = (of: number | string): Cell => ({ column: name, value: of, reason: null });
    const text = (key: string) => {
      const written = this.answers[passKey(key, pass)];
      return cell(typeof written === 'string' ? written : '');
    };
    if (column.kind === 'remark') return text(`${source.variable}_comment`);
    if (column.kind === 'specify') {
      const codes: readonly unknown[] = typeof value === 'object' && value !== null ? value : [value];
      return codes.includes(column.code) ? text(`${source.variable}_${column.code}_text`) : cell('');
    }
    if (value === null || isBlank(value)) return this.coded(name, question, 'no_answer');
    if (typeof value !== 'object') return cell(value);
    if (column.kind === 'place') {
      const placed = value[column.code - 1];
      return placed === undefined ? this.coded(name, question, 'no_answer') : cell(placed);
    }
    if (value.includes(column.code)) return cell(1);
    // A don't-know among picks says nothing of the other options: they carry its code instead of 0.
    const [only] = value;
    return cell(only !== undefined && isMissingAnswer(optionsOf(source.answer), value) ? only : 0);
  }

  private fateOf(source: ColumnSource & { of: 'item' }): Fate {
    const { planItem, pass, row } = source;
    const step = this.steps.get(passKey(planItem.item.name, pass));
    if (step !== undefined) return row === null || step.shown.rows[row] ? 'presented' : 'not_applicable';
    return fateUnpresented(this.plan, this.walk, this.stoppedAt, planItem, pass, (section) =>
      this.passCount(section),
    );
  }

  /** How many passes a section has or will have; null while the walk stopped before that is known. */
  private passCount(section: number): number | null {
    const known = this.passCounts.get(section);
    if (known !== undefined) return known;
    const count = passCountWhenStopped(this.plan, this.walk, this.stoppedAt, section);
    this.passCounts.set(section, count);
    return count;
  }

  private derived(column: string, index: number): Cell {
    const derived = this.plan.derived[index];
    const name = derived?.derived.name.toLowerCase() ?? '';
    const { value } = this.walk.environment(0, null).read(name);
    if (typeof value === 'number') return { column, value, reason: null };
    const fates = (derived?.inputs ?? []).flatMap((input) => this.inputFates(input));
    const reason = fates.includes('not_reached')
      ? 'not_reached'
      : fates.includes('presented')
        ? 'no_answer'
        : 'not_applicable';
    return this.coded(column, null, reason);
  }

  private inputFates({ variable }: Input): Fate[] {
    if (variable.of !== 'question' && variable.of !== 'row') return [];
    const section = this.plan.sections[variable.section] as PlanSection;
    const planItem = section.items.find(({ item }) => item === variable.question) as PlanItem;
    const row = variable.of === 'row' ? variable.grid.rows.indexOf(variable.row) : null;
    const passes =
      section.repeat === null ? [null] : Array.from({ length: section.repeat.max }, (_, p) => p + 1);
    const { question } = variable;
    return passes.map((pass) =>
      this.fateOf({
        of: 'item',
        planItem,
        question,
        row,
        variable: variable.name,
        answer: question.answer,
        pass,
      }),
    );
  }
}

function fateUnpresented(
  plan: Plan,
  walk: Walk,
  stop: WalkStep | null,
  planItem: PlanItem,
  pass: number | null,
  passCount: (section: number) => number | null,
): Fate {
  const section = plan.sections[planItem.section] as PlanSection;
  const here = pass ?? 1;
  const ahead = stop !== null && isAhead(planItem, here, stop);
  if (ahead) {
    if (section.repeat === null) return 'not_reached';
    const count = passCount(planItem.section);
    return count !== null && here > count ? 'not_applicable' : 'not_reached';
  }
  const timedOut = walk.steps.find(
    (step) =>
      step.departure?.by === 'time-out' &&
      step.planItem.section === planItem.section &&
      step.pass === pass &&
      step.planItem.index < planItem.index,
  );
  if (timedOut !== undefined) {
    const drawn = section.section.draw === undefined ? null : walk.drawn.get(drawKey(section, here));
    return drawn?.has(planItem.index) === false ? 'not_drawn' : 'not_reached';
  }
  const leftOut = walk.passedOver.some(
    ({ section: s, pass: p, item, why }) =>
      s === planItem.section && p === pass && item === planItem.index && why.because === 'not-drawn',
  );
  return leftOut ? 'not_drawn' : 'not_applicable';
}

/** Whether an item, in a pass, lies after the one at which the respondent stopped. */
function isAhead(planItem: PlanItem, pass: number, stop: WalkStep): boolean {
  const at = stop.planItem;
  if (planItem.section !== at.section) return planItem.section > at.section;
  const stopPass = stop.pass ?? 1;
  return pass !== stopPass ? pass > stopPass : planItem.index > at.index;
}

function passCountWhenStopped(plan: Plan, walk: Walk, stop: WalkStep | null, section: number): number | null {
  const { repeat } = plan.sections[section] as PlanSection;
  if (repeat === null) return 1;
  const { driver } = repeat;
  if (driver === null) return 0;
  if (driver.of === 'question' && stop !== null) {
    const home = plan.sections[driver.section] as PlanSection;
    const item = home.items.find((entry) => entry.item === driver.question) as PlanItem;
    if (isAhead(item, 1, stop)) return null;
    const { value } = walk.environment(section, null).read(driver.name.toLowerCase());
    if (item === stop.planItem && value === null) return null;
  }
  return passesOf(repeat, walk.environment(section, null)).count;
}
