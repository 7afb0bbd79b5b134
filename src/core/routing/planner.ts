/**
 * Makes a plan of a questionnaire: conditions parsed and checked, targets found.
 *
 * Whatever breaks a rule is reported and made harmless: a condition with a problem never holds, a bad
 * target is absent, a repeat over nothing usable has no pass, a derived variable with a problem no value.
 */
import { parseCondition, parseExpression, type Parsed } from '../condition/parse';
import {
  conditionProblems,
  expressionProblems,
  isBefore,
  type ConditionProblem,
  type Input,
  type Position,
  type Scope,
} from '../condition/resolve';
import { eachName, type Condition, type Operand } from '../condition/syntax';
import { isNumeric, isWhole, picksMany, rowsOf } from '../document/answer-types';
import type { HolderKind } from '../document/properties';
import { optionsOf } from '../document/shape';
import type {
  Derived,
  Ending,
  GridRow,
  Question,
  Questionnaire,
  RoutedItem,
  Section,
  Skip,
  Target,
} from '../document/types';
import { isRepeated, variablesOf, type Variable, type Variables } from '../document/variables';
import { pipedNames, textsOf } from './pipes';
import {
  onwardList,
  type Plan,
  type PlanDerived,
  type PlanEnding,
  type PlanItem,
  type PlanQuota,
  type PlanRepeat,
  type PlanSection,
  type PlanSkip,
  type PlanTarget,
} from './plan';
import type { DocumentPlace, PlanProblem, PlanRule } from './problems';
import { isSameSurroundings } from './surroundings';

const NO_NAMES: ReadonlySet<string> = new Set();
const NEVER: Condition = { kind: 'constant', value: false, span: { from: 0, to: 0 } };

/** More than anybody writes; each level is a call within a call where values are worked out. */
const MOST_DERIVED_DEEP = 50;
/** Values that each name the one before twice spell out to as many names as there are grains on a chessboard. */
const MOST_MENTIONS = 5_000;

/** Problems by the part they were found in, so that a part that is planned no more keeps them. */
const problemsOf = new WeakMap<PlanSection, readonly PlanProblem[]>();

/**
 * `before`: a plan of an earlier version, of which the sections that nothing has changed for are taken over as they are.
 * What comes out is the same with and without.
 */
export function planOf(document: Questionnaire, before: Plan | null = null): Plan {
  const known = before !== null && isSameSurroundings(before.document, document) ? before.sections : null;
  return new Planner(document, known).plan();
}

class Planner {
  private problems: PlanProblem[] = [];
  private readonly variables: Variables;
  private readonly inputs: Input[][] = [];
  /** For each derived variable how many others it stands on, one on the other. */
  private readonly depths: number[] = [];
  /** The same, of the one in hand. */
  private standsOn = 0;
  /** For each derived variable how many names it has, those of the others that it stands on spelt out. */
  private readonly spelt: number[] = [];
  /** The same, of the one in hand. */
  private mentions = 0;
  private readonly sectionIndex = new Map<string, number>();
  private readonly endingIndex = new Map<string, number>();
  private readonly itemPosition = new Map<string, { section: number; place: number; item: number }>();
  private readonly end: Position;

  constructor(
    private readonly document: Questionnaire,
    /** Sections planned before, of a document with the same surroundings. */
    private readonly known: readonly PlanSection[] | null,
  ) {
    this.variables = variablesOf(document);
    this.end = { section: document.sections.length, item: 0 };
    document.sections.forEach((section, s) => {
      if (!this.sectionIndex.has(section.id)) this.sectionIndex.set(section.id, s);
      let item = 0;
      section.items.forEach((entry, place) => {
        if (entry.kind === 'page_break') return;
        if (!this.itemPosition.has(entry.name))
          this.itemPosition.set(entry.name, { section: s, place, item });
        item += 1;
      });
    });
    document.endings.forEach((ending, e) => {
      if (!this.endingIndex.has(ending.id)) this.endingIndex.set(ending.id, e);
    });
  }

  plan(): Plan {
    const { document } = this;
    const derived = (document.derived ?? []).map((entry, index) => this.derived(entry, index));
    const quotas = this.quotas();
    const sections = document.sections.map((section, s) => this.sectionOnce(section, s, quotas));
    const endings = document.endings.map((ending) => this.ending(ending));
    const lastEnding = document.endings.findIndex((ending) => ending.kind === 'complete');
    return {
      document,
      variables: this.variables,
      sections,
      derived,
      endings,
      lastEnding,
      problems: this.problems,
    };
  }

  private report(rule: PlanRule, at: DocumentPlace, field: string, message: string): void {
    this.problems.push({ rule, at, field, message });
  }

  private scope(before: Position, openPass: number | null, rest: Partial<Scope> = {}): Scope {
    return {
      document: this.document,
      variables: this.variables,
      before,
      openPass,
      inputsOf: (index) => this.inputs[index] ?? [],
      ...rest,
    };
  }

  /** Parses and checks one condition; one with a problem never holds. */
  private condition(text: string, scope: Scope, at: DocumentPlace, field: string): Condition {
    const parsed = parseCondition(text);
    return this.checked(parsed, (tree) => conditionProblems(tree, scope), at, field) ?? NEVER;
  }

  private optional(
    text: string | undefined,
    scope: Scope,
    at: DocumentPlace,
    field: string,
  ): Condition | null {
    return text === undefined ? null : this.condition(text, scope, at, field);
  }

  private checked<Tree>(
    parsed: Parsed<Tree>,
    check: (tree: Tree) => readonly ConditionProblem[],
    at: DocumentPlace,
    field: string,
  ): Tree | null {
    if (!parsed.ok) {
      this.problems.push({ rule: 'bad-condition', at, field, ...parsed.problem });
      return null;
    }
    const problems = check(parsed.tree);
    for (const problem of problems) this.problems.push({ at, field, ...problem });
    return problems.length === 0 ? parsed.tree : null;
  }

  private derived(derived: Derived, index: number): PlanDerived {
    const at = { derived: derived.name };
    const scope = this.scope(this.end, null, { derivedBefore: index });
    const inputs: Input[] = [];
    this.inputs[index] = inputs;
    this.standsOn = 0;
    this.mentions = 0;
    if ('value' in derived) {
      const parsed = parseExpression(derived.value);
      const value = this.checked(parsed, (tree) => expressionProblems(tree, scope), at, 'value');
      // What it is about counts for its coding, sound or not.
      if (parsed.ok) this.addInputs(inputs, parsed.tree);
      return { derived, cases: null, value: this.isTooDeep(index, at, 'value') ? null : value, inputs };
    }
    let sound = true;
    const cases = derived.cases.map((entry, c) => {
      const parsed = parseCondition(entry.if);
      const tree = this.checked(parsed, (t) => conditionProblems(t, scope), at, `cases[${c}].if`);
      if (tree === null) sound = false;
      if (parsed.ok) this.addInputs(inputs, parsed.tree);
      return { if: tree ?? NEVER, code: entry.code };
    });
    if (this.isTooDeep(index, at, 'cases')) sound = false;
    return { derived, cases: sound ? cases : null, value: null, inputs };
  }

  /** Reports a value that stands on more others, one on the other, than can be followed. */
  private isTooDeep(index: number, at: DocumentPlace, field: string): boolean {
    const isTooDeep = this.standsOn > MOST_DERIVED_DEEP || this.mentions > MOST_MENTIONS;
    this.depths[index] = isTooDeep ? 0 : this.standsOn;
    this.spelt[index] = isTooDeep ? 1 : this.mentions;
    if (isTooDeep)
      this.report(
        'bad-condition',
        at,
        field,
        `this value stands on too many others, one on the other (at most ${MOST_DERIVED_DEEP} levels and, all spelt out, ${MOST_MENTIONS.toLocaleString('en')} names): work it out from the questions themselves`,
      );
    return isTooDeep;
  }

  private addInputs(inputs: Input[], node: Condition | Operand): void {
    eachName(node, ({ name }) => {
      const variable = this.variables.get(name.toLowerCase());
      if (variable === undefined) return;
      this.mentions += variable.of === 'derived' ? (this.spelt[variable.index] ?? 1) : 1;
      if (variable.of === 'derived') {
        // Each only once: a chain of values that each name the one before twice would list them without end.
        for (const input of this.inputs[variable.index] ?? [])
          if (!inputs.includes(input)) inputs.push(input);
        this.standsOn = Math.max(this.standsOn, (this.depths[variable.index] ?? 0) + 1);
        return;
      }
      if (inputs.some((input) => input.variable === variable)) return;
      const placed = variable.of === 'question' || variable.of === 'row';
      const section = placed ? this.document.sections[variable.section] : undefined;
      inputs.push({ variable, overPasses: section !== undefined && isRepeated(section) });
    });
  }

  private quotas(): ReadonlyMap<string, PlanQuota[]> {
    const at = new Map<string, PlanQuota[]>();
    for (const quota of this.document.quotas ?? []) {
      const place = { quota: quota.id };
      const position = this.itemPosition.get(quota.at);
      const section = position && this.document.sections[position.section];
      if (position === undefined || section === undefined) {
        this.report(
          'unknown-target',
          place,
          'at',
          `no question is named “${quota.at}”: say after which question the quota is looked at`,
        );
        continue;
      }
      if (
        section.items[position.place]?.kind !== 'question' ||
        isRepeated(section) ||
        section.draw ||
        section.shuffle
      ) {
        this.report(
          'unknown-target',
          place,
          'at',
          `“${quota.at}” is not a question outside drawn, shuffled and repeated sections`,
        );
        continue;
      }
      const scope = this.scope({ section: position.section, item: position.place + 1 }, null);
      const condition = this.condition(quota.if, scope, place, 'if');
      const to = this.target(quota.to, { section: position.section, item: position.place + 1 }, null, place);
      if (to === null) continue;
      const list = at.get(quota.at) ?? [];
      list.push({ id: quota.id, if: condition, to });
      at.set(quota.at, list);
    }
    return at;
  }

  private sectionOnce(section: Section, s: number, quotas: ReadonlyMap<string, PlanQuota[]>): PlanSection {
    const known = this.known?.[s];
    const problems = known && problemsOf.get(known);
    if (known?.section === section && problems !== undefined && this.isDrivenBySame(known)) {
      this.problems.push(...problems);
      return known;
    }
    const others = this.problems;
    this.problems = [];
    const planned = this.section(section, s, quotas);
    problemsOf.set(planned, this.problems);
    this.problems = [...others, ...this.problems];
    return planned;
  }

  /** What a section repeats over is shown by its words. */
  private isDrivenBySame({ repeat }: PlanSection): boolean {
    if (repeat === null || repeat.driver?.of !== 'question') return true;
    const now = this.variables.get(repeat.driver.name.toLowerCase());
    return now?.of === 'question' && now.question === repeat.driver.question;
  }

  private section(section: Section, s: number, quotas: ReadonlyMap<string, PlanQuota[]>): PlanSection {
    const at = { section: section.id };
    const entry = this.scope({ section: s, item: 0 }, null);
    const gate = this.optional(section.askIf, entry, at, 'askIf');
    const repeat = this.repeat(section, s);
    const within = this.scope({ section: s, item: 0 }, isRepeated(section) ? s : null);
    this.pipes('section', section, within, at);
    let page = 0;
    const items: PlanItem[] = [];
    section.items.forEach((item, place) => {
      if (item.kind === 'page_break') page += 1;
      else items.push(this.item(item, section, s, place, items.length, page, quotas));
    });
    const beyond = { section: s + 1, item: 0 };
    const onward = this.skips(onwardList(section), 'onward', this.scope(beyond, null), beyond, null, at);
    return { index: s, section, gate, repeat, items, onward };
  }

  private repeat(section: Section, s: number): PlanRepeat | null {
    const { repeat } = section;
    if (repeat === undefined) return null;
    const kind = 'times' in repeat ? 'times' : 'each';
    const name = 'times' in repeat ? repeat.times : repeat.each;
    const at = { section: section.id };
    const refuse = (rule: PlanRule, message: string): PlanRepeat => {
      this.report(rule, at, 'repeat', message);
      return { kind, driver: null, max: repeat.max };
    };
    const variable = this.variables.get(name.toLowerCase());
    if (variable === undefined || variable.name !== name) {
      return refuse('unknown-name', `the section repeats over “${name}”, but nothing has that name`);
    }
    if (!drivesRepeat(variable, kind)) {
      const wanted =
        kind === 'times'
          ? 'a question answered with a whole number'
          : 'a question answered by picking several';
      return refuse('type-mismatch', `the section repeats over “${name}”: ${wanted} is needed`);
    }
    if (variable.of === 'question') {
      if (!isBefore(variable, { section: s, item: 0 })) {
        return refuse(
          'refers-forward',
          `the section repeats over “${name}”, which comes later: move it before the section`,
        );
      }
      const home = this.document.sections[variable.section];
      if (home !== undefined && isRepeated(home)) {
        return refuse(
          'repeated-outside',
          `the section repeats over “${name}”, which is itself answered several times`,
        );
      }
    }
    return { kind, driver: variable, max: repeat.max };
  }

  private item(
    item: RoutedItem,
    section: Section,
    s: number,
    place: number,
    index: number,
    page: number,
    quotas: ReadonlyMap<string, PlanQuota[]>,
  ): PlanItem {
    const openPass = isRepeated(section) ? s : null;
    const shuffled = section.shuffle ? { onlySibling: { section: s, item: place } } : {};
    const before = this.scope({ section: s, item: place }, openPass, shuffled);
    const after = this.scope({ section: s, item: place + 1 }, openPass, shuffled);
    const at = { item: item.name };
    const askIf = this.optional(item.askIf, before, at, 'askIf');
    this.pipes(item.kind, item, before, at);
    const skips = this.skips(item.skips ?? [], 'skip', after, { section: s, item: place + 1 }, openPass, at);
    const namesakes = this.namesakesIn(item, s, place);
    const base = { item, section: s, index, place, page, askIf, namesakes, skips };
    if (item.kind === 'statement') return { ...base, optionIf: [], rowIf: [], checks: [], quotas: [] };
    // Where a name is used twice, a quota is looked at after the first.
    const position = this.itemPosition.get(item.name);
    const isMeant = position?.section === s && position.place === place;
    const here = isMeant ? (quotas.get(item.name) ?? []) : [];
    return { ...base, ...this.question(item, before, after), quotas: here };
  }

  /** Of the names of an item's variables those that are another's. */
  private namesakesIn(item: RoutedItem, s: number, place: number): ReadonlySet<string> {
    if (item.kind === 'statement') return NO_NAMES;
    const isTaken = (name: string, row: GridRow | null) => {
      const owner = this.variables.get(name.toLowerCase());
      if (owner?.of !== 'question' && owner?.of !== 'row') return true;
      const own = owner.section === s && owner.item === place;
      return !own || (owner.of === 'row' ? owner.row : null) !== row;
    };
    const rows = rowsOf(item.answer);
    const taken = [
      ...(isTaken(item.name, null) ? [item.name] : []),
      ...rows.filter((row) => isTaken(row.name, row)).map(({ name }) => name),
    ];
    return taken.length === 0 ? NO_NAMES : new Set(taken);
  }

  private question(
    item: Question,
    before: Scope,
    after: Scope,
  ): Pick<PlanItem, 'optionIf' | 'rowIf' | 'checks'> {
    const at = { item: item.name };
    const options = optionsOf(item.answer);
    for (const option of options) this.pipes('option', option, before, { ...at, option: option.code });
    const optionIf = options.map((option) =>
      this.optional(option.askIf, before, { ...at, option: option.code }, 'askIf'),
    );
    const rows = rowsOf(item.answer);
    for (const row of rows) this.pipes('row', row, before, { ...at, row: row.name });
    const rowIf = rows.map((row) => this.optional(row.askIf, before, { ...at, row: row.name }, 'askIf'));
    const checks = (item.checks ?? []).map((check, c) => ({
      if: this.condition(check.if, after, at, `checks[${c}].if`),
      kind: check.kind,
      message: check.message,
    }));
    for (const code of item.agrees ?? []) {
      if (!options.some((option) => option.code === code)) {
        this.report('unknown-code', at, 'agrees', `the consent code ${code} is no option of “${item.name}”`);
      }
    }
    return { optionIf, rowIf, checks };
  }

  private skips(
    skips: readonly Skip[],
    kind: 'skip' | 'onward',
    scope: Scope,
    from: Position,
    openPass: number | null,
    at: DocumentPlace,
  ): PlanSkip[] {
    return skips.flatMap((skip, index) => {
      const place = { ...at, [kind]: index };
      const condition = this.optional(skip.if, scope, place, 'if');
      const to = this.target(skip.to, from, openPass, place);
      return to === null ? [] : [{ index, if: condition, to }];
    });
  }

  /** Finds a target, which must lie at or after `from`; null, with a problem reported, where it cannot be used. */
  private target(
    target: Target,
    from: Position,
    openPass: number | null,
    at: DocumentPlace,
  ): PlanTarget | null {
    const refuse = (rule: PlanRule, message: string) => {
      this.report(rule, at, 'to', message);
      return null;
    };
    if ('ending' in target) {
      const ending = this.endingIndex.get(target.ending);
      if (ending !== undefined) return { to: 'ending', ending };
      return refuse('unknown-target', `there is no ending “${target.ending}”: choose another target`);
    }
    if ('nextPass' in target) {
      if (openPass !== null) return { to: 'next-pass' };
      return refuse(
        'unknown-target',
        '“next pass” has a meaning inside a repeated section only: choose another target',
      );
    }
    if ('section' in target) {
      const section = this.sectionIndex.get(target.section);
      if (section === undefined)
        return refuse('unknown-target', `there is no section “${target.section}”: choose another target`);
      if (isBefore({ section, item: 0 }, from)) {
        return refuse(
          'backward-skip',
          `section “${target.section}” is not further on, so respondents would go round in circles: aim at a later place`,
        );
      }
      return { to: 'section', section };
    }
    const position = this.itemPosition.get(target.item);
    if (position === undefined)
      return refuse('unknown-target', `there is no item “${target.item}”: choose another target`);
    if (isBefore({ section: position.section, item: position.place }, from)) {
      return refuse(
        'backward-skip',
        `“${target.item}” is not further on, so respondents would go round in circles: aim at a later place`,
      );
    }
    const section = this.document.sections[position.section] as Section;
    const outside = position.section !== from.section || at.onward !== undefined;
    const guarded = isRepeated(section) || section.draw !== undefined || section.shuffle;
    if (outside && guarded && position.item > 0) {
      return refuse(
        'enters-repeat',
        `“${target.item}” is in the middle of a section that repeats, draws or shuffles: aim at the section, which is entered at its start`,
      );
    }
    return { to: 'item', section: position.section, item: position.item };
  }

  private ending(ending: Ending): PlanEnding {
    const at = { ending: ending.id };
    const scope = this.scope(this.end, null);
    const messages = ending.messages.map((message, m) => {
      this.pipes('message', message, scope, at, `messages[${m}].`);
      return { if: this.optional(message.if, scope, at, `messages[${m}].if`), text: message.text };
    });
    if (ending.next && 'questionnaire' in ending.next) {
      for (const name of ending.next.carry ?? []) {
        if (this.variables.get(name.toLowerCase())?.name !== name) {
          this.report(
            'unknown-name',
            at,
            'next.carry',
            `“${name}” is to be carried on, but nothing has that name`,
          );
        }
      }
    }
    return { ending, messages };
  }

  /** Checks the names piped into the texts of a part. `of`: what comes before the name of a text's field. */
  private pipes(kind: HolderKind, part: object, scope: Scope, at: DocumentPlace, of = ''): void {
    for (const { name, text } of textsOf(kind, part)) this.pipesIn(text, scope, at, `${of}${name}`);
  }

  /** As if each name stood in a condition there. */
  private pipesIn(text: string, scope: Scope, at: DocumentPlace, field: string): void {
    for (const name of pipedNames(text)) {
      const variable = this.variables.get(name.toLowerCase());
      if (variable !== undefined && variable.name !== name) {
        this.report(
          'unknown-name',
          at,
          field,
          `{${name}} names nothing: written exactly, it is {${variable.name}}`,
        );
        continue;
      }
      const word = name.toLowerCase();
      const source = word === 'each' || word === 'pass' ? `${word} = ${word}` : `${name} answered`;
      const parsed = parseCondition(source);
      if (!parsed.ok) {
        this.report(
          'unknown-name',
          at,
          field,
          `{${name}} names nothing: for literal braces write {{${name}}}`,
        );
        continue;
      }
      const [problem] = conditionProblems(parsed.tree, scope).filter(({ rule }) => rule !== 'type-mismatch');
      if (problem !== undefined) this.report(problem.rule, at, field, `in {${name}}: ${problem.message}`);
    }
  }
}

export function drivesRepeat(variable: Variable, kind: 'times' | 'each'): boolean {
  if (variable.of !== 'question' && variable.of !== 'given') return false;
  const answer = variable.of === 'question' ? variable.question.answer : variable.given.answer;
  if (kind === 'each') return picksMany(answer);
  return isNumeric(answer) && isWhole(answer);
}
