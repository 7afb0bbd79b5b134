/** Why an item was presented, or passed over, in a walk: one sentence each, with the values that decided. */
import { valueOf, type Environment } from '../condition/evaluate';
import { printCondition } from '../condition/print';
import { eachName, type Condition } from '../condition/syntax';
import { passKey } from '../document/addresses';
import type { Plan, PlanItem, PlanSection } from '../routing/plan';
import type { PassedOver } from '../routing/step';
import type { Walk, WalkStep } from '../routing/walk';

export interface WhyLine {
  /** `name`, or `name#pass`. */
  readonly name: string;
  readonly presented: boolean;
  readonly because: string;
}

/** One line for every item and pass that was presented or could have been, in canonical order. */
export function whyLines(plan: Plan, walk: Walk): WhyLine[] {
  const lines: WhyLine[] = [];
  const steps = new Map(walk.steps.map((step, index) => [step.key, index]));
  for (const section of plan.sections) {
    const passes =
      section.repeat === null ? [null] : range(1, Math.max(1, walk.passes.get(section.index) ?? 0));
    for (const pass of passes) {
      for (const planItem of section.items) {
        const key = passKey(planItem.item.name, pass);
        const step = steps.get(key);
        const because =
          step === undefined ? passedOverBecause(walk, planItem, pass) : presentedBecause(plan, walk, step);
        lines.push({ name: key, presented: step !== undefined, because });
      }
    }
  }
  return lines;
}

function range(from: number, to: number): number[] {
  return Array.from({ length: to - from + 1 }, (_, index) => from + index);
}

/** Why the step at `index` was presented. */
export function presentedBecause(plan: Plan, walk: Walk, index: number): string {
  const step = walk.steps[index] as WalkStep;
  const { planItem, pass } = step;
  const section = plan.sections[planItem.section] as PlanSection;
  const reasons = [index === 0 ? 'the first item' : cameFrom(walk, index)];
  if (planItem.askIf !== null) {
    reasons.push(`asked if ${holding(planItem.askIf, walk.environment(planItem.section, pass), true)}`);
  } else if (section.gate !== null) {
    reasons.push(`section asked if ${holding(section.gate, walk.environment(section.index, null), true)}`);
  }
  if (section.section.draw !== undefined && planItem.item.kind === 'question')
    reasons.push('drawn for this respondent');
  return reasons.join('; ');
}

function cameFrom(walk: Walk, index: number): string {
  const previous = walk.steps[index - 1] as WalkStep;
  const { departure } = previous;
  switch (departure?.by) {
    case 'skip': {
      const { skip } = departure;
      const { planItem, pass } = previous;
      if (skip.if === null) return `skipped to from ${previous.key}, always`;
      return `skipped to from ${previous.key}, as ${holding(skip.if, walk.environment(planItem.section, pass), true)}`;
    }
    case 'quota':
      return `sent on from ${previous.key}, as quota ${departure.quota.id} is full`;
    default:
      return `carried on from ${previous.key}`;
  }
}

/** Why an item was passed over, or not come to. */
export function passedOverBecause(walk: Walk, planItem: PlanItem, pass: number | null): string {
  const record = walk.passedOver.find(
    ({ section, pass: p, item }) =>
      section === planItem.section && (item === null || (item === planItem.index && p === pass)),
  );
  if (record !== undefined) return overBecause(record.why, walk.environment(planItem.section, record.pass));
  const place = [planItem.section, pass ?? 1, planItem.index] as const;
  const next = walk.steps.findIndex((step) =>
    isAfter([step.planItem.section, step.pass ?? 1, step.planItem.index], place),
  );
  if (next < 0 && walk.ending === null)
    return `not reached: stopped at ${walk.steps.at(-1)?.key ?? 'the start'}`;
  const jump = walk.steps[(next < 0 ? walk.steps.length : next) - 1];
  if (jump === undefined) return 'not on this route';
  return jumpWords(walk, jump);
}

function jumpWords(walk: Walk, jump: WalkStep): string {
  const { departure, planItem, pass, key } = jump;
  if (departure?.by === 'quota') return `passed over from ${key}, as quota ${departure.quota.id} is full`;
  if (departure?.by === 'time-out') return `not reached: the time ran out at ${key}`;
  if (departure?.by !== 'skip') return `passed over after ${key}: the section's end leads past it`;
  const { skip } = departure;
  if (skip.if === null) return `skipped over from ${key}, always`;
  return `skipped over from ${key}, as ${holding(skip.if, walk.environment(planItem.section, pass), true)}`;
}

function isAfter(a: readonly [number, number, number], b: readonly [number, number, number]): boolean {
  return a[0] - b[0] > 0 || (a[0] === b[0] && (a[1] - b[1] > 0 || (a[1] === b[1] && a[2] > b[2])));
}

function overBecause(why: PassedOver, environment: Environment): string {
  switch (why.because) {
    case 'ask-if':
      return `asked only if ${holding(why.condition, environment, false)}`;
    case 'section-ask-if':
      return `its section is asked only if ${holding(why.condition, environment, false)}`;
    case 'not-drawn':
      return 'not drawn for this respondent';
    case 'nothing-shown':
      return 'none of its options is shown to this respondent';
    case 'no-pass':
      return 'its section has no pass for this respondent';
    default:
      return why satisfies never;
  }
}

/** A condition and, where that says more, the values it was decided on. */
export function holding(condition: Condition, environment: Environment, held: boolean): string {
  const text = printCondition(condition);
  const values = new Map<string, string>();
  eachName(condition, (node) => {
    if (values.has(node.name)) return;
    const reading = environment.read(node.name.toLowerCase());
    const shown = reading.value ?? valueOf(node, environment);
    values.set(
      node.name,
      shown === null ? 'has no value' : `= ${Array.isArray(shown) ? `[${shown.join(', ')}]` : String(shown)}`,
    );
  });
  const facts = [...values].map(([name, value]) => `${name} ${value}`).join(', ');
  if (facts === '' || (held && facts === text)) return text;
  return `${text} (${facts})`;
}
