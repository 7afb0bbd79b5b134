/** A form as it has been keyed so far: which fields the routing asks for, what the others hold, and the coded row. */
import { Auditor } from '../audit/auditor';
import { asManyAsDrawn, drawIn } from '../audit/draw-found';
import { anyAnswer } from '../audit/groups';
import type { RowProblem } from '../audit/types';
import { columnsOf, type Column } from '../coding/columns';
import { missingCode } from '../coding/row';
import { passKey } from '../document/addresses';
import { optionsOf } from '../document/shape';
import type { Answers, MissingReason, Value } from '../document/types';
import { isBlank, isMissingAnswer, type ShownParts } from '../routing/answers';
import { drawKey } from '../routing/draws';
import type { Plan, PlanSection } from '../routing/plan';
import { shownOf } from '../routing/step';
import { walk, type Walk, type WalkStep } from '../routing/walk';
import { keyFields, type KeyField } from './fields';

/** What the form is to hold at a field. */
export type FieldState =
  | { readonly is: 'asked'; readonly shown: ShownParts | null }
  /** The routing passes it over: the code that stands there. */
  | { readonly is: 'passed-over'; readonly reason: MissingReason; readonly code: number | '' };

export interface KeyedSheet {
  readonly walk: Walk;
  /** Parallel to the fields. */
  readonly states: readonly FieldState[];
  /** Index of the ending that the answers lead to, as far as they go. */
  readonly ending: number | null;
}

export class Keying {
  readonly fields: readonly KeyField[];
  readonly columns: readonly Column[];
  private readonly auditor: Auditor;

  constructor(readonly plan: Plan) {
    this.fields = keyFields(plan);
    this.columns = columnsOf(plan);
    this.auditor = new Auditor(plan, { codeBlanks: true });
  }

  /** By what has been keyed; a key that is not there has not been come to, null was left blank on the form. */
  sheet(answers: Answers): KeyedSheet {
    const { plan } = this;
    const result = walk(plan, {
      answers,
      given: Object.fromEntries(
        (plan.document.given ?? []).map(({ name, answer }) => [name, answers[name] ?? anyAnswer(answer)]),
      ),
      draws: this.drawsIn(answers),
      lenient: true,
    });
    if (!result.ok) throw new Error(result.problem);
    const steps = new Map(result.walk.steps.map((step) => [step.key, step]));
    const states = this.fields.map((field) => this.stateOf(field, answers, steps, result.walk));
    return { walk: result.walk, states, ending: result.walk.ending };
  }

  /** The next field that is asked and has not been keyed, after one of them or from the start; null where none is left. */
  nextOpen(answers: Answers, sheet: KeyedSheet, after: string | null): KeyField | null {
    const from = after === null ? 0 : this.fields.findIndex(({ key }) => key === after) + 1;
    const open = (field: KeyField, at: number) =>
      at >= from && sheet.states[at]?.is === 'asked' && !(field.key in answers);
    return this.fields.find(open) ?? null;
  }

  /** Fields that hold an answer though the routing passes them over. */
  flagged(answers: Answers, { states }: KeyedSheet): KeyField[] {
    return this.fields.filter(({ key }, at) => states[at]?.is === 'passed-over' && !isBlank(answers[key]));
  }

  /** Fields of required questions that were left blank, though the routing asks for them. */
  blanks(answers: Answers, { states }: KeyedSheet): KeyField[] {
    return this.fields.filter(
      ({ key, kind, question }, at) =>
        kind === 'answer' &&
        question.required === true &&
        states[at]?.is === 'asked' &&
        key in answers &&
        isBlank(answers[key]),
    );
  }

  /**
   * The row as it goes into the data, of a form keyed part-way as of somebody who stopped there, and what is wrong with
   * it. Answers off the route stay out of it; see `flagged`.
   */
  coded(answers: Answers): {
    readonly row: readonly (string | number)[];
    readonly problems: readonly RowProblem[];
  } {
    const sheet = this.sheet(answers);
    const aside = new Set(this.flagged(answers, sheet).map(({ key }) => key));
    const kept = Object.fromEntries(Object.entries(answers).filter(([key]) => !aside.has(key)));
    const isDone = this.nextOpen(answers, sheet, null) === null && sheet.ending !== null;
    const ending = isDone ? (this.plan.endings[sheet.ending ?? -1]?.ending.id ?? '') : '';
    const texts = this.columns.map((column) =>
      column.kind === 'ending' ? ending : this.cellText(column, kept),
    );
    const judged = this.auditor.judge(texts);
    const row: (string | number)[] = texts.slice();
    for (const { column, value } of judged.filled) row[column] = value;
    return { row, problems: judged.problems };
  }

  private stateOf(
    field: KeyField,
    answers: Answers,
    steps: ReadonlyMap<string, WalkStep>,
    walked: Walk,
  ): FieldState {
    if (field.planItem === null) return { is: 'asked', shown: null };
    const step = steps.get(field.passKey);
    const drawn = this.isOpenDraw(field, answers, walked);
    // What may have been drawn shows what it would show.
    const shown =
      step?.shown ??
      (drawn ? shownOf(field.planItem, walked.environment(field.planItem.section, field.pass)) : null);
    const rowShown = field.row === null || (shown?.rows[field.row] ?? false);
    const optionOpen = field.kind !== 'specify' || this.isPicked(field, answers);
    if (shown !== null && rowShown && optionOpen) return { is: 'asked', shown };
    if (field.kind !== 'answer') return { is: 'passed-over', reason: 'not_applicable', code: '' };
    const section = this.plan.sections[field.planItem.section] as PlanSection;
    const left = walked.passedOver.some(
      ({ section: s, item, pass, why }) =>
        s === section.index &&
        item === field.planItem?.index &&
        pass === field.pass &&
        why.because === 'not-drawn',
    );
    const reason = left ? 'not_drawn' : 'not_applicable';
    return { is: 'passed-over', reason, code: missingCode(this.plan.document, field.question, reason) };
  }

  private isPicked({ of, option }: KeyField, answers: Answers): boolean {
    const value = of === null ? null : answers[of];
    if (option === null || value == null) return false;
    return typeof value === 'object' ? value.includes(option.code) : value === option.code;
  }

  /** On paper it shows which questions were drawn: until as many are keyed, each of them may be. */
  private isOpenDraw({ planItem, pass }: KeyField, answers: Answers, walked: Walk): boolean {
    if (planItem === null) return false;
    const section = this.plan.sections[planItem.section] as PlanSection;
    if (section.section.draw === undefined || !walked.drawn.has(drawKey(section, pass ?? 1))) return false;
    return this.answeredIn(section, pass, answers).length < section.section.draw;
  }

  private answeredIn(section: PlanSection, pass: number | null, answers: Answers): number[] {
    return section.items
      .filter(({ item }) => this.isAnswered(item.name, pass, answers))
      .map(({ index }) => index);
  }

  private isAnswered(item: string, pass: number | null, answers: Answers): boolean {
    const own = passKey(item, pass);
    return this.fields.some(
      ({ passKey: of, kind, key }) => of === own && kind === 'answer' && !isBlank(answers[key]),
    );
  }

  private drawsIn(answers: Answers): Record<string, string[]> {
    const draws: Record<string, string[]> = {};
    for (const section of this.plan.sections) {
      if (section.section.draw === undefined) continue;
      const passes =
        section.repeat === null ? [null] : Array.from({ length: section.repeat.max }, (_, p) => p + 1);
      for (const pass of passes) {
        const found = drawIn(section, pass ?? 1, ({ item }) =>
          this.isAnswered(item.name, pass, answers) ? 'touched' : 'blank',
        );
        draws[drawKey(section, pass ?? 1)] = asManyAsDrawn(found).map(
          (at) => section.items[at]?.item.name ?? '',
        );
      }
    }
    return draws;
  }

  private cellText(column: Column, answers: Answers): string {
    if (column.kind === 'derived' || column.kind === 'ending') return '';
    const { source } = column;
    const pass = source.of === 'item' ? source.pass : null;
    const at = (name: string) => answers[passKey(name, pass)];
    const text = (value: Value | null | undefined) =>
      value == null || typeof value === 'object' ? '' : String(value);
    if (column.kind === 'remark') return text(at(`${source.variable}_comment`));
    if (column.kind === 'specify') return text(at(`${source.variable}_${column.code}_text`));
    const value = at(source.variable);
    if (value === undefined) return '';
    if (isBlank(value))
      return source.of === 'item' && this.wasAsked(source.planItem, pass, answers)
        ? String(missingCode(this.plan.document, source.question, 'no_answer'))
        : '';
    if (!Array.isArray(value)) return text(value);
    if (column.kind === 'place') return text((value as readonly number[])[column.code - 1]);
    // Beside don't know and the like, the other columns carry its code.
    const alone = isMissingAnswer(optionsOf(source.answer), value);
    return (value as readonly number[]).includes(column.code) ? '1' : alone ? '' : '0';
  }

  /** A blank in a draw is one that was not drawn. */
  private wasAsked(
    planItem: NonNullable<KeyField['planItem']>,
    pass: number | null,
    answers: Answers,
  ): boolean {
    const section = this.plan.sections[planItem.section] as PlanSection;
    return section.section.draw === undefined || this.isAnswered(planItem.item.name, pass, answers);
  }
}
