/** Who is in a base: how many, in what range, by which condition, on which routes, and whether they are too few to report. */
import type { Expected } from '../../core/forecast/forecast';
import type { MadeFor } from '../../core/forecast/made-for';
import { baseOf } from '../../core/wording/base';
import { RoutesDoor } from '../slips/RoutesDoor';
import { askedOf } from '../state/asked';
import { shownSearch } from '../state/routes-shown';
import { useStudy } from '../state/store';
import { grouped } from '../ui/format';
import primitives from '../ui/primitives.module.css';
import { countOf, marginOf, percentOf } from './figures';
import classes from './selected.module.css';

interface Props {
  readonly row: Expected;
  readonly held: MadeFor;
  readonly span: { readonly low: number; readonly high: number } | null;
}

export function BaseCard({
  row: { group, expected, low, high, share, error },
  held: { starts, least, designEffect },
  span,
}: Props) {
  const analysis = useStudy((state) => state.analysis);
  const plan = useStudy((state) => state.plan);
  const margin = marginOf(expected, designEffect);
  const name = 'item' in group ? group.item : null;
  return (
    <div className={primitives.card}>
      <p className={classes.count}>
        {countOf(expected)} of {grouped(starts)} started
      </p>
      <p>
        {grouped(low)} to {grouped(high)}, 95 times in 100; {percentOf(share)}% of all
        {error !== null && `, simulated within ${percentOf(error)} points`}.
        {margin !== null &&
          name !== null &&
          ` A share of them is known to ± ${margin.toFixed(1)} points at worst${designEffect > 1 ? `, with a design effect of ${designEffect}` : ''}.`}
        {span !== null && ` Over all sets of assumptions ${grouped(span.low)} to ${grouped(span.high)}.`}
      </p>
      {name !== null && <p>{baseOf(plan.variables, askedOf(analysis, name)).sentence}.</p>}
      {name !== null && analysis?.items[name] !== undefined && (
        <p>
          <RoutesDoor search={shownSearch({ through: [name] })} title={`Routes through ${name}`}>
            {`its ${grouped(analysis.items[name] ?? '0')} routes`}
          </RoutesDoor>
        </p>
      )}
      {name !== null && expected < least && (
        <p className={classes.low}>
          Too few to report: {grouped(least)} wanted.
          {share === 0 && ' Nobody is asked it under these assumptions.'}
        </p>
      )}
    </div>
  );
}
