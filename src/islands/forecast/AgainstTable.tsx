/** The forecast against what came: as many as were expected among so many people, as many as there were, and where they part. */
import { useMemo, useState } from 'react';
import { againstWhatCame, LEVEL, type Came } from '../../core/forecast/seen/against';
import type { SeenSample } from '../../core/forecast/seen/sample';
import { plural } from '../ui/format';
import { TableHead } from '../ui/TableHead';
import classes from './came.module.css';
import { countOf, nameOf } from './figures';
import type { Forecasting } from './use-forecast';

interface Props {
  readonly sample: SeenSample;
  readonly forecasting: Forecasting;
}

export function AgainstTable({ sample, forecasting: { figures, held } }: Props) {
  const [parted, setParted] = useState(false);
  const all = useMemo(
    () => (figures === null ? [] : againstWhatCame([...figures.endings, ...figures.items], sample)),
    [figures, sample],
  );
  if (figures === null) return null;
  const apart = all.filter(({ parts }) => parts);
  return (
    <section className={classes.part} aria-label="Forecast against what came">
      <h3>Forecast against what came</h3>
      <p className={classes.tools}>
        <span>
          {apart.length === 0
            ? `None of ${plural(all.length, 'number')} parts from the forecast by more than chance.`
            : `${apart.length} of ${plural(all.length, 'number')} part from the forecast by more than chance.`}
        </span>
        <label>
          <input type="checkbox" checked={parted} onChange={(event) => setParted(event.target.checked)} />{' '}
          these alone
        </label>
      </p>
      <table className={classes.table}>
        <TableHead of={['asked, or come to an ending', 'forecast', 'came', 'chance, adjusted']} />
        <tbody>
          {(parted ? apart : all).map((row) => (
            <AgainstRow key={`${'ending' in row.of.group ? '>' : ''}${nameOf(row.of)}`} row={row} />
          ))}
        </tbody>
      </table>
      <p className={classes.none}>
        By the exact binomial test, two-sided; chances adjusted for {plural(all.length, 'comparison')} by
        Holm’s method, marked below {LEVEL}.{held.breakOff > 0 && ' Forecast with those who break off.'}
        {!figures.exact && ' What is simulated is held against a share that is itself not exact.'}
      </p>
    </section>
  );
}

function AgainstRow({ row: { of, expected, seen, adjusted, parts } }: { readonly row: Came }) {
  return (
    <tr data-parts={parts || undefined}>
      <th scope="row">
        <code>{nameOf(of)}</code>
      </th>
      <td>{countOf(expected)}</td>
      <td>{countOf(seen)}</td>
      <td>
        {adjusted < 0.0001 ? 'below 0.0001' : adjusted.toFixed(adjusted < 0.1 ? 4 : 2)}
        {parts && (seen > expected ? ' ▲ more' : ' ▼ fewer')}
      </td>
    </tr>
  );
}
