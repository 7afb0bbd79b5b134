/** Made-up respondents who were walked straight through, to hold against those who take detours as they answer. */
import assert from 'node:assert/strict';
import { columnsOf } from '../../src/core/coding/columns';
import type { Answers, Questionnaire } from '../../src/core/document/types';
import { rowOfCase } from '../../src/core/responding/case-data';
import type { KeptCase } from '../../src/core/responding/kept-case';
import { hash } from '../../src/core/routing/chance';
import type { Plan } from '../../src/core/routing/plan';
import { madeUpRespondents, type MadeUp } from '../../src/core/simulate/respondents';
import { planFor } from '../support/questionnaire';

/**
 * Has each of some people answered by `answered` (with somebody else's answers for the detours, and the seed of their chance), and
 * their row held against the one they were made up with. How many were compared: somebody who ends on a detour (null) is not.
 */
export function comparedRows(
  document: Questionnaire,
  about: string,
  people: number,
  answered: (plan: Plan, person: MadeUp, other: Answers, seed: number) => KeptCase | null,
): number {
  // A quota counts everybody before: made up with one, a respondent is not by themselves.
  const plan = planFor({ ...document, quotas: [] });
  const columns = columnsOf(plan).map(({ name }) => name);
  const all = [...madeUpRespondents(plan, people, 7)];
  let compared = 0;
  for (const [n, person] of all.entries()) {
    if (person.ending === null) continue;
    const kept = answered(plan, person, all[(n + 1) % all.length]?.answers ?? {}, hash(`7/${n + 1}`));
    if (kept === null) continue;
    compared += 1;
    const row = rowOfCase(plan, kept);
    assert.deepEqual(
      columns.map((name) => row[name]),
      person.row(),
      `${about}, respondent ${n + 1}`,
    );
  }
  return compared;
}
