/** The table of what is chosen, from the data worker; the last one stays until the next has come. */
import { useEffect, useState } from 'react';
import type { Cross } from '../../../core/tables/cross';
import type { Frequency } from '../../../core/tables/frequency';
import type { Counted, RowSource } from '../../../worker/data/types';
import { useStudy } from '../../study/store';
import { useData } from '../data';

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
  const of = JSON.stringify([row, column]);
  useEffect(() => {
    if (row === null) return;
    let current = true;
    const ask = async (): Promise<TableState> => {
      const worker = await client.about(document);
      const reply = column === null ? await worker.frequency(source, row, filter) : await worker.cross(source, row, column, filter); // prettier-ignore
      if (!reply.ok) return { state: 'problem', problem: reply.problem };
      return column === null
        ? { state: 'frequency', counted: reply.answer as Counted<Frequency> }
        : { state: 'cross', counted: reply.answer as Counted<Cross> };
    };
    ask()
      .catch((error: unknown): TableState => ({
        state: 'problem',
        problem: `This table could not be made (${error instanceof Error ? error.message : String(error)}).`,
      })) // prettier-ignore
      .then((next) => current && setShown({ ...next, of }))
      .catch(console.error);
    return () => {
      current = false;
    };
  }, [client, document, source, row, column, filter, of]);
  // A table of another variable would stand under this one's name.
  return shown.of === of || shown.state === 'problem' ? shown : { state: 'waiting' };
}
