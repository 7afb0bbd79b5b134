/** Collected rows, one a respondent, as a sample: only those that the routing allows as they are. */
import { AuditRun } from '../../audit/run';
import { passKey } from '../../document/addresses';
import { headerProblem } from '../../audit/matching';
import { isBlank } from '../../routing/answers';
import type { Plan } from '../../routing/plan';
import { walk, type Walk } from '../../routing/walk';
import type { Answers } from '../../document/types';
import { SampleReader, type SeenSample } from './sample';

/**
 * Under a header with the codebook's names; a sentence where it cannot be used. A row of which something cannot be, or is missing, is
 * left out: what it would be read as is a guess.
 */
export function sampleOfRows(
  plan: Plan,
  header: readonly string[],
  rows: Iterable<readonly (string | number)[]>,
): SeenSample | string {
  const problem = headerProblem(header);
  if (problem !== null) return problem;
  // As many programs write it, an answered question of several picks has its other picks left blank.
  const run = new AuditRun(plan, header, { blankPicks: true, codeBlanks: true });
  const known = new Set(run.columns.flatMap(({ name }, n) => (run.matching.places[n] === -1 ? [] : [name])));
  if (known.size === 0) return NO_COLUMN;
  const reader = new SampleReader(plan);
  for (const row of rows) {
    const cells = row.map(String);
    if (run.row(cells).problems.length > 0) {
      reader.leaveOut();
      continue;
    }
    const input = run.walkedOf(cells);
    const walked = walk(plan, { ...input, lenient: true });
    if (walked.ok) reader.read(walked.walk, input.answers, answeredSteps(walked.walk, input.answers));
    else reader.leaveOut();
  }
  return reader.sample;
}

export const NO_COLUMN =
  'No column of these rows is one of the codebook: hold the file against the routing first, in Codes, and match its columns there.';

/** Of whoever stopped part-way, the item in hand counts as answered only where there is an answer. */
function answeredSteps({ steps, ending }: Walk, answers: Answers): Walk['steps'] {
  const last = steps.at(-1);
  if (ending !== null || last === undefined) return steps;
  const isAnswered = last.parts.some(({ name }) => {
    const value = answers[passKey(name, last.pass)] ?? null;
    return value !== null && !isBlank(value);
  });
  return isAnswered ? steps : steps.slice(0, -1);
}
