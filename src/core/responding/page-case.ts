/** As much of a case as the page is told on which it is answered: what its walk follows from, and nothing of times and detours. */
import * as v from 'valibot';
import { KeptCaseSchema } from './kept-case';
import { TurnedCaseSchema, type TurnedCase } from './turn';

const { startedAt, closed, given, seed, answers, timedOut, full, at, reached, clocks, isPerson } =
  KeptCaseSchema.entries;

export const PageCaseSchema = v.strictObject({
  ...{ startedAt, closed, given, seed, answers, timedOut, full, at, reached, clocks, isPerson },
  turns: TurnedCaseSchema.entries.turns,
});
export type PageCase = v.InferOutput<typeof PageCaseSchema>;

export function pageCase(kept: TurnedCase): PageCase {
  return {
    startedAt: kept.startedAt,
    closed: kept.closed,
    given: kept.given,
    seed: kept.seed,
    answers: kept.answers,
    timedOut: kept.timedOut,
    full: kept.full,
    at: kept.at,
    reached: kept.reached,
    clocks: kept.clocks,
    isPerson: kept.isPerson,
    turns: kept.turns,
  };
}
