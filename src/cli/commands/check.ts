/** `jolly-fork check FILE`: the snags of a questionnaire. */
import { planOf } from '../../core/routing/planner';
import { analyse } from '../../core/analysis';
import type { Plan } from '../../core/routing/plan';
import { allSnagsOf, type SnagWitness } from '../../core/snags';
import { steeringParts } from '../../core/views/steering-parts';
import { asSentence } from '../../core/wording/sentence';
import { placeWords } from '../../core/wording/places';
import { readCall, readQuestionnaire } from '../files';
import { exitCode, judgedBy } from '../judged';

export function command(args: readonly string[]): number {
  const { file, values } = readCall(args, {});
  const document = readQuestionnaire(file);
  const plan = planOf(document);
  const snags = allSnagsOf(plan, analyse(plan));
  if (values.json) {
    const listed = snags.map(({ rule, severity, at, message, witness }) => ({
      rule,
      severity,
      at,
      message,
      ...(witness === undefined ? {} : { witness }),
    }));
    process.stdout.write(`${JSON.stringify({ snags: listed }, null, 2)}\n`);
  } else {
    process.stdout.write(
      `${document.title}: ${snags.length === 0 ? 'no snags' : plural(snags.length, 'snag')}\n`,
    );
    for (const { severity, rule, at, message, witness, mends } of snags) {
      const lines = [
        `${severity}  ${rule}  at ${placeWords(document, at)}`,
        `  ${asSentence(message)}`,
        ...(witness === undefined ? [] : [`  For one: ${witnessWords(plan, witness)}`]),
        ...(mends ?? []).map(({ label }) => `  Mend: ${label}`),
      ];
      process.stdout.write(`\n${lines.join('\n')}\n`);
    }
  }
  return exitCode(['check', ...args], judgedBy(snags));
}

/** The answers that matter, and where they end. */
function witnessWords(plan: Plan, witness: SnagWitness): string {
  const answers = steeringParts(plan, witness).map(
    ({ key }) => `${key}=${JSON.stringify(witness.answers[key] ?? null)}`,
  );
  const ends = witness.ending === null ? 'stopped there' : `ends at ${witness.ending}`;
  return [...answers, ends].join(' ');
}

function plural(count: number, word: string): string {
  return `${count} ${word}${count === 1 ? '' : 's'}`;
}
