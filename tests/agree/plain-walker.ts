/**
 * The rules of conditions, walking and coding written out once more, plainly, over the document itself: the judge of
 * the real walk. It shares nothing with it but the parser, and is told which places of the document are broken.
 * Respondents it is given answer all they must and nothing that is not allowed.
 */
import { parseCondition, parseExpression } from '../../src/core/condition/parse';
import type { Condition, Literal, Operand } from '../../src/core/condition/syntax';
import type {
  Answer,
  Answers,
  MissingReason,
  Option,
  Question,
  Questionnaire,
  Section,
  Target,
  Value,
} from '../../src/core/document/types';
import type { PlanProblem } from '../../src/core/routing/problems';

export interface PlainWalk {
  readonly presented: readonly string[];
  readonly ending: string;
  readonly row: Readonly<Record<string, number | string>>;
}

interface PlainInput {
  readonly answers: Answers;
  readonly given?: Answers;
  readonly draws?: Readonly<Record<string, readonly string[]>>;
  readonly full?: readonly string[];
}

export function plainWalk(
  document: Questionnaire,
  input: PlainInput,
  problems: readonly PlanProblem[],
): PlainWalk {
  return new PlainWalker(document, input, problems).walk();
}

type Home = { section: number; question: Question; answer: Answer };
type Scope = { section: number; pass: number | null };

class PlainWalker {
  private readonly presented: string[] = [];
  /** Variables asked for, rows of grids among them. */
  private readonly asked = new Set<string>();
  private readonly passes = new Map<number, number>();
  private readonly homes = new Map<string, Home>();
  private ending = '';

  constructor(
    private readonly document: Questionnaire,
    private readonly input: PlainInput,
    private readonly problems: readonly PlanProblem[],
  ) {
    document.sections.forEach(({ items }, section) => {
      for (const question of items) {
        if (question.kind !== 'question') continue;
        const { answer } = question;
        this.homes.set(question.name.toLowerCase(), { section, question, answer });
        if (answer.type !== 'grid') continue;
        for (const { name } of answer.rows)
          this.homes.set(name.toLowerCase(), { section, question, answer: rowAnswer(answer) });
      }
    });
  }

  walk(): PlainWalk {
    this.enter(0, 0);
    return { presented: this.presented, ending: this.ending, row: this.row() };
  }

  private isBroken(at: object, field: string): boolean {
    return this.problems.some((p) => p.field === field && JSON.stringify(p.at) === JSON.stringify(at));
  }

  private condition(text: string | undefined, scope: Scope, at: object, field: string): boolean {
    if (text === undefined) return true;
    if (this.isBroken(at, field)) return false;
    const parsed = parseCondition(text);
    return parsed.ok && this.holds(parsed.tree, scope);
  }

  private enter(s: number, aim: number): void {
    const section = this.document.sections[s];
    if (section === undefined) {
      this.ending = this.document.endings.find(({ kind }) => kind === 'complete')?.id ?? '';
      return;
    }
    const passes = this.passesOf(section, s);
    if (
      !this.condition(section.askIf, { section: s, pass: null }, { section: section.id }, 'askIf') ||
      passes === 0
    )
      this.enter(s + 1, 0);
    else this.run(s, 1, aim, passes);
  }

  private passesOf({ repeat, id }: Section, s: number): number {
    if (repeat === undefined) return 1;
    if (this.isBroken({ section: id }, 'repeat')) return 0;
    const driver = 'times' in repeat ? repeat.times : repeat.each;
    const wanted = 'times' in repeat ? this.number(driver, s) : this.codesOf(driver, s).length;
    return Math.min(repeat.max, Math.max(0, Math.floor(wanted)));
  }

  private number(name: string, s: number): number {
    const value = this.value(name, { section: s, pass: null });
    return typeof value === 'number' ? value : 0;
  }

  /** Codes picked that have a pass, in the order of the options. */
  private codesOf(name: string, s: number): number[] {
    const { picks, options } = this.reading(name, { section: s, pass: null });
    const ordinary = options.filter((option) => !option.exclusive && option.missing === undefined);
    return ordinary.map(({ code }) => code).filter((code) => picks?.includes(code));
  }

  private run(s: number, pass: number, from: number, passes: number): void {
    const section = this.document.sections[s] as Section;
    this.passes.set(s, pass);
    const scope = { section: s, pass: section.repeat === undefined ? null : pass };
    const mark = scope.pass === null ? '' : `#${pass}`;
    const drawn = this.input.draws?.[`${section.id}${mark}`];
    for (let i = from; i < section.items.length; i += 1) {
      const item = section.items[i];
      if (item === undefined || item.kind === 'page_break') continue;
      const at = { item: item.name };
      if (!this.condition(item.askIf, scope, at, 'askIf')) continue;
      if (section.draw !== undefined && item.kind === 'question' && !drawn?.includes(item.name)) continue;
      if (item.kind === 'question') {
        const { answer } = item;
        const shows = (option: Option) =>
          this.condition(option.askIf, scope, { ...at, option: option.code }, 'askIf');
        if ('options' in answer && !answer.options.some((o) => o.missing === undefined && shows(o))) continue;
        if (answer.type === 'grid') {
          const rows = answer.rows.filter((row) =>
            this.condition(row.askIf, scope, { ...at, row: row.name }, 'askIf'),
          );
          if (rows.length === 0) continue;
          for (const { name } of rows) this.asked.add(`${name.toLowerCase()}${mark}`);
        }
        this.asked.add(`${item.name.toLowerCase()}${mark}`);
      }
      this.presented.push(`${item.name}${mark}`);
      for (const quota of this.document.quotas ?? []) {
        if (quota.at !== item.name || !this.input.full?.includes(quota.id)) continue;
        if (this.isBroken({ quota: quota.id }, 'at') || this.isBroken({ quota: quota.id }, 'to')) continue;
        if (!this.condition(quota.if, scope, { quota: quota.id }, 'if')) continue;
        return this.go(quota.to, s, pass, passes);
      }
      for (const [skip, { if: when, to }] of (item.skips ?? []).entries()) {
        const place = { ...at, skip };
        if (this.isBroken(place, 'to') || !this.condition(when, scope, place, 'if')) continue;
        return this.go(to, s, pass, passes);
      }
    }
    this.past(s, pass, passes);
  }

  private past(s: number, pass: number, passes: number): void {
    if (pass < passes) return this.run(s, pass + 1, 0, passes);
    const { onward, id } = this.document.sections[s] as Section;
    const list = onward === undefined ? [] : Array.isArray(onward) ? onward : [{ to: onward as Target }];
    for (const [index, { if: when, to }] of list.entries()) {
      const place = { section: id, onward: index };
      if (this.isBroken(place, 'to')) continue;
      if (!this.condition(when, { section: s, pass: null }, place, 'if')) continue;
      return this.go(to, s, pass, passes);
    }
    this.enter(s + 1, 0);
  }

  private go(to: Target, s: number, pass: number, passes: number): void {
    if ('ending' in to) this.ending = to.ending;
    else if ('nextPass' in to) this.past(s, pass, passes);
    else if ('section' in to)
      this.enter(
        this.document.sections.findIndex(({ id }) => id === to.section),
        0,
      );
    else {
      const named = (items: Section['items']) =>
        items.findIndex((i) => i.kind !== 'page_break' && i.name === to.item);
      const home = this.document.sections.findIndex(({ items }) => named(items) >= 0);
      const item = named(this.document.sections[home]?.items ?? []);
      if (home === s) this.run(s, pass, item, passes);
      else this.enter(home, item);
    }
  }

  // Conditions

  private reading(name: string, scope: Scope) {
    const lower = name.toLowerCase();
    const given = this.document.given?.find((entry) => entry.name.toLowerCase() === lower);
    const home = this.homes.get(lower);
    const answer = given?.answer ?? home?.answer;
    const options = answer === undefined ? [] : optionsIn(answer);
    const repeated = home !== undefined && this.document.sections[home.section]?.repeat !== undefined;
    const mark = repeated && home.section === scope.section && scope.pass !== null ? `#${scope.pass}` : '';
    const presented = this.asked.has(`${lower}${mark}`);
    const exact = given?.name ?? nameIn(home, lower);
    const raw = given ? this.input.given?.[exact] : presented ? this.input.answers[`${exact}${mark}`] : null;
    const blank = raw === undefined || raw === null || raw === '' || (Array.isArray(raw) && raw.length === 0);
    const value = blank ? null : (raw as Value);
    const picks = Array.isArray(value) ? (value as readonly number[]) : null;
    const codes: readonly unknown[] = picks ?? [value];
    const missing = options.find((option) => option.missing !== undefined && codes.includes(option.code));
    return { presented, value, picks, missing: missing?.code ?? null, options };
  }

  /** A substantive value that is no list. */
  private value(name: string, scope: Scope): number | string | null {
    const derived = this.document.derived?.find((entry) => entry.name.toLowerCase() === name.toLowerCase());
    if (derived !== undefined) return this.derived(derived, scope);
    const { value, picks, missing } = this.reading(name, scope);
    return missing !== null || picks !== null || value === null
      ? null
      : withSeconds(value as number | string);
  }

  private derived(derived: NonNullable<Questionnaire['derived']>[number], { section }: Scope) {
    if (this.problems.some(({ at }) => at.derived === derived.name)) return null;
    const outside = { section, pass: null };
    if ('value' in derived) {
      const parsed = parseExpression(derived.value);
      const value = parsed.ok ? this.operand(parsed.tree, outside) : null;
      return typeof value === 'number' ? value : null;
    }
    const found = derived.cases.find(({ if: when }) => {
      const parsed = parseCondition(when);
      return parsed.ok && this.holds(parsed.tree, outside);
    });
    return found?.code ?? derived.else?.code ?? null;
  }

  private operand(node: Operand, scope: Scope): number | string | null {
    switch (node.kind) {
      case 'name':
        return this.value(node.name, scope);
      case 'count': {
        const { picks, missing } = this.reading(node.name.name, scope);
        return picks === null || missing !== null ? null : picks.length;
      }
      case 'count-passes': {
        const section = this.repeatedIn(node.condition);
        const begun = this.passes.get(section) ?? 0;
        const each = Array.from({ length: begun }, (_, n) => ({ section, pass: n + 1 }));
        return each.filter((inside) => this.holds(node.condition, inside)).length;
      }
      case 'pass':
        return scope.pass;
      case 'each': {
        const repeat = this.document.sections[scope.section]?.repeat;
        if (repeat === undefined || !('each' in repeat) || scope.pass === null) return null;
        return this.codesOf(repeat.each, scope.section)[scope.pass - 1] ?? null;
      }
      case 'arithmetic': {
        const [left, right] = [this.operand(node.left, scope), this.operand(node.right, scope)];
        if (typeof left !== 'number' || typeof right !== 'number') return null;
        const result = { '+': left + right, '-': left - right, '*': left * right }[node.operator];
        return Math.round(result * 1e9) / 1e9;
      }
      default:
        return literal(node);
    }
  }

  private repeatedIn(condition: Condition): number {
    const names = JSON.stringify(condition).matchAll(/"kind":"name","name":"([^"]+)"/g);
    for (const [, name = ''] of names) {
      const home = this.homes.get(name.toLowerCase());
      if (home && this.document.sections[home.section]?.repeat !== undefined) return home.section;
    }
    return -1;
  }

  private holds(node: Condition, scope: Scope): boolean {
    switch (node.kind) {
      case 'and':
        return node.parts.every((part) => this.holds(part, scope));
      case 'or':
        return node.parts.some((part) => this.holds(part, scope));
      case 'not':
        return !this.holds(node.part, scope);
      case 'constant':
        return node.value;
      case 'compare': {
        let [left, right] = [this.operand(node.left, scope), this.operand(node.right, scope)];
        if (node.operator === '=' || node.operator === '<>') {
          // The very code of a don't-know, written out, is seen.
          if (left === null && right === this.missingIn(node.left, node.right, scope)) left = right;
          else if (right === null && left === this.missingIn(node.right, node.left, scope)) right = left;
        }
        if (left === null || right === null) return false;
        return {
          '=': left === right,
          '<>': left !== right,
          '<': left < right,
          '<=': left <= right,
          '>': left > right,
          '>=': left >= right,
        }[node.operator];
      }
      case 'in': {
        const missing = this.missingIn(node.name, null, scope);
        const value = this.value(node.name.name, scope);
        const inside = node.members.some((member) =>
          member.kind === 'range'
            ? value !== null && value >= literal(member.from) && value <= literal(member.to)
            : literal(member) === (value ?? missing),
        );
        return value === null ? inside && !node.negated : inside !== node.negated;
      }
      case 'has': {
        const { picks, missing } = this.reading(node.name.name, scope);
        const codes = node.values.map(literal);
        if (picks === null || (missing !== null && !codes.includes(missing))) return false;
        const has = (code: number | string) => picks.includes(code as number);
        if (node.quantifier === 'all') return codes.every(has);
        return node.quantifier === 'none' ? !codes.some(has) : codes.some(has);
      }
      case 'state': {
        const home = this.homes.get(node.name.name.toLowerCase());
        const rows = home?.answer.type === 'grid' ? home.answer.rows.map(({ name }) => name) : null;
        const readings = (rows ?? [node.name.name]).map((name) => this.reading(name, scope));
        const isAsked = readings.some(({ presented }) => presented);
        const answered = readings.some(({ presented, value }) => presented && value !== null);
        return { asked: isAsked, 'not asked': !isAsked, answered, unanswered: isAsked && !answered }[
          node.state
        ];
      }
      default:
        return node satisfies never;
    }
  }

  /** The missing code that a variable was answered with, if it is compared with a code written out. */
  private missingIn(side: Operand, other: Operand | null, scope: Scope): number | null {
    if (side.kind !== 'name' || (other !== null && other.kind !== 'number')) return null;
    return this.document.derived?.some(({ name }) => name.toLowerCase() === side.name.toLowerCase())
      ? null
      : this.reading(side.name, scope).missing;
  }

  // Coding

  private row(): Record<string, number | string> {
    const row: Record<string, number | string> = {};
    const code = (reason: MissingReason, question?: Question) =>
      question?.missingCodes?.[reason] ?? this.document.missing.find((m) => m.reason === reason)?.code ?? NaN;
    const put = (
      name: string,
      answer: Answer,
      value: Value | null,
      none: number | null,
      words: (key: string) => string,
    ) => {
      const options = optionsIn(answer);
      const picks = Array.isArray(value) ? (value as number[]) : null;
      const missing = options.find((o) => o.missing !== undefined && picks?.includes(o.code))?.code;
      if (answer.type === 'multiple')
        for (const o of options)
          row[`${name}_${o.code}`] = none ?? (picks?.includes(o.code) ? 1 : (missing ?? 0));
      else if (answer.type === 'rank')
        for (let place = 1; place <= (answer.top ?? options.length); place += 1)
          row[`${name}_rank${place}`] =
            none ??
            picks?.[place - 1] ??
            code('no_answer', this.homes.get(name.split('_')[0] ?? '')?.question);
      else row[name] = none ?? (value as number | string);
      for (const o of options) {
        if (!o.specify) continue;
        const picked = none === null && (picks?.includes(o.code) || value === o.code);
        row[`${name}_${o.code}_text`] = picked ? words(`_${o.code}_text`) : '';
      }
    };
    for (const { name, answer } of this.document.given ?? [])
      put(name, answer, (this.input.given?.[name] as Value) ?? null, null, (rest) =>
        String(this.input.answers[name + rest] ?? ''),
      );
    this.document.sections.forEach((section, s) => {
      const passes =
        section.repeat === undefined ? [null] : Array.from({ length: section.repeat.max }, (_, n) => n + 1);
      for (const question of section.items) {
        if (question.kind !== 'question') continue;
        const { answer } = question;
        const variables = answer.type === 'grid' ? answer.rows.map(({ name }) => name) : [question.name];
        for (const name of variables) {
          for (const pass of passes) {
            const mark = pass === null ? '' : `#${pass}`;
            const value = (this.input.answers[`${name}${mark}`] as Value | undefined) ?? null;
            const isAsked = this.asked.has(`${name.toLowerCase()}${mark}`);
            const ran = (this.passes.get(s) ?? 0) >= (pass ?? 1);
            const drawn = this.input.draws?.[`${section.id}${mark}`];
            const leftOut = ran && section.draw !== undefined && !drawn?.includes(question.name);
            const none = !isAsked
              ? code(leftOut ? 'not_drawn' : 'not_applicable', question)
              : isBlank(value)
                ? code('no_answer', question)
                : null;
            const column = pass === null ? name : `${name}_${pass}`;
            put(column, answer.type === 'grid' ? rowAnswer(answer) : answer, value, none, (rest) =>
              String(this.input.answers[`${name}${rest}${mark}`] ?? ''),
            );
          }
        }
        if (question.comment === undefined) continue;
        for (const pass of passes) {
          const mark = pass === null ? '' : `#${pass}`;
          const isAsked = this.asked.has(`${question.name.toLowerCase()}${mark}`);
          const said = isAsked ? String(this.input.answers[`${question.name}_comment${mark}`] ?? '') : '';
          row[pass === null ? `${question.name}_comment` : `${question.name}_${pass}_comment`] = said;
        }
      }
    });
    const outside = { section: this.document.sections.length, pass: null };
    for (const derived of this.document.derived ?? []) {
      const value = this.derived(derived, outside);
      row[derived.name] = value ?? code(this.someInputAsked(derived) ? 'no_answer' : 'not_applicable');
    }
    row.ending = this.ending;
    return row;
  }

  /** Inputs are traced through other derived variables down to questions. */
  private someInputAsked(derived: NonNullable<Questionnaire['derived']>[number]): boolean {
    const texts = 'value' in derived ? [derived.value] : derived.cases.map(({ if: when }) => when);
    return texts.some((text) =>
      [...text.matchAll(/[A-Za-z]\w*/g)].some(([word]) => {
        const deeper = this.document.derived?.find(({ name }) => name.toLowerCase() === word.toLowerCase());
        if (deeper !== undefined) return this.someInputAsked(deeper);
        const asks = (key: string) => key === word.toLowerCase() || key.startsWith(`${word.toLowerCase()}#`);
        return this.homes.has(word.toLowerCase()) && [...this.asked].some(asks);
      }),
    );
  }
}

function nameIn(home: Home | undefined, lower: string): string {
  if (home === undefined) return lower;
  const { question } = home;
  const rows = question.answer.type === 'grid' ? question.answer.rows.map(({ name }) => name) : [];
  return [question.name, ...rows].find((name) => name.toLowerCase() === lower) ?? lower;
}

function rowAnswer(grid: Answer & { type: 'grid' }): Answer {
  return { type: grid.pick === 'many' ? 'multiple' : 'single', options: grid.options };
}

function optionsIn(answer: Answer): readonly Option[] {
  return 'options' in answer ? answer.options : 'specials' in answer ? (answer.specials ?? []) : [];
}

function isBlank(value: Value | null): boolean {
  return value === null || value === '' || (Array.isArray(value) && value.length === 0);
}

function literal(node: Literal): number | string {
  return node.kind === 'number' || node.kind === 'text' ? node.value : withSeconds(node.value);
}

/** A time without seconds is the full minute. */
function withSeconds<V extends number | string>(value: V): V {
  const short = typeof value === 'string' && /^(\d{4}-\d\d-\d\dT)?\d\d:\d\d$/.test(value);
  return (short ? `${value}:00` : value) as V;
}
