/**
 * Made-up respondents: each answers what they are presented, by the assumed answers. The same seed gives the same
 * people, whatever is worked out in between.
 */
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { holds } from '../condition/evaluate';
import { optionsOf } from '../document/shape';
import type { Answers, Question, Value } from '../document/types';
import { partsOf, type Shown } from '../routing/answers';
import { hash } from '../routing/draws';
import { itemKey, type Plan, type PlanItem } from '../routing/plan';
import { walk, type Walk } from '../routing/walk';
import { drawAnswer } from './drawing';

export interface MadeUp {
  readonly walk: Walk;
  readonly answers: Answers;
}

/** Answers that break a hard check are thought over again, as often as this; then any answer will do, as often. */
const MOST_TRIES = 200;

/** One after the other; a quota is full once its target of interviews is complete. */
export function* madeUpRespondents(plan: Plan, count: number, seed: number): Generator<MadeUp> {
  const reached = new Map<string, number>();
  const quotas = plan.document.quotas ?? [];
  for (let n = 1; n <= count; n += 1) {
    const full = quotas.filter(({ id, target }) => (reached.get(id) ?? 0) >= target).map(({ id }) => id);
    const made = madeUp(plan, `${seed}/${n}`, full);
    yield made;
    for (const id of countedIn(plan, made.walk)) reached.set(id, (reached.get(id) ?? 0) + 1);
  }
}

function madeUp(plan: Plan, name: string, full: readonly string[]): MadeUp {
  const random = xoroshiro128plus(hash(name));
  const answers: Record<string, Value | null> = {};
  const given: Record<string, Value | null> = {};
  for (const entry of plan.document.given ?? []) {
    const all = { options: optionsOf(entry.answer).map(() => true), rows: [] };
    given[entry.name] = drawAnswer(random, { ...entry, required: true }, all);
  }
  const respond = (planItem: PlanItem, pass: number | null, shown: Shown, tries: number): boolean => {
    const { item } = planItem;
    if (item.kind === 'statement' || tries > 2 * MOST_TRIES) return false;
    const { required } = item;
    const assume = tries > MOST_TRIES ? undefined : item.assume;
    for (const { name: part, answer } of partsOf(planItem, shown)) {
      const value = drawAnswer(
        random,
        { answer, ...(assume ? { assume } : {}), ...(required ? { required } : {}) },
        shown,
      );
      answers[itemKey(part, pass)] = value;
      writeDetails(item, part, pass, value, answers);
    }
    return true;
  };
  const result = walk(plan, { answers, given, full, seed: hash(name), respond });
  if (!result.ok) throw new Error(result.problem);
  return { walk: result.walk, answers };
}

/** The words that a picked answer asks to be specified. */
function writeDetails(
  { answer }: Question,
  part: string,
  pass: number | null,
  value: Value | null,
  answers: Record<string, Value | null>,
): void {
  const codes: readonly unknown[] = typeof value === 'object' && value !== null ? value : [value];
  for (const option of optionsOf(answer)) {
    if (option.specify && codes.includes(option.code))
      answers[itemKey(`${part}_${option.code}_text`, pass)] = 'Something else';
  }
}

/** The quotas that a finished interview counts towards. */
function countedIn(plan: Plan, { steps, ending, environment }: Walk): string[] {
  const kind = ending === null ? undefined : plan.endings[ending]?.ending.kind;
  if (kind !== 'complete' && kind !== 'hand_off') return [];
  return steps.flatMap(({ planItem, pass }) =>
    planItem.quotas
      .filter((quota) => holds(quota.if, environment(planItem.section, pass)))
      .map(({ id }) => id),
  );
}
