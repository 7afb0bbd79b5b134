/** Skips, or an onward list, as sentences tried in order; the first that holds is taken. */
import { useState } from 'react';
import type { Position } from '../../core/condition/scope';
import { fieldId } from '../../core/document/addresses';
import type { Skip, Target } from '../../core/document/types';
import type { Change } from '../../core/editing/change';
import type { Plan } from '../../core/routing/plan';
import type { Snag } from '../../core/snags';
import type { WaysFrom } from '../../worker/types';
import { AimButton } from './AimButton';
import { SkipRule } from './SkipRule';
import { TakenBy, useWays } from './taken-by';
import { focusField } from '../fields/focus';
import classes from './slip.module.css';
import rows from './rows.module.css';

export interface SkipRulesProps {
  readonly plan: Plan;
  readonly place: { readonly section: number };
  /** Of the item or section, for field ids. */
  readonly id: string;
  readonly skips: readonly Skip[];
  readonly isProblem: (snag: Snag, index: number) => boolean;
  /** What the conditions can read. */
  readonly reads: Position;
  /** Index of the item they leave from; null at a section's end. */
  readonly from: number | null;
  /** Where those go whom no skip takes. */
  readonly otherwise: string;
  /** Where they leave from, for counts. */
  readonly leaves: WaysFrom;
  /** Written as an ask-if on what the skip leads over; null where it leads over nothing that can be asked so. */
  readonly asAskIf?: (index: number) => Change | null;
  readonly change: (skips: readonly Skip[], field: string, label: string) => void;
}

export function SkipRules(props: SkipRulesProps) {
  const { place, id, skips, from, otherwise, leaves, change } = props;
  const counts = useWays(leaves, skips.length > 0);
  const countOf = (index: number | null) => counts?.find((way) => way.index === index);
  const [open, setOpen] = useState<number | null>(null);
  const always = skips.some((skip) => skip.if === undefined);
  const add = (to: Target) => {
    // Before a skip that takes everybody, which would leave the new one nothing.
    const at = always ? skips.findIndex((skip) => skip.if === undefined) : skips.length;
    const made: Skip = always ? { if: '', to } : { to };
    change([...skips.slice(0, at), made, ...skips.slice(at)], 'skips', 'Add a skip');
    setOpen(at);
    requestAnimationFrame(() => focusField(fieldId(id, 'skip', at)));
  };
  return (
    <>
      {skips.map((skip, index) => (
        <SkipRule
          key={index}
          {...props}
          skip={skip}
          index={index}
          count={countOf(index)}
          open={open === index}
          setOpen={(wanted) => setOpen(wanted ? index : null)}
        />
      ))}
      {!always && (
        <div className={rows.pair}>
          <span>{skips.length === 0 ? 'everyone' : 'everyone else'}</span>
          <b>{otherwise}</b>
        </div>
      )}
      {!always && skips.length > 0 && <TakenBy count={countOf(null)} from={leaves} />}
      <AimButton section={place.section} from={from} className={classes.button} choose={add}>
        Add a skip
      </AimButton>
    </>
  );
}
