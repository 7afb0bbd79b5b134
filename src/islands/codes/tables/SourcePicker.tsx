/** Which rows are tabulated: made-up respondents, keyed cases, the file audited here, or rows that were kept. */
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import { useStore } from 'zustand';
import { keptRows, keyedRows, NOT_FETCHED, useCollected } from '../../state/collected';
import { useData } from '../../state/data';
import { useStudy } from '../../state/store';
import { onVersion } from '../../state/versions';
import { grouped, plural, whenText } from '../../ui/format';
import { MADE_UP, type NamedSource } from './sources';

interface Props {
  readonly source: NamedSource;
  readonly choose: (source: NamedSource) => void;
}

/** Under which the keyed cases are handed to the worker. */
const KEYED = 'keyed';

export function SourcePicker({ source, choose }: Props) {
  const { client, audit } = useData();
  const document = useStudy((state) => state.document);
  const api = useStudy((state) => state.api);
  const summary = useStore(audit, (state) => state.summary);
  const file = useStore(audit, (state) => state.file);
  const plan = useStudy((state) => state.plan);
  const versions = useStudy((state) => state.versions);
  const { keyed, kept } = useCollected(api);
  const [problem, setProblem] = useState<string | null>(null);
  const fileName = file?.name ?? 'the audited file';
  const audited =
    summary === null || summary.tabulated === summary.rows
      ? fileName
      : `${fileName}, its first ${grouped(summary.tabulated)} rows`;
  const value = source.source.of === 'rows' ? source.source.key : source.source.of;

  const take = async (key: string) => {
    setProblem(null);
    if (key === 'made-up') choose(MADE_UP);
    else if (key === 'audited') choose({ name: audited, source: { of: 'audited' }, madeUp: false });
    else if (key === KEYED) {
      const { header, rows } = keyedRows(plan, keyed);
      const worker = await client.about(document);
      await worker.hand(KEYED, header, rows);
      choose({ name: plural(keyed.length, 'keyed case'), source: { of: 'rows', key: KEYED }, madeUp: false });
    } else {
      const card = kept.find(({ id }) => id === key);
      if (card === undefined) return;
      const fetched = await keptRows(api, key);
      if (fetched === null) {
        setProblem(NOT_FETCHED);
        return;
      }
      const worker = await client.about(document);
      await worker.hand(key, fetched.header, fetched.rows);
      choose({ name: card.name, source: { of: 'rows', key }, madeUp: false });
    }
  };
  // Rows that were kept a moment ago are what somebody wants to see.
  const wanted = useRef(new URLSearchParams(location.search).get('rows'));
  const takeWanted = useEffectEvent((key: string) => void take(key));
  useEffect(() => {
    const key = wanted.current;
    if (key === null || !kept.some(({ id }) => id === key)) return;
    wanted.current = null;
    takeWanted(key);
  }, [kept]);
  return (
    <label>
      Rows of{' '}
      <select value={value} onChange={(event) => void take(event.target.value)}>
        <option value="made-up">{MADE_UP.name}</option>
        {keyed.length > 0 && <option value={KEYED}>{plural(keyed.length, 'keyed case')}</option>}
        {summary !== null && <option value="audited">{`${audited}, audited here`}</option>}
        {kept.map(({ id, name, rows, at, revision }) => (
          <option
            key={id}
            value={id}
          >{`${name}: ${grouped(rows)} rows, kept ${whenText(at)}${onVersion(versions, revision)}`}</option>
        ))}
      </select>
      {problem !== null && <span role="alert"> {problem}</span>}
    </label>
  );
}
