/** A steering question that may be left blank, where a blank goes the way of an answer. */
import { FALSE } from '../analysis';
import { hasRows } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Question, Value } from '../document/types';
import { editQuestion } from '../editing/structure';
import type { PlanItem } from '../routing/plan';
import type { CheckContext } from './check-context';
import type { Snag } from './types';

export function blankDecides(context: CheckContext): Snag[] {
  return context.items.flatMap((planItem): Snag[] => {
    const { item } = planItem;
    if (item.kind !== 'question' || item.required || hasRows(item.answer)) return [];
    for (const at of context.placesOf(planItem)) {
      const snag = atPlace(context, planItem, item, at);
      if (snag !== null) return [snag];
    }
    return [];
  });
}

function atPlace(context: CheckContext, planItem: PlanItem, item: Question, at: number): Snag | null {
  const { encoded, flow, diagrams, plan } = context;
  const variable = plan.variables.get(item.name.toLowerCase());
  const standing = context.standingOf(planItem, at);
  const symbol = variable && encoded.symbols.get(encoded.keyOf(variable, standing));
  const states = variable && encoded.statesOf(variable, standing);
  if (symbol === undefined || states == null || symbol.driver.atoms.length === 0) return null;
  // An author who writes of blanks has thought of them.
  if (symbol.driver.atoms.some((atom) => atom.kind === 'state' && atom.state.includes('answered')))
    return null;
  const blank = diagrams.and(flow.answersAt(at), states.blank);
  if (blank === FALSE) return null;
  const blankReading = symbol.readings.findIndex(({ presented, value }) => presented && value === null);
  const like = symbol.readings.findIndex(
    ({ presented, value, missing }, reading) =>
      presented &&
      value !== null &&
      !missing &&
      symbol.legal[reading] !== false &&
      goTheSameWay(context, at, symbol.cube(blankReading), symbol.cube(reading)) &&
      sameElsewhere(context, planItem, symbol.key, blankReading, reading),
  );
  if (like < 0) return null;
  const value = symbol.readings[like]?.value;
  return {
    rule: 'blank-decides',
    severity: 'warning',
    at: { item: item.name },
    message: `this steers, yet may be left blank, and a blank goes the way of ${answerWords(item, value)}: require an answer, or say where a blank leads`,
    ...context.witness(at, blank),
    mends: [
      context.mend(
        editQuestion(context.placeOf(planItem), 'required', `Require an answer to ${item.name}`, (draft) => {
          draft.required = true;
        }),
      ),
    ],
  };
}

/** An answer with its label: `1 (“Yes”)`. */
function answerWords({ answer }: Question, value: Value | null | undefined): string {
  const labelled = (code: number) => {
    const label = optionsOf(answer).find((option) => option.code === code)?.label;
    return label === undefined ? String(code) : `${code} (“${label}”)`;
  };
  if (typeof value === 'number') return labelled(value);
  return typeof value === 'object' && value !== null ? value.map(labelled).join(' and ') : `“${value ?? ''}”`;
}

/** Whether the question's own skips lead two answers to the same places, whatever else was answered. */
function goTheSameWay({ encoded, diagrams }: CheckContext, at: number, one: number, other: number): boolean {
  const destinations = new Map<number, { one: number; other: number }>();
  let rest = { one, other };
  const { ways } = encoded.itemAt(at);
  for (const { when, to } of [...ways, { when: 1, to: at + 1 }]) {
    const before = destinations.get(to) ?? { one: FALSE, other: FALSE };
    destinations.set(to, {
      one: diagrams.or(before.one, diagrams.and(rest.one, when)),
      other: diagrams.or(before.other, diagrams.and(rest.other, when)),
    });
    rest = {
      one: diagrams.and(rest.one, diagrams.not(when)),
      other: diagrams.and(rest.other, diagrams.not(when)),
    };
  }
  const own = (level: number) => encoded.homeOf(level) === at;
  return [...destinations.values()].every(
    (to) => diagrams.forget(to.one, own) === diagrams.forget(to.other, own),
  );
}

/** Whether no condition but the question's own skips can tell two readings apart. */
function sameElsewhere(
  context: CheckContext,
  planItem: PlanItem,
  key: string,
  one: number,
  other: number,
): boolean {
  const { encoded, diagrams } = context;
  const symbol = encoded.symbols.get(key);
  if (symbol === undefined) return false;
  const [a, b] = [symbol.literals(one), symbol.literals(other)].map((literals) => new Map(literals));
  return context.sites.every((site) => {
    if (site.role === 'skip' && site.planItem === planItem) return true;
    return site.spots.every(({ when }) => {
      const own = new Set(diagrams.support(when).filter((level) => a?.has(level)));
      if (own.size === 0) return true;
      const with_ = (literals: Map<number, boolean> | undefined) => {
        const cube = diagrams.cube([...(literals ?? [])].filter(([level]) => own.has(level)));
        return diagrams.forget(diagrams.and(when, cube), (level) => own.has(level));
      };
      return with_(a) === with_(b);
    });
  });
}
