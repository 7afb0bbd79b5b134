/** Variables: the columns of the data, with the question that each comes from, whom it is asked of, and what it holds. */
import { columnsOf } from '../../coding/columns';
import { element, type Element } from '../../exchange/element';
import type { Plan } from '../../routing/plan';
import type { DataField } from '../data/fields';
import { questionReference } from './lifecycle-questions';
import { columnList, type Codes } from './lifecycle-codes';
import type { Universes } from './lifecycle-universes';
import type { Urns } from './urns';
import type { Words } from './words';

export function variableElements(
  urns: Urns,
  words: Words,
  plan: Plan,
  fields: readonly DataField[],
  codes: Codes,
  universes: Universes,
): Element[] {
  return columnsOf(plan).map((column, at) => {
    const field = fields[at] as DataField;
    const { name, label, row } = field;
    const question =
      column.kind !== 'derived' && column.kind !== 'ending' && column.source.of === 'item'
        ? column.source.question
        : null;
    return element(
      'l:Variable',
      {},
      urns.identity('variable', name, field),
      words.string('l:VariableName', name),
      words.content('r:Label', label),
      universes.reference(row),
      question !== null && questionReference(urns, question),
      element('l:VariableRepresentation', {}, representation(field, codes), codes.missingReference(field)),
    );
  });
}

const DATES = { date: 'Date', time: 'Time', datetime: 'DateTime' } as const;

function representation({ name, holds, values, least, most }: DataField, codes: Codes): Element {
  if (values.length > 0 && least === null)
    return element('r:CodeRepresentation', {}, codes.reference(columnList(name)));
  switch (holds) {
    case 'whole':
    case 'number':
      return element(
        'r:NumericRepresentation',
        {},
        least !== null &&
          most !== null &&
          element(
            'r:NumberRange',
            {},
            element('r:Low', { isInclusive: 'true' }, String(least)),
            element('r:High', { isInclusive: 'true' }, String(most)),
          ),
        element('r:NumericTypeCode', {}, holds === 'whole' ? 'Integer' : 'Decimal'),
      );
    case 'date':
    case 'time':
    case 'datetime':
      return element('r:DateTimeRepresentation', {}, element('r:DateTypeCode', {}, DATES[holds]));
    case 'text':
      return element('r:TextRepresentation', {});
    default:
      return holds satisfies never;
  }
}
