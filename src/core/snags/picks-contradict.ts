/** A steering `multiple` with an option that says “none of these” and can yet be picked with the others. */
import { picksMany } from '../document/answer-types';
import { setOptionKind } from '../editing/options';
import type { CheckContext } from './check-context';
import type { Snag } from './types';

/** Reads: the whole label says that nothing else applies. */
const SAYS_NONE =
  /^\W*(none|neither|nothing|nobody|no one|nowhere|never|no,? none|not any|not applicable|does not apply|do(es)?n['’]t apply)\b/i;

export function picksContradict(inquiry: CheckContext): Snag[] {
  const { plan, encoded } = inquiry;
  return inquiry.items.flatMap((planItem): Snag[] => {
    const { item } = planItem;
    if (item.kind !== 'question' || !picksMany(item.answer)) return [];
    if (!encoded.drivers.byKey.has(item.name.toLowerCase())) return [];
    const { options, maxPicks } = item.answer;
    if (options.length < 2 || maxPicks === 1) return [];
    return options.flatMap((option, index): Snag[] => {
      if (option.exclusive || option.missing !== undefined || !SAYS_NONE.test(option.label)) return [];
      const others = options.filter((other) => other !== option).map(({ code }) => code);
      const [at = 0] = inquiry.placesOf(planItem);
      const variable = plan.variables.get(item.name.toLowerCase());
      const symbol =
        variable && encoded.symbols.get(encoded.keyOf(variable, inquiry.standingOf(planItem, at)));
      const both = symbol?.values.findIndex(
        (value) =>
          Array.isArray(value) && value.includes(option.code) && others.some((code) => value.includes(code)),
      );
      const mass =
        symbol === undefined || both === undefined || both < 0
          ? null
          : inquiry.diagrams.and(inquiry.flow.answersAt(at), symbol.cube(both));
      return [
        {
          rule: 'picks-contradict',
          severity: 'warning',
          at: { item: item.name, option: option.code },
          message: `“${option.label}” can be picked along with the others, which contradicts it, and picks here steer: let it exclude the others`,
          ...(mass === null ? {} : inquiry.witness(at, mass)),
          mends: [
            inquiry.mend({
              ...setOptionKind(inquiry.placeOf(planItem), index, 'exclusive'),
              label: `Let “${option.label}” exclude the others`,
            }),
          ],
        },
      ];
    });
  });
}
