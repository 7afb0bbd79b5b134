/** `jolly-fork walk FILE --answers FILE.json`: one respondent's walk and coded row. */
import * as v from 'valibot';
import { codedRow } from '../../core/coding/row';
import { nameInKey, passKey } from '../../core/document/addresses';
import type { Plan } from '../../core/routing/plan';
import { planOf } from '../../core/routing/planner';
import { answerNames, walk, type Walk, type WalkInput } from '../../core/routing/walk';
import { whyLines } from '../../core/wording/why';
import { Misuse, readCall, readJson, readQuestionnaire } from '../files';
import { exitCode, judge } from '../judged';
import { table } from '../table';

const ValueSchema = v.union(
  [v.number(), v.string(), v.array(v.number()), v.null()],
  'an answer is a number, a text, a list of codes or null',
);
const AnswersSchema = v.record(v.string(), ValueSchema);
const WalkFileSchema = v.strictObject({
  answers: AnswersSchema,
  draws: v.optional(v.record(v.string(), v.array(v.string()))),
  given: v.optional(AnswersSchema),
  full: v.optional(v.array(v.string())),
  stoppedAt: v.optional(v.string()),
});

export function command(args: readonly string[]): number {
  const { file, values } = readCall(args, { answers: { type: 'string' }, seed: { type: 'string' } });
  const answersFile = values.answers;
  if (typeof answersFile !== 'string') throw new Misuse('walk needs --answers FILE.json');
  const plan = planOf(readQuestionnaire(file));
  const read = readJson(answersFile, WalkFileSchema);
  refuseUnknownNames(plan, read.answers, answersFile);
  const input: WalkInput = { ...read, ...(values.seed === undefined ? {} : { seed: readSeed(values.seed) }) };
  const result = walk(plan, input);
  if (!result.ok) throw new Misuse(`${answersFile}: ${result.problem}`);
  refuseBadAnswers(result.walk, answersFile);
  const judged = judge(plan);
  const { provisional } = judged;
  const { steps, ending } = result.walk;
  const output = {
    ...(provisional ? { provisional } : {}),
    presented: steps.map(({ key }) => key),
    ending: ending === null ? null : (plan.endings[ending]?.ending.id ?? null),
    row: codedRow(plan, result.walk, input.answers),
    why: whyLines(plan, result.walk),
  };
  process.stdout.write(values.json ? `${JSON.stringify(output, null, 2)}\n` : report(plan, output));
  return exitCode(['walk', ...args], judged);
}

function readSeed(text: string | boolean): number {
  const seed = Number(text);
  if (!Number.isSafeInteger(seed) || seed < 0)
    throw new Misuse(`--seed takes a whole number from 0, not "${String(text)}"`);
  return seed;
}

function refuseUnknownNames(plan: Plan, answers: Readonly<Record<string, unknown>>, file: string): void {
  const known = answerNames(plan);
  for (const key of Object.keys(answers)) {
    if (!known.has(nameInKey(key)))
      throw new Misuse(`${file}: answers.${key}: the questionnaire asks nothing of that name`);
  }
}

function refuseBadAnswers({ steps }: Walk, file: string): void {
  for (const { faults, pass } of steps) {
    for (const fault of faults) {
      if (fault.kind !== 'not-allowed') continue;
      const key = passKey(fault.part, pass);
      throw new Misuse(`${file}: answers.${key}: ${fault.message}`);
    }
  }
}

function report(
  plan: Plan,
  output: {
    presented: string[];
    ending: string | null;
    row: Record<string, number | string>;
    why: { name: string; presented: boolean; because: string }[];
    provisional?: boolean;
  },
): string {
  const width = Math.max(...output.why.map(({ name }) => name.length), 4);
  const lines = [
    `${plan.document.title}: ${itemsText(output.presented.length)} presented, ${output.ending === null ? 'stopped part-way' : `ending ${output.ending}`}`,
    ...(output.provisional ? ['Provisional: the questionnaire has errors (see jolly-fork check).'] : []),
    '',
    ...output.why.map(
      ({ name, presented, because }) => `${presented ? '*' : '-'} ${name.padEnd(width)}  ${because}`,
    ),
    '',
    table(
      ['column', 'value'],
      Object.entries(output.row).map(([column, value]) => [column, String(value)]),
    ),
  ];
  return `${lines.join('\n')}\n`;
}

function itemsText(count: number): string {
  return count === 1 ? '1 item' : `${count} items`;
}
