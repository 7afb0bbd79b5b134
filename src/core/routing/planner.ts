/**
 * Makes a plan of a questionnaire: conditions parsed and checked, targets found.
 *
 * Whatever breaks a rule is reported and made harmless: a condition with a problem never holds, a bad
 * target is absent, a repeat over nothing usable has no pass, a derived variable with a problem no value.
 */
import { isBefore, type Position, type Scope } from '../condition/scope';
import { isNumeric, isWhole, picksMany, rowsOf } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Ending, GridRow, Question, Questionnaire, RoutedItem, Section, Skip } from '../document/types';
import { isRepeated, type Variable } from '../document/variables';
import { DerivedPlanner } from './derived-plans';
import {
  onwardList,
  type Plan,
  type PlanEnding,
  type PlanItem,
  type PlanQuota,
  type PlanRepeat,
  type PlanSection,
  type PlanSkip,
} from './plan';
import { Planning } from './planning';
import type { DocumentPlace, PlanProblem, PlanRule } from './problems';
import { isSameSurroundings } from './surroundings';
import { TargetFinder } from './targets';

const NO_NAMES: ReadonlySet<string> = new Set();

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
  private readonly planning: Planning;
  private readonly targets: TargetFinder;
  private readonly end: Position;

  constructor(
    private readonly document: Questionnaire,
    /** Sections planned before, of a document with the same surroundings. */
    private readonly known: readonly PlanSection[] | null,
  ) {
    this.planning = new Planning(document);
    this.targets = new TargetFinder(this.planning);
    this.end = { section: document.sections.length, item: 0 };
  }

  plan(): Plan {
    const { document } = this;
    const planner = new DerivedPlanner(this.planning, this.end);
    const derived = (document.derived ?? []).map((entry, index) => planner.plan(entry, index));
    const quotas = this.quotas();
    const sections = document.sections.map((section, s) => this.sectionOnce(section, s, quotas));
    const endings = document.endings.map((ending) => this.ending(ending));
    const lastEnding = document.endings.findIndex((ending) => ending.kind === 'complete');
    return {
      document,
      variables: this.planning.variables,
      sections,
      derived,
      endings,
      lastEnding,
      problems: this.planning.problems,
    };
  }

  private quotas(): ReadonlyMap<string, PlanQuota[]> {
    const at = new Map<string, PlanQuota[]>();
    for (const quota of this.document.quotas ?? []) {
      const place = { quota: quota.id };
      const position = this.targets.positionOf(quota.at);
      const section = position && this.document.sections[position.section];
      if (position === undefined || section === undefined) {
        this.planning.report(
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
        this.planning.report(
          'unknown-target',
          place,
          'at',
          `“${quota.at}” is not a question outside drawn, shuffled and repeated sections`,
        );
        continue;
      }
      const scope = this.planning.scope({ section: position.section, item: position.place + 1 }, null);
      const condition = this.planning.condition(quota.if, scope, place, 'if');
      const to = this.targets.find(
        quota.to,
        { section: position.section, item: position.place + 1 },
        null,
        place,
      );
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
      this.planning.problems.push(...problems);
      return known;
    }
    const others = this.planning.problems;
    this.planning.problems = [];
    const planned = this.section(section, s, quotas);
    problemsOf.set(planned, this.planning.problems);
    this.planning.problems = [...others, ...this.planning.problems];
    return planned;
  }

  /** What a section repeats over is shown by its words. */
  private isDrivenBySame({ repeat }: PlanSection): boolean {
    if (repeat === null || repeat.driver?.of !== 'question') return true;
    const now = this.planning.variables.get(repeat.driver.name.toLowerCase());
    return now?.of === 'question' && now.question === repeat.driver.question;
  }

  private section(section: Section, s: number, quotas: ReadonlyMap<string, PlanQuota[]>): PlanSection {
    const at = { section: section.id };
    const entry = this.planning.scope({ section: s, item: 0 }, null);
    const gate = this.planning.optional(section.askIf, entry, at, 'askIf');
    const repeat = this.repeat(section, s);
    const within = this.planning.scope({ section: s, item: 0 }, isRepeated(section) ? s : null);
    this.planning.pipes('section', section, within, at);
    let page = 0;
    const items: PlanItem[] = [];
    section.items.forEach((item, place) => {
      if (item.kind === 'page_break') page += 1;
      else items.push(this.item(item, section, s, place, items.length, page, quotas));
    });
    const beyond = { section: s + 1, item: 0 };
    const onward = this.skips(
      onwardList(section),
      'onward',
      this.planning.scope(beyond, null),
      beyond,
      null,
      at,
    );
    return { index: s, section, gate, repeat, items, onward };
  }

  private repeat(section: Section, s: number): PlanRepeat | null {
    const { repeat } = section;
    if (repeat === undefined) return null;
    const kind = 'times' in repeat ? 'times' : 'each';
    const name = 'times' in repeat ? repeat.times : repeat.each;
    const at = { section: section.id };
    const refuse = (rule: PlanRule, message: string): PlanRepeat => {
      this.planning.report(rule, at, 'repeat', message);
      return { kind, driver: null, max: repeat.max };
    };
    const variable = this.planning.variables.get(name.toLowerCase());
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
    const before = this.planning.scope({ section: s, item: place }, openPass, shuffled);
    const after = this.planning.scope({ section: s, item: place + 1 }, openPass, shuffled);
    const at = { item: item.name };
    const askIf = this.planning.optional(item.askIf, before, at, 'askIf');
    this.planning.pipes(item.kind, item, before, at);
    const skips = this.skips(item.skips ?? [], 'skip', after, { section: s, item: place + 1 }, openPass, at);
    const namesakes = this.namesakesIn(item, s, place);
    const base = { item, section: s, index, place, page, askIf, namesakes, skips };
    if (item.kind === 'statement')
      return { ...base, optionIf: [], rowIf: [], checks: [], assumedIf: [], quotas: [] };
    // Where two items have one name, the quota belongs to the first of them.
    const position = this.targets.positionOf(item.name);
    const isMeant = position?.section === s && position.place === place;
    const here = isMeant ? (quotas.get(item.name) ?? []) : [];
    return { ...base, ...this.question(item, before, after), quotas: here };
  }

  /** Of the names of an item's variables those that are another's. */
  private namesakesIn(item: RoutedItem, s: number, place: number): ReadonlySet<string> {
    if (item.kind === 'statement') return NO_NAMES;
    const isTaken = (name: string, row: GridRow | null) => {
      const owner = this.planning.variables.get(name.toLowerCase());
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
  ): Pick<PlanItem, 'optionIf' | 'rowIf' | 'checks' | 'assumedIf'> {
    const at = { item: item.name };
    const options = optionsOf(item.answer);
    for (const option of options)
      this.planning.pipes('option', option, before, { ...at, option: option.code });
    const optionIf = options.map((option) =>
      this.planning.optional(option.askIf, before, { ...at, option: option.code }, 'askIf'),
    );
    const rows = rowsOf(item.answer);
    for (const row of rows) this.planning.pipes('row', row, before, { ...at, row: row.name });
    const rowIf = rows.map((row) =>
      this.planning.optional(row.askIf, before, { ...at, row: row.name }, 'askIf'),
    );
    const checks = (item.checks ?? []).map((check, c) => ({
      if: this.planning.condition(check.if, after, at, `checks[${c}].if`),
      kind: check.kind,
      message: check.message,
    }));
    const assumedIf = (item.assume?.where ?? []).map((assumed, n) =>
      this.planning.condition(assumed.if, before, at, `assume.where[${n}].if`),
    );
    for (const code of item.agrees ?? []) {
      if (!options.some((option) => option.code === code)) {
        this.planning.report(
          'unknown-code',
          at,
          'agrees',
          `the consent code ${code} is no option of “${item.name}”`,
        );
      }
    }
    return { optionIf, rowIf, checks, assumedIf };
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
      const condition = this.planning.optional(skip.if, scope, place, 'if');
      const to = this.targets.find(skip.to, from, openPass, place);
      return to === null ? [] : [{ index, if: condition, to }];
    });
  }

  private ending(ending: Ending): PlanEnding {
    const at = { ending: ending.id };
    const scope = this.planning.scope(this.end, null);
    const messages = ending.messages.map((message, m) => {
      this.planning.pipes('message', message, scope, at, `messages[${m}].`);
      return { if: this.planning.optional(message.if, scope, at, `messages[${m}].if`), text: message.text };
    });
    if (ending.next && 'questionnaire' in ending.next) {
      for (const name of ending.next.carry ?? []) {
        if (this.planning.variables.get(name.toLowerCase())?.name !== name) {
          this.planning.report(
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
}

/** Whether passes can be run `times` an answer says, or for `each` option it picks. */
export function drivesRepeat(variable: Variable, kind: 'times' | 'each'): boolean {
  if (variable.of !== 'question' && variable.of !== 'given') return false;
  const answer = variable.of === 'question' ? variable.question.answer : variable.given.answer;
  if (kind === 'each') return picksMany(answer);
  return isNumeric(answer) && isWhole(answer);
}
