/** The slip of several items selected together. */
import { nameAt } from '../../core/document/addresses';
import type { Plan } from '../../core/routing/plan';
import { plural } from '../ui/format';
import { useStudy } from '../state/store';
import { placesOf, useItemMoves } from '../fields/part-moves';
import { MoveActs } from './MoveActs';
import classes from './slip.module.css';
import primitives from '../ui/primitives.module.css';

export function GroupSlip({ plan }: { readonly plan: Plan }) {
  const group = useStudy((state) => state.group);
  const select = useStudy((state) => state.select);
  const moves = useItemMoves();
  const places = placesOf(plan.document, group);
  const [first] = places;
  if (first === undefined) return null;
  return (
    <>
      <h2>{plural(places.length, 'item')} selected</h2>
      <div className={primitives.card}>
        <div className={classes.chips}>
          {[...group].map((key) => (
            <button key={key} type="button" onClick={() => select(key)}>
              {nameAt(key, 'item')}
            </button>
          ))}
        </div>
        <p className={classes.plain}>
          Shift with a click or an arrow takes more or fewer; Alt with an arrow, or dragging one, moves them
          all.
        </p>
      </div>
      <div className={classes.acts}>
        <MoveActs
          up={() => moves.moveBy(first, -1)}
          down={() => moves.moveBy(first, 1)}
          copy={() => moves.duplicate(first)}
          copyWords="Copy them"
          copyKeys="Ctrl+D"
        />
        <button type="button" title="Delete" onClick={() => moves.remove(first)}>
          Delete {plural(places.length, 'item')}
        </button>
      </div>
    </>
  );
}
