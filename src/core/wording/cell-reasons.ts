/** Why a cell of the coded row holds no answer, in words, with the values that decided. */
import type { Column } from '../coding/columns';
import type { Cell } from '../coding/row';
import { passKey } from '../document/addresses';
import type { Walk } from '../routing/walk';
import { holding, passedOverBecause } from './why';

/** Empty where the cell holds an answer, or is an optional text that is simply empty. */
export function cellReason(walk: Walk, column: Column, cell: Cell): string {
  if (cell.reason === null) return '';
  if (column.kind === 'ending') return stopWords(walk);
  if (column.kind === 'derived') {
    switch (cell.reason) {
      case 'not_applicable':
        return 'nothing that it is worked out from was asked';
      case 'not_reached':
        return `not all that it is worked out from was reached; ${stopWords(walk)}`;
      default:
        return 'what it is worked out from gives it no value';
    }
  }
  if (cell.reason === 'no_answer')
    return column.kind === 'place' ? 'asked, and this place left open' : 'asked, and left blank';
  const { source } = column;
  if (source.of === 'given') return 'not given';
  const { planItem, pass, row } = source;
  const step = walk.steps.find(({ key }) => key === passKey(planItem.item.name, pass));
  if (step !== undefined) {
    const shownIf = row === null ? null : (planItem.rowIf[row] ?? null);
    return shownIf === null
      ? 'not shown'
      : `this row is shown only if ${holding(shownIf, walk.environment(planItem.section, pass), false)}`;
  }
  const passes = walk.passes.get(planItem.section) ?? 0;
  if (cell.reason === 'not_applicable' && pass !== null && passes > 0 && pass > passes)
    return `no pass ${pass}: there ${passes === 1 ? 'was 1' : `were ${passes}`}`;
  return passedOverBecause(walk, planItem, pass);
}

function stopWords({ steps }: Walk): string {
  return `stopped at ${steps.at(-1)?.key ?? 'the start'}`;
}
