/** Which rows the files of data are made of: made-up respondents, keyed cases, or rows that were kept after an audit. */
import { useState } from 'react';
import type { RowsGiven } from '../../core/release/data/rows';
import { keptRows, keyedRows, NOT_FETCHED, useCollected, type Collected } from '../state/collected';
import { useStudy } from '../state/store';
import { onVersion } from '../state/versions';
import { grouped, plural, whenText } from '../ui/format';
import classes from './files.module.css';

const MADE_UP = 'made-up';
const KEYED = 'keyed';
/** Respondents made up where nothing else is asked for, and at most. */
const COUNT = 1000;
const MOST = 100_000;
const SEED = 1;

export interface DataPicked {
  readonly source: string;
  readonly choose: (source: string) => void;
  readonly count: string;
  readonly setCount: (count: string) => void;
  readonly collected: Collected;
  /** Throws a sentence where they cannot be had. */
  readonly rows: () => Promise<RowsGiven>;
}

export function useDataPicked(): DataPicked {
  const api = useStudy((state) => state.api);
  const plan = useStudy((state) => state.plan);
  const collected = useCollected(api);
  const [source, choose] = useState(MADE_UP);
  const [count, setCount] = useState(String(COUNT));
  const rows = async (): Promise<RowsGiven> => {
    if (source === MADE_UP) {
      const number = Number(count);
      if (!Number.isInteger(number) || number < 1 || number > MOST)
        throw new Error(`Say how many respondents to make up: a whole number from 1 to ${grouped(MOST)}.`);
      return { of: 'made-up', count: number, seed: SEED };
    }
    if (source === KEYED) {
      const { keyed } = collected;
      return { of: 'rows', about: plural(keyed.length, 'keyed case'), ...keyedRows(plan, keyed) };
    }
    const card = collected.kept.find(({ id }) => id === source);
    const fetched = await keptRows(api, source);
    if (card === undefined || fetched === null) throw new Error(NOT_FETCHED);
    return { of: 'rows', about: card.name, ...fetched };
  };
  return { source, choose, count, setCount, collected, rows };
}

export function DataPicker({ picked }: { readonly picked: DataPicked }) {
  const { source, choose, count, setCount, collected } = picked;
  const versions = useStudy((state) => state.versions);
  return (
    <div className={classes.rows}>
      <label>
        Rows of{' '}
        <select value={source} onChange={(event) => choose(event.target.value)}>
          <option value={MADE_UP}>made-up respondents</option>
          {collected.keyed.length > 0 && (
            <option value={KEYED}>{plural(collected.keyed.length, 'keyed case')}</option>
          )}
          {collected.kept.map(({ id, name, rows, at, revision }) => (
            <option
              key={id}
              value={id}
            >{`${name}: ${grouped(rows)} rows, kept ${whenText(at)}${onVersion(versions, revision)}`}</option>
          ))}
        </select>
      </label>
      {source === MADE_UP && (
        <label>
          How many{' '}
          <input inputMode="numeric" value={count} onChange={(event) => setCount(event.target.value)} />
        </label>
      )}
    </div>
  );
}
