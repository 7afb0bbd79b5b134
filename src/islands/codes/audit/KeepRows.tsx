/** Keeps the coded rows with the study, so that they can be tabulated later and by others. */
import { useState } from 'react';
import * as v from 'valibot';
import { csvLines } from '../../../core/exchange/csv';
import { RefusalSchema } from '../../../wire/common';
import { DatasetSchema } from '../../../wire/datasets';
import { useData } from '../../state/data';
import { useStudy } from '../../state/store';
import { Problem } from '../../ui/Problem';

/** As many as are kept with a study. */
const MOST = 100_000;

interface Props {
  readonly stem: string;
  readonly rows: number;
  readonly openTables: (rows: string) => void;
}

export function KeepRows({ stem, rows, openTables }: Props) {
  const { client } = useData();
  const document = useStudy((state) => state.document);
  const api = useStudy((state) => state.api);
  const [state, setState] = useState<'open' | 'keeping' | { readonly kept: string }>('open');
  const [problem, setProblem] = useState<string | null>(null);
  const keep = async () => {
    setState('keeping');
    setProblem(null);
    try {
      const worker = await client.about(document);
      const coded = await worker.coded();
      const text = csvLines([coded.header, ...coded.rows]);
      const packed = new Response(new Blob([text]).stream().pipeThrough(new CompressionStream('gzip')));
      const query = new URLSearchParams({ name: stem, rows: String(coded.rows.length) });
      const response = await fetch(`${api}/datasets?${query}`, { method: 'POST', body: await packed.blob() });
      const reply: unknown = await response.json();
      const kept = v.safeParse(v.array(DatasetSchema), reply);
      // The newest stands first.
      const [newest] = kept.success ? kept.output.toSorted((a, b) => b.at - a.at) : [];
      if (response.ok && newest !== undefined) {
        setState({ kept: newest.id });
        return;
      }
      const refused = v.safeParse(RefusalSchema, reply);
      setProblem(refused.success ? refused.output.problem : 'The server refused to keep the rows.');
    } catch {
      setProblem('The server does not answer: try again once it does.');
    }
    setState('open');
  };
  if (rows > MOST)
    return <small>Too many rows to keep with the study (at most 100,000): tabulate them here.</small>;
  return (
    <>
      {typeof state === 'object' ? (
        <button type="button" onClick={() => openTables(state.kept)}>
          Kept: open the tables
        </button>
      ) : (
        <button type="button" disabled={state === 'keeping'} onClick={() => void keep()}>
          Keep for tables
        </button>
      )}
      <Problem of={problem} as="span" />
    </>
  );
}
