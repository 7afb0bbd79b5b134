/** The table of what is chosen, from the data worker. */
import { useState } from 'react';
import type { Cross } from '../../../core/tables/cross';
import type { Frequency } from '../../../core/tables/frequency';
import type { Counted, RowSource } from '../../../worker/data/types';
import { useData } from '../../state/data';
import { useStudy } from '../../state/store';
import { useAsked } from '../../ui/use-asked';
import { why } from '../../ui/why';

export type TableState =
  | { readonly state: 'waiting' }
  | { readonly state: 'problem'; readonly problem: string }
  | { readonly state: 'frequency'; readonly counted: Counted<Frequency> }
  | { readonly state: 'cross'; readonly counted: Counted<Cross> };

export function useTable(
  source: RowSource,
  row: string | null,
  column: string | null,
  filter: string,
): TableState {
  const { client } = useData();
  const document = useStudy((state) => state.document);
  const [shown, setShown] = useState<TableState & { readonly of?: string }>({ state: 'waiting' });
  const of = JSON.stringify([source, row, column, filter]);
  const ask = async (name: string): Promise<TableState> => {
    try {
      const worker = await client.about(document);
      const reply =
        column === null
          ? await worker.frequency(source, name, filter)
          : await worker.cross(source, name, column, filter);
      if (!reply.ok) return { state: 'problem', problem: reply.problem };
      return column === null
        ? { state: 'frequency', counted: reply.answer as Counted<Frequency> }
        : { state: 'cross', counted: reply.answer as Counted<Cross> };
    } catch (error) {
      return { state: 'problem', problem: `This table could not be made: ${why(error)}` };
    }
  };
  useAsked(
    () => (row === null ? null : ask(row)),
    [client, document, source, row, column, filter, of],
    (next) => setShown({ ...next, of }),
  );
  // A table of another variable, or of other rows, would stand under the words for this one.
  return shown.of === of || shown.state === 'problem' ? shown : { state: 'waiting' };
}
