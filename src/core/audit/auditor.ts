/**
 * Holds collected rows against the routing, one by one: which answers are where none can be, which are missing, and
 * which blanks the routing explains.
 *
 * Where an answer that steers is missing or cannot be read, the row is judged by the answer in its place that leaves
 * the fewest problems, so that one fault is one problem; blanks are filled only where all such answers agree. The same
 * for quotas, of which a row does not say whether they were full.
 */
import { candidatesFor } from '../analysis';
import type { Column } from '../coding/columns';
import type { Walked } from '../document/walked';
import type { Plan } from '../routing/plan';
import { CleanRows } from './clean-rows';
import { AuditLayout } from './layout';
import {
  NOTHING_ASSUMED,
  RowTrials,
  type Assumed,
  type AuditRow,
  type OpenPoint,
  type Trial,
} from './row-trials';
import type { AuditOptions, Came, CellWritten, RowJudgement, RowProblem } from './types';

/** Ways that one row is tried at most, where answers are missing. */
const MOST_TRIED = 150;
/** Answers tried in the place of one that is missing. */
const MOST_CANDIDATES = 24;

export class Auditor {
  readonly columns: readonly Column[];
  private readonly clean: CleanRows;
  private readonly trials: RowTrials;

  /** `isThere`: which columns of `columnsOf` the file has; all by default. */
  constructor(
    private readonly plan: Plan,
    options: AuditOptions = {},
    isThere?: readonly boolean[],
  ) {
    const layout = new AuditLayout(plan, isThere);
    this.columns = layout.columns;
    this.clean = new CleanRows(layout, options);
    this.trials = new RowTrials(layout, options);
  }

  /** `texts`: what the row holds, parallel to `columns`; empty where the file has no such column. */
  judge(texts: readonly string[]): RowJudgement {
    return this.clean.judge(texts) ?? this.weigh(texts);
  }

  /** The same, of any row: by what leaves the fewest problems. */
  weigh(texts: readonly string[]): RowJudgement {
    const row = this.trials.read(texts);
    const best = this.best(row);
    const [first] = best as [Trial];
    return {
      problems: first.judged.problems.map(({ problem, column }): RowProblem => ({
        problem,
        column: this.columns[column]?.name ?? '',
        value: texts[column] ?? '',
        ...(problem === 'wrong-ending' ? { instead: this.endingOf(first.expected.came) } : {}),
      })),
      filled: best.length === 1 ? first.judged.filled : agreed(best.map(({ judged }) => judged.filled)),
      recoded: first.judged.recoded,
      came: first.expected.came,
    };
  }

  private endingOf(came: Came): string {
    return came.to === 'stop' ? '' : (this.plan.endings[came.ending]?.ending.id ?? '');
  }

  /** The respondent of a row, to be walked: with the answers that the best reading of it assumes. */
  walkedOf(texts: readonly string[]): Walked & { readonly stoppedAt?: string } {
    const row = this.trials.read(texts);
    const [first] = this.best(row) as [Trial];
    const { answers, given, draws, full } = this.trials.slowInput(row, first.assumed, first.draws);
    const { came } = first.expected;
    return { answers, given, draws, full: [...full], ...(came.to === 'stop' ? { stoppedAt: came.at } : {}) };
  }

  /** The trials with the fewest problems; the first one is by what the row itself says, if that is among them. */
  private best(row: AuditRow): readonly Trial[] {
    const first = this.trials.attempt(row, NOTHING_ASSUMED);
    let best = [first];
    if (first.cost === 0 || first.open.length === 0) return best;
    const waiting = [first];
    let tried = 1;
    while (waiting.length > 0 && tried < MOST_TRIED) {
      const from = takeCheapest(waiting);
      const [open] = from.open;
      // Going on from here finds nothing better than what is known.
      if (open === undefined || from.cost === 0 || fewestBelow(from, open) > mostLooked(best)) continue;
      for (const assumed of this.assumptions(from.assumed, open)) {
        if (tried >= MOST_TRIED) break;
        tried += 1;
        const trial = this.trials.attempt(row, assumed);
        waiting.push(trial);
        const least = best[0]?.cost ?? Infinity;
        if (trial.cost < least) best = [trial];
        else if (trial.cost === least) best.push(trial);
      }
    }
    return best;
  }

  private assumptions(from: Assumed, open: OpenPoint): Assumed[] {
    const { values, quotas } = from;
    if (open.of === 'quota')
      return [true, false].map((full) => ({ ...from, quotas: new Map([...quotas, [open.id, full]]) }));
    if (open.of === 'stop') return open.at.map((stop) => ({ ...from, stop }));
    const { group } = open;
    const driver = this.trials.driverOf(group);
    const candidates = driver === undefined ? [] : candidatesFor(driver, group.answer).values;
    return [null, ...candidates.filter((each) => each !== null).slice(0, MOST_CANDIDATES)].map((value) => ({
      ...from,
      values: new Map([...values, [group.slot, value]]),
    }));
  }
}

/**
 * How many problems a reading of a row may come to and still be looked at: one more than the fewest there can be, once a
 * reading is found in which nothing is wrong but answers that are not known. With it, a blank that is a second missing
 * answer is not taken for one that follows from the first; with more, nearly all rows with a fault would be tried in every
 * way there is.
 */
function mostLooked(best: readonly Trial[]): number {
  if (best[0]?.cost !== 0) return Infinity;
  return Math.min(...best.map(({ judged }) => judged.problems.length)) + 1;
}

/**
 * Of trials that go on from one with an assumption more, how many problems each has at least: answers that were assumed
 * and one of which something is assumed then stay problems, for what comes later does not change that they were asked.
 */
function fewestBelow({ assumed, judged }: Trial, open: OpenPoint): number {
  const slots = new Set(
    judged.problems.flatMap(({ unknown }) =>
      unknown !== null && assumed.values.has(unknown.slot) ? [unknown.slot] : [],
    ),
  );
  const isProblem = open.of === 'answer' && judged.problems.some(({ unknown }) => unknown === open.group);
  return slots.size + (isProblem ? 1 : 0);
}

function takeCheapest(waiting: Trial[]): Trial {
  let at = 0;
  waiting.forEach(({ cost }, n) => {
    if (cost < (waiting[at]?.cost ?? 0)) at = n;
  });
  return waiting.splice(at, 1)[0] as Trial;
}

/** What all of them write. */
function agreed(lists: readonly (readonly CellWritten[])[]): CellWritten[] {
  const [first = [], ...others] = lists;
  const maps = others.map((list) => new Map(list.map(({ column, value }) => [column, value])));
  return first.filter(({ column, value }) => maps.every((map) => map.get(column) === value));
}
