/** What leaves the device of a case: its coded row, as CSV and as the body that is posted (`docs/instrument.md`). */
import { codedRow } from '../coding/row';
import { columnsOf } from '../coding/columns';
import type { Value } from '../document/types';
import { csvLines } from '../exchange/csv';
import type { Plan } from '../routing/plan';
import { walk, type Walk } from '../routing/walk';
import { inputsOf, pagesOfCase, type KeptCase } from './kept-case';
import { followed } from './session';

/** Names the shape of `PostedCase`. */
export const CASE_CONTRACT = 'jolly-fork-case/1';

/** Which questionnaire a case is of. */
export interface Asked {
  readonly title: string;
  /** “Version 2, frozen 2026-11-09”, or “Draft”. */
  readonly version: string;
  /** Of the text of the questionnaire: tells two drafts apart. */
  readonly checksum: string;
}

export interface PostedCase {
  readonly contract: typeof CASE_CONTRACT;
  /** The same for each time that it is sent. */
  readonly key: string;
  readonly case: string;
  readonly questionnaire: Asked;
  /** ISO 8601, in UTC. */
  readonly startedAt: string;
  /** Null while it is answered. */
  readonly closedAt: string | null;
  readonly state: 'answering' | 'ended' | 'stopped';
  /** Id of the ending; null where it has come to none. */
  readonly ending: string | null;
  /** Column by column, as in the codebook. */
  readonly row: Readonly<Record<string, number | string>>;
  /** As they were given, before coding; those that a change of mind took off the route are in `dropped`. */
  readonly answers: Readonly<Record<string, Value | null>>;
  readonly dropped: KeptCase['dropped'];
  readonly changed: KeptCase['changed'];
  readonly pages: KeptCase['visits'];
}

/** The walk of a case: until its ending, or until the last item that was presented. Null where a given value is lacking. */
export function walkOfCase(plan: Plan, kept: KeptCase): Walk | null {
  const input = { answers: kept.answers, ...inputsOf(kept), lenient: true };
  const whole = followed(plan, { answers: kept.answers, inputs: inputsOf(kept) }).result;
  if (!whole.ok) return null;
  if (kept.closed?.by === 'ending') return whole.walk;
  const seen = new Set(
    pagesOfCase(plan, kept)
      .slice(0, kept.at + 1)
      .flatMap(({ steps }) => steps.map(({ key }) => key)),
  );
  const last = whole.walk.steps.findLast(({ key }) => seen.has(key));
  if (last === undefined) return whole.walk;
  const stopped = walk(plan, { ...input, stoppedAt: last.key });
  return stopped.ok ? stopped.walk : null;
}

/** Column by column; empty where its walk cannot be had. */
export function rowOfCase(plan: Plan, kept: KeptCase): Record<string, number | string> {
  const walked = walkOfCase(plan, kept);
  return walked === null ? {} : codedRow(plan, walked, kept.answers);
}

export function postedCase(plan: Plan, kept: KeptCase, questionnaire: Asked): PostedCase {
  const walked = walkOfCase(plan, kept);
  const { closed, answers, dropped, changed } = kept;
  return {
    contract: CASE_CONTRACT,
    key: kept.key,
    case: kept.id,
    questionnaire,
    startedAt: new Date(kept.startedAt).toISOString(),
    closedAt: closed === null ? null : new Date(closed.at).toISOString(),
    state: closed === null ? 'answering' : closed.by === 'ending' ? 'ended' : 'stopped',
    ending: (walked?.ending == null ? undefined : plan.endings[walked.ending]?.ending.id) ?? null,
    row: walked === null ? {} : codedRow(plan, walked, answers),
    answers,
    dropped,
    changed,
    pages: kept.visits,
  };
}

/** Columns of a file of cases that the codebook does not have. */
const OF_CASE = ['case', 'started', 'closed', 'state'];

/**
 * Rows of cases, under a header, with the columns of the codebook behind four that say which case it is. A column that the
 * questionnaire calls the same keeps its name, and the one of the case gets `_` in front.
 */
export function casesCsv(plan: Plan, cases: readonly KeptCase[], questionnaire: Asked): string {
  const columns = columnsOf(plan).map(({ name }) => name);
  const taken = new Set(columns.map((name) => name.toLowerCase()));
  const own = OF_CASE.map((name) => {
    let free = name;
    while (taken.has(free)) free = `_${free}`;
    return free;
  });
  const rows = cases.map((kept) => {
    const { row, startedAt, closedAt, state } = postedCase(plan, kept, questionnaire);
    return [kept.id, startedAt, closedAt ?? '', state, ...columns.map((name) => row[name] ?? '')];
  });
  return csvLines([[...own, ...columns], ...rows]);
}
