/** How many have to start, and to be invited, for so many of a group, with what certainty. */
import { useState } from 'react';
import { peopleFor } from '../../core/forecast/binomial';
import type { Expected } from '../../core/forecast/forecast';
import { grouped } from '../ui/format';
import { TableHead } from '../ui/TableHead';
import primitives from '../ui/primitives.module.css';
import { nameOf } from './figures';
import { NumberField } from './NumberField';
import fields from './fields.module.css';
import classes from './selected.module.css';
import type { Forecasting } from './use-forecast';

interface Props {
  readonly row: Expected;
  readonly forecasting: Forecasting;
  readonly readOnly: boolean;
}

const CERTAINTIES = [
  [0.5, '50%'],
  [0.9, '90%'],
  [0.95, '95%'],
] as const;

/** How many have to start, and to be invited, for so many in a group. */
export function Needed({ row, forecasting, readOnly }: Props) {
  const { held, hold } = forecasting;
  const [wanted, setWanted] = useState(Math.max(1, held.least));
  const { share, group } = row;
  const named = {
    of: 'item' in group ? group.item : '',
    ...('item' in group && group.pass !== null ? { pass: group.pass } : {}),
  };
  const isKept = held.wanted.some(({ of, pass }) => of === named.of && pass === named.pass);
  return (
    <>
      <h2>
        To have{' '}
        <NumberField
          label={`Wanted of ${nameOf(row)}`}
          value={wanted}
          least={1}
          most={10_000_000}
          keep={(n) => {
            setWanted(n);
            return null;
          }}
        />{' '}
        of them
      </h2>
      <div className={primitives.card}>
        {share === 0 ? (
          <p className={classes.low}>
            No number of starts is enough: under these assumptions nobody gets there. Look at its base, or at
            the shares at the left.
          </p>
        ) : (
          <table className={classes.needed}>
            <TableHead of={['certain', 'start', ...(held.response === null ? [] : ['invite'])]} />
            <tbody>
              {CERTAINTIES.map(([certainty, words]) => (
                <tr key={certainty}>
                  <th scope="row">{words}</th>
                  <td>{needed(peopleFor(wanted, share, certainty))}</td>
                  {/* Each invitation leads somebody there with the chances of both: one binomial as well. */}
                  {held.response !== null && (
                    <td>{needed(peopleFor(wanted, share * held.response, certainty))}</td>
                  )}
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {share > 0 && held.response === null && (
          <p className={classes.note}>With a response rate, how many to invite is told too.</p>
        )}
        {'item' in row.group && !readOnly && !isKept && share > 0 && (
          <button
            type="button"
            className={fields.act}
            onClick={() => hold({ wanted: [...held.wanted, { ...named, n: wanted }] })}
          >
            keep it among the bases that are wanted
          </button>
        )}
        {isKept && <p className={classes.note}>Among the bases that are wanted: see How many.</p>}
      </div>
    </>
  );
}

function needed(people: number | null): string {
  return people === null ? 'no number' : grouped(people);
}
