/** What came: shares that were seen, to be assumed, and the forecast held against as many as were asked. */
import { useState } from 'react';
import type { CameSource } from './came-sources';
import { plural } from '../ui/format';
import { FileButton } from '../ui/FileField';
import { Problem } from '../ui/Problem';
import primitives from '../ui/primitives.module.css';
import { AgainstTable } from './AgainstTable';
import classes from './came.module.css';
import { PastedForm } from './PastedForm';
import { SeenList } from './SeenList';
import { useCame, type Came } from './use-came';
import type { Forecasting } from './use-forecast';

interface Props {
  readonly forecasting: Forecasting;
  readonly came: Came | null;
  readonly setCame: (came: Came | null) => void;
  readonly readOnly: boolean;
}

export function CameSheet({ forecasting, came, setCame, readOnly }: Props) {
  const { collected, links, problem, isReading, take, put } = useCame(forecasting, setCame);
  const [pasting, setPasting] = useState(false);
  const sources: readonly { readonly key: string; readonly name: string; readonly source: CameSource }[] = [
    ...(collected.keyed.length === 0
      ? []
      : [
          {
            key: 'keyed',
            name: plural(collected.keyed.length, 'keyed case'),
            source: { of: 'keyed' as const, cases: collected.keyed },
          },
        ]),
    ...links.map(({ token, name, begun }) => ({
      key: `link ${token}`,
      name: `${name}: ${plural(begun, 'response')}`,
      source: { of: 'link' as const, token },
    })),
    ...collected.kept.map(({ id, name, rows }) => ({
      key: `kept ${id}`,
      name: `${name}: ${plural(rows, 'row')}`,
      source: { of: 'kept' as const, id },
    })),
  ];
  const choose = (key: string) => {
    const found = sources.find((of) => of.key === key);
    if (found === undefined) return;
    setPasting(false);
    void take(found.source, found.name);
  };
  return (
    <>
      <div className={`${classes.sources} ${primitives.smallButtons}`}>
        {sources.length > 0 && (
          <label>
            What came{' '}
            <select value="" onChange={(event) => choose(event.target.value)} aria-label="What came">
              <option value="">choose …</option>
              {sources.map(({ key, name }) => (
                <option key={key} value={key}>
                  {name}
                </option>
              ))}
            </select>
          </label>
        )}
        <FileButton
          label="Collected file"
          accept=".csv,.tsv,.txt,.xlsx"
          choose={(file) => {
            setPasting(false);
            void take({ of: 'file', file }, file.name);
          }}
        >
          Choose a collected file
        </FileButton>
        <button type="button" aria-expanded={pasting} onClick={() => setPasting(!pasting)}>
          Paste a frequency table
        </button>
      </div>
      {pasting && (
        <PastedForm
          take={(shares) => {
            put({
              name: 'a pasted table',
              sample: { people: 0, leftOut: 0, shares, bases: new Map() },
            });
            setPasting(false);
          }}
        />
      )}
      {isReading && <p role="status">Reading what came, row by row …</p>}
      <Problem of={problem} className={primitives.warning} />
      {came === null && !isReading && !pasting && (
        <p className={classes.none}>
          Choose what came: the shares that were seen can be assumed, and where rows came, every base is held
          against what was forecast.
        </p>
      )}
      {came !== null && !isReading && (
        <>
          <p className={classes.head}>
            <b>{came.name}</b>
            {came.sample.people > 0 && `: ${plural(came.sample.people, 'respondent')}`}
            {came.sample.leftOut > 0 &&
              `; ${plural(came.sample.leftOut, 'row')} left out, which the routing does not allow as they are: look at them in Codes, under Audit`}
          </p>
          <SeenList key={came.name} came={came} forecasting={forecasting} readOnly={readOnly} />
          {came.sample.people > 0 && <AgainstTable sample={came.sample} forecasting={forecasting} />}
        </>
      )}
    </>
  );
}
