/** A steering `multiple` with an option that says “none of these” and can yet be picked with the others. */
import { picksMany } from '../document/answer-types';
import { setOptionKind } from '../editing/options';
import type { CheckContext } from './check-context';
import type { Snag } from './types';

/** Reads: the whole label says that nothing else applies. */
const SAYS_NONE =
  /^\W*(none|neither|nothing|nobody|no one|nowhere|never|no,? none|not any|not applicable|does not apply|do(es)?n['’]t apply)\b/i;

export function picksContradict(context: CheckContext): Snag[] {
  const { plan, encoded } = context;
  return context.items.flatMap((planItem): Snag[] => {
    const { item } = planItem;
    if (item.kind !== 'question' || !picksMany(item.answer)) return [];
    if (!encoded.drivers.byKey.has(item.name.toLowerCase())) return [];
    const { options, maxPicks } = item.answer;
    if (options.length < 2 || maxPicks === 1) return [];
    return options.flatMap((option, index): Snag[] => {
      if (option.exclusive || option.missing !== undefined || !SAYS_NONE.test(option.label)) return [];
      const others = options.filter((other) => other !== option).map(({ code }) => code);
      const [at = 0] = context.placesOf(planItem);
      const variable = plan.variables.get(item.name.toLowerCase());
      const symbol =
        variable && encoded.symbols.get(encoded.keyOf(variable, context.standingOf(planItem, at)));
      const both = symbol?.values.findIndex(
        (value) =>
          Array.isArray(value) && value.includes(option.code) && others.some((code) => value.includes(code)),
      );
      const mass =
        symbol === undefined || both === undefined || both < 0
          ? null
          : context.diagrams.and(context.flow.answersAt(at), symbol.cube(both));
      return [
        {
          rule: 'picks-contradict',
          severity: 'warning',
          at: { item: item.name, option: option.code },
          message: `“${option.label}” can be picked along with the others, which contradicts it, and picks here steer: let it exclude the others`,
          ...(mass === null ? {} : context.witness(at, mass)),
          mends: [
            context.mend({
              ...setOptionKind(context.placeOf(planItem), index, 'exclusive'),
              label: `Let “${option.label}” exclude the others`,
            }),
          ],
        },
      ];
    });
  });
}
