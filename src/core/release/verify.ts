/**
 * What another implementation of a questionnaire showed, held against its routing: where a respondent left the route that
 * they should have taken, and which forks nobody has tried yet.
 */
import type { Analysis, ForkEvent } from '../analysis';
import { passKey, readPassKey } from '../document/addresses';
import type { Value } from '../document/types';
import type { Plan, PlanSection } from '../routing/plan';
import { walk, type Walk } from '../routing/walk';
import { whyLines } from '../wording/why';
import { countedForks, forkKey, forksTaken } from './forks-taken';
import { answerRead, askedUnder, DRAWN, ENDING, FULL, GIVEN, type AskedUnder } from './steps';

/** One line of what was observed. */
export interface ObservedStep {
  /** As it is numbered there. */
  readonly step: string;
  readonly item: string;
  readonly answer: string;
}

export interface Difference {
  readonly respondent: string;
  readonly step: string;
  /** The key of an item, or `ending ID`; empty where nothing is to come. */
  readonly expected: string;
  readonly seen: string;
  /** A clause without a full stop. */
  readonly because: string;
}

export interface Verified {
  readonly respondents: number;
  readonly agree: number;
  readonly differ: readonly Difference[];
  readonly forks: {
    /** Outcomes that few routes take between them: all that anybody can meet, unless `complete` is false. */
    readonly all: number;
    readonly taken: number;
    readonly untaken: readonly ForkEvent[];
    readonly complete: boolean;
  };
}

/** More quotas at one question than these are not tried in every combination. */
const MOST_QUOTAS = 4;

/** Takes one respondent after the other, in any order. */
export class Verification {
  private readonly under: (key: string) => AskedUnder | null;
  private readonly differ: Difference[] = [];
  private readonly taken = new Map<string, ForkEvent>();
  private respondents = 0;

  constructor(
    private readonly plan: Plan,
    private readonly analysis: Analysis,
  ) {
    this.under = askedUnder(plan);
  }

  /** `steps` in the order in which they were shown. */
  take(respondent: string, steps: readonly ObservedStep[]): void {
    this.respondents += 1;
    const observed = this.observed(steps);
    const judged = this.fullSets(observed).map((full) => this.judge(observed, full));
    // The one that goes along with them furthest, if no quota need be full, that.
    const [best] = judged.sort((a, b) => b.agreed - a.agreed);
    if (best === undefined) return;
    if (best.difference !== null) {
      this.differ.push({ respondent, ...best.difference });
      return;
    }
    for (const event of best.walk === null ? [] : forksTaken(this.plan, best.walk))
      this.taken.set(forkKey(event), event);
  }

  result(): Verified {
    const { cover } = this.analysis;
    const all = countedForks(
      cover.routes.flatMap((route) => {
        const walked = walk(this.plan, route);
        return walked.ok ? forksTaken(this.plan, walked.walk) : [];
      }),
    );
    const untaken = all.filter((event) => !this.taken.has(forkKey(event)));
    return {
      respondents: this.respondents,
      agree: this.respondents - this.differ.length,
      differ: this.differ,
      forks: { all: all.length, taken: all.length - untaken.length, untaken, complete: cover.complete },
    };
  }

  private observed(steps: readonly ObservedStep[]): Observed {
    const answers: Record<string, Value | null> = {};
    const given: Record<string, Value | null> = {};
    const shown: Shown[] = [];
    let full: string[] | null = null;
    for (const { step, item, answer } of steps) {
      const name = item.startsWith(GIVEN) ? item.slice(GIVEN.length) : item;
      const known = this.plan.document.given?.find((each) => each.name === name);
      if (known !== undefined) given[name] = answerRead(known.answer, answer) ?? null;
      else if (item === FULL)
        full = answer
          .split(';')
          .map((id) => id.trim())
          .filter((id) => id !== '');
      else if (item === ENDING) shown.push({ step, key: `${ENDING} ${answer.trim()}`, problem: null });
      // Which questions were drawn shows in what was shown.
      else if (!item.startsWith(DRAWN)) this.showing(step, item, answer, answers, shown);
    }
    return { answers, given, full, shown, draws: this.drawsOf(shown) };
  }

  private showing(
    step: string,
    item: string,
    answer: string,
    answers: Record<string, Value | null>,
    shown: Shown[],
  ): void {
    const under = this.under(item);
    const key = under?.item ?? item;
    const value = under === null || under.answer === null ? null : answerRead(under.answer, answer);
    if (under?.answer != null) answers[item] = value ?? null;
    const problem =
      value === undefined ? `“${answer}” is no answer to ${item}: codes are numbers, several with “;”` : null;
    // The rows of a grid stand one after the other, and are shown together.
    if (shown.at(-1)?.key !== key || under?.answer === null || item === key)
      shown.push({ step, key, problem });
    else if (problem !== null) shown[shown.length - 1] = { step, key, problem };
  }

  /** What was drawn, by what was shown of each section that draws; where that was too few, with others behind them. */
  private drawsOf(shown: readonly Shown[]): Record<string, string[]> {
    const draws: Record<string, string[]> = {};
    const keys = new Set(shown.map(({ key }) => key));
    for (const section of this.plan.sections) {
      const wanted = section.section.draw;
      if (wanted === undefined) continue;
      const passes =
        section.repeat === null ? [null] : Array.from({ length: section.repeat.max }, (_, n) => n + 1);
      for (const pass of passes) {
        const names = drawnIn(section, pass, keys, wanted);
        if (names !== null) draws[passKey(section.section.id, pass)] = names;
      }
    }
    return draws;
  }

  /** The sets of full quotas to try: as they were told, or those that could explain what was shown. */
  private fullSets({ full, shown }: Observed): string[][] {
    const { quotas = [] } = this.plan.document;
    if (full !== null) return [full.filter((id) => quotas.some((quota) => quota.id === id))];
    const names = new Set(shown.map(({ key }) => readPassKey(key).name));
    const met = quotas.filter(({ at }) => names.has(at)).map(({ id }) => id);
    if (met.length > MOST_QUOTAS) return [[], ...met.map((id) => [id])];
    return met.reduce<string[][]>((sets, id) => [...sets, ...sets.map((set) => [...set, id])], [[]]);
  }

  private judge({ answers, given, draws, shown }: Observed, full: string[]): Judged {
    const last = shown.at(-1);
    const ended = last?.key.startsWith(`${ENDING} `) === true;
    const input = { answers, given, draws, full, seed: 1 };
    const result = walk(
      this.plan,
      ended || last === undefined ? input : { ...input, ...this.stop(last.key) },
    );
    if (!result.ok) {
      const [first] = shown;
      const difference = {
        step: first?.step ?? '',
        expected: '',
        seen: first?.key ?? '',
        because: result.problem,
      };
      return { agreed: -1, difference, walk: null };
    }
    const { steps, ending } = result.walk;
    const expected = steps.map(({ key }) => key);
    if (ending !== null) expected.push(`${ENDING} ${this.plan.endings[ending]?.ending.id ?? ''}`);
    const at = shown.findIndex(({ key, problem }, n) => problem !== null || key !== expected[n]);
    if (at < 0) return { agreed: shown.length, difference: null, walk: result.walk };
    const { step, key, problem } = shown[at] as Shown;
    const due = expected[at] ?? '';
    const because = problem ?? this.because(result.walk, due, key, at);
    return { agreed: at, difference: { step, expected: due, seen: key, because }, walk: result.walk };
  }

  /** An item that the questionnaire does not have stops nobody. */
  private stop(key: string): { stoppedAt?: string } {
    return this.under(key) === null ? {} : { stoppedAt: key };
  }

  private because(walked: Walk, due: string, seen: string, at: number): string {
    const lines = new Map(whyLines(this.plan, walked).map((line) => [line.name, line]));
    const last = walked.steps[at - 1];
    const fault = last?.faults.find(({ kind }) => kind !== 'soft' && kind !== 'unspecified');
    if (due === '' && fault !== undefined) return `nobody gets past ${last?.key ?? ''}: ${fault.message}`;
    const reasons: string[] = [];
    const dueLine = lines.get(due);
    if (dueLine !== undefined) reasons.push(`${due} is asked: ${dueLine.because}`);
    else if (due !== '') reasons.push(`${due} comes: ${endedBecause(last)}`);
    else if (walked.ending !== null)
      reasons.push(`nothing comes after the ending ${this.plan.endings[walked.ending]?.ending.id ?? ''}`);
    const seenLine = lines.get(seen);
    if (this.under(seen) === null && !seen.startsWith(`${ENDING} `))
      reasons.push(`the questionnaire has no item “${seen}”`);
    else if (seenLine !== undefined && !seenLine.presented)
      reasons.push(`${seen} is not asked: ${seenLine.because}`);
    else if (seenLine !== undefined) reasons.push(`${seen} comes elsewhere on this route`);
    return reasons.join('; ');
  }
}

interface Shown {
  readonly step: string;
  readonly key: string;
  /** What is wrong with its answer; null where nothing is. */
  readonly problem: string | null;
}

interface Observed {
  readonly answers: Readonly<Record<string, Value | null>>;
  readonly given: Readonly<Record<string, Value | null>>;
  readonly draws: Record<string, string[]>;
  /** Null where it was not told. */
  readonly full: readonly string[] | null;
  readonly shown: readonly Shown[];
}

interface Judged {
  /** How many steps are as they should be. */
  readonly agreed: number;
  readonly difference: Omit<Difference, 'respondent'> | null;
  readonly walk: Walk | null;
}

function drawnIn(
  section: PlanSection,
  pass: number | null,
  keys: ReadonlySet<string>,
  wanted: number,
): string[] | null {
  const questions = section.items.filter(({ item }) => item.kind === 'question').map(({ item }) => item.name);
  const shown = questions.filter((name) => keys.has(passKey(name, pass)));
  if (shown.length === 0) return null;
  const behind = questions.slice(questions.indexOf(shown.at(-1) ?? '') + 1);
  const others = questions.filter((name) => !shown.includes(name) && !behind.includes(name));
  return [...shown, ...behind, ...others].slice(0, wanted);
}

function endedBecause(last: Walk['steps'][number] | undefined): string {
  if (last?.departure?.by === 'skip') return `skipped to from ${last.key}`;
  if (last?.departure?.by === 'quota')
    return `sent there from ${last.key}, as quota ${last.departure.quota.id} is full`;
  return last === undefined ? 'nothing is asked' : `carried on from ${last.key}`;
}
