/** `jolly-fork check FILE`: the snags of a questionnaire. */
import { planOf } from '../core/routing/planner';
import { isProvisional, snagsOf } from '../core/snags';
import { placeWords } from '../core/wording/places';
import { readCall, readQuestionnaire } from './files';

export function check(args: readonly string[]): number {
  const { file, values } = readCall(args, {});
  const document = readQuestionnaire(file);
  const snags = snagsOf(planOf(document));
  if (values.json) {
    const listed = snags.map(({ rule, severity, at, message }) => ({ rule, severity, at, message }));
    process.stdout.write(`${JSON.stringify({ snags: listed }, null, 2)}\n`);
  } else {
    process.stdout.write(
      `${document.title}: ${snags.length === 0 ? 'no snags' : plural(snags.length, 'snag')}\n`,
    );
    for (const snag of snags) {
      process.stdout.write(
        `\n${snag.severity}  ${snag.rule}  at ${placeWords(document, snag.at)}\n  ${snag.message}\n`,
      );
    }
  }
  return isProvisional(snags) ? 1 : 0;
}

function plural(count: number, word: string): string {
  return `${count} ${word}${count === 1 ? '' : 's'}`;
}
