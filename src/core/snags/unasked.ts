/** Conditions, pipes, derived values and repeats that use what some who get there were never asked. */
import { FALSE, pipedBy, TRUE, variablesIn, type Diagram, type Viewpoint } from '../analysis';
import { printCondition } from '../condition/print';
import { eachName, type CompareTest, type Condition } from '../condition/syntax';
import type { Variable } from '../document/variables';
import type { CheckContext, Site } from './check-context';
import type { Snag } from './types';

/** A `not (…)` that holds for people who were never asked, and lets them through. */
export function negationIncludesUnasked(context: CheckContext): Snag[] {
  const { diagrams, encoded } = context;
  return context.sites.flatMap((site): Snag[] => {
    const { condition } = site;
    if (condition === null || context.isBroken(site.at)) return [];
    const spoken = stateNames(condition);
    for (const negation of negationsIn(condition)) {
      for (const variable of variablesIn(negation, context.plan)) {
        if (spoken.has(variable.name.toLowerCase()) || variable.of === 'given') continue;
        const found = context.firstSpot(site.spots, ({ here, when, standing }) => {
          const states = encoded.statesOf(variable, standing);
          if (states === null) return FALSE;
          const through = diagrams.and(diagrams.and(here, when), encoded.conditionAt(negation, standing));
          return diagrams.and(through, diagrams.not(states.asked));
        });
        if (found === null) continue;
        return [
          {
            rule: 'negation-includes-unasked',
            severity: 'warning',
            at: site.at,
            message: `“${printCondition(negation)}” also holds for people who were never asked “${variable.name}”: if they are not meant, add “and ${variable.name} asked”`,
            ...context.witness(found.spot.at, found.mass),
            mends: [addAsked(context, site, variable)],
          },
        ];
      }
    }
    return [];
  });
}

export function mayBeUnasked(context: CheckContext): Snag[] {
  return [
    ...unaskedInConditions(context),
    ...unaskedInPipes(context),
    ...unaskedInRepeats(context),
    ...unaskedInDerived(context),
  ];
}

/**
 * A comparison of several answers of which some were given and another was never asked for: it is false then,
 * whatever was answered. A test of one answer is left alone: that it does not hold for those who were not asked
 * is what an ask-if is for.
 */
function unaskedInConditions(context: CheckContext): Snag[] {
  return context.sites.flatMap((site): Snag[] => {
    if (site.condition === null || context.isBroken(site.at)) return [];
    for (const test of comparisonsIn(site.condition)) {
      const variables = variablesIn(test, context.plan);
      const found = context.firstSpot(site.spots, ({ here, standing }) =>
        someButNotAll(context, here, variables, standing),
      );
      if (found === null) continue;
      const unasked = variables.find(
        (variable) => someUnasked(context, found.mass, variable, found.spot.standing) !== FALSE,
      );
      return [
        {
          rule: 'may-be-unasked',
          severity: 'warning',
          at: site.at,
          message: `“${printCondition(test)}” can never hold for some who get there: they were not asked “${unasked?.name ?? ''}”, though they were asked the rest`,
          ...context.witness(found.spot.at, found.mass),
        },
      ];
    }
    return [];
  });
}

function unaskedInPipes(context: CheckContext): Snag[] {
  const { flow } = context;
  return context.items.flatMap((planItem): Snag[] => {
    for (const variable of pipedBy(context.plan, planItem)) {
      for (const at of context.placesOf(planItem)) {
        const mass = someUnasked(context, flow.presentedAt(at), variable, context.standingOf(planItem, at));
        if (mass === FALSE) continue;
        return [
          {
            rule: 'may-be-unasked',
            severity: 'warning',
            at: { item: planItem.item.name },
            field: 'text',
            message: `“{${variable.name}}” stays empty for some who see this: they were never asked “${variable.name}”`,
            ...context.witness(at, mass),
          },
        ];
      }
    }
    return [];
  });
}

function unaskedInRepeats(context: CheckContext): Snag[] {
  const { plan, encoded, flow, diagrams } = context;
  return plan.sections.flatMap(({ index, repeat, section }): Snag[] => {
    if (repeat?.driver == null || repeat.driver.of === 'given') return [];
    const at = encoded.course.gate(index);
    const here = diagrams.and(flow.comesTo(at), encoded.gateParts(at).askIf);
    const mass = someUnasked(context, here, repeat.driver, { section: index, pass: null });
    if (mass === FALSE) return [];
    return [
      {
        rule: 'may-be-unasked',
        severity: 'warning',
        at: { section: section.id },
        field: 'repeat',
        message: `the section repeats over “${repeat.driver.name}”, which some who get there were never asked: for them it has no pass`,
        ...context.witness(at, mass),
      },
    ];
  });
}

/** A derived sum has no value where any of its inputs has none. */
function unaskedInDerived(context: CheckContext): Snag[] {
  const { plan, encoded, flow } = context;
  return plan.derived.flatMap(({ derived, value, inputs }): Snag[] => {
    if (value === null) return [];
    const variables = [
      ...new Set(inputs.flatMap(({ variable, overPasses }) => (overPasses ? [] : [variable]))),
    ];
    for (let ending = 0; ending < plan.endings.length; ending += 1) {
      if (plan.endings[ending]?.ending.kind !== 'complete') continue;
      const at = encoded.course.ending(ending);
      const mass = someButNotAll(context, flow.comesTo(at), variables, {
        section: plan.sections.length,
        pass: null,
      });
      if (mass === FALSE) continue;
      return [
        {
          rule: 'may-be-unasked',
          severity: 'warning',
          at: { derived: derived.name },
          field: 'value',
          message: `“${derived.name}” has no value for some who were asked part of what it adds up, and never the rest`,
          ...context.witness(at, mass),
        },
      ];
    }
    return [];
  });
}

function someUnasked(
  { encoded, diagrams }: CheckContext,
  here: Diagram,
  variable: Variable,
  standing: Viewpoint,
): Diagram {
  if (variable.of === 'given' || variable.of === 'derived') return FALSE;
  const states = encoded.statesOf(variable, standing);
  return states === null ? FALSE : diagrams.and(here, diagrams.not(states.asked));
}

function someButNotAll(
  { encoded, diagrams }: CheckContext,
  here: Diagram,
  variables: readonly Variable[],
  standing: Viewpoint,
): Diagram {
  const placed = variables.filter(({ of }) => of === 'question' || of === 'row');
  if (placed.length < 2) return FALSE;
  const asked = placed.flatMap((variable) => encoded.statesOf(variable, standing)?.asked ?? []);
  const some = asked.reduce((any, each) => diagrams.or(any, each), FALSE);
  const all = asked.reduce((every, each) => diagrams.and(every, each), TRUE);
  return diagrams.and(here, diagrams.and(some, diagrams.not(all)));
}

/** Names that a condition asks the state of: its author has thought of those who were not asked. */
function stateNames(condition: Condition): ReadonlySet<string> {
  const names = new Set<string>();
  eachName(condition, ({ name }, user) => {
    if (user.kind === 'state') names.add(name.toLowerCase());
  });
  return names;
}

function negationsIn(node: Condition): (Condition & { kind: 'not' })[] {
  if (node.kind === 'not') return [node];
  return node.kind === 'and' || node.kind === 'or' ? node.parts.flatMap(negationsIn) : [];
}

function comparisonsIn(node: Condition): CompareTest[] {
  switch (node.kind) {
    case 'compare':
      return [node];
    case 'and':
    case 'or':
      return node.parts.flatMap(comparisonsIn);
    case 'not':
      return comparisonsIn(node.part);
    default:
      return [];
  }
}

function addAsked(context: CheckContext, site: Site, variable: Variable) {
  const bracketed = / or /.test(site.text) ? `(${site.text})` : site.text;
  return context.mendCondition(site, `${bracketed} and ${variable.name} asked`);
}
