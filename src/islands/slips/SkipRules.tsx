/** Skips, or an onward list, as sentences tried in order; the first that holds is taken. */
import { useState } from 'react';
import { parseCondition } from '../../core/condition/parse';
import type { Position } from '../../core/condition/scope';
import { fieldId } from '../../core/document/addresses';
import type { Skip } from '../../core/document/types';
import type { Change } from '../../core/editing/change';
import type { Plan } from '../../core/routing/plan';
import type { Snag } from '../../core/snags';
import { conditionSentence } from '../../core/wording/sentence';
import { targetWords } from '../../core/wording/targets';
import type { WaysFrom } from '../../worker/types';
import { Rewrite } from './Rewrite';
import { TakenBy, useWays } from './taken-by';
import { ConditionField } from '../fields/ConditionField';
import { ConditionPicker } from '../fields/ConditionPicker';
import { focusField } from '../fields/focus';
import { TargetPicker } from '../fields/TargetPicker';
import { VariableName } from '../ui/VariableName';
import classes from './slip.module.css';
import rows from './rows.module.css';

interface Props {
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

export function SkipRules({
  plan,
  place,
  id,
  skips,
  isProblem,
  reads,
  from,
  otherwise,
  leaves,
  asAskIf,
  change,
}: Props) {
  const counts = useWays(leaves, skips.length > 0);
  const countOf = (index: number | null) => counts?.find((way) => way.index === index);
  const [open, setOpen] = useState<number | null>(null);
  const [aiming, setAiming] = useState<number | null>(null);
  const [picking, setPicking] = useState(false);
  const replace = (index: number, skip: Skip, field: string) =>
    change(
      skips.map((other, n) => (n === index ? skip : other)),
      `skips ${index} ${field}`,
      'Change a skip',
    );
  const remove = (index: number) =>
    change(
      skips.filter((_, n) => n !== index),
      'skips',
      'Delete a skip',
    );
  const always = skips.some((skip) => skip.if === undefined);
  return (
    <>
      {skips.map((skip, index) => (
        <div key={index} className={rows.skip}>
          <div className={rows.pair}>
            <button
              type="button"
              className={rows.sentence}
              aria-expanded={open === index}
              title={skip.if ?? 'always'}
              onClick={() => {
                setOpen(open === index ? null : index);
                setPicking(false);
              }}
            >
              {wordsOf(plan, skip, index, skips.length)}
            </button>
            <span className={rows.aim}>
              <button
                type="button"
                aria-label={`Target of skip ${index + 1}`}
                aria-expanded={aiming === index}
                onClick={() => setAiming(aiming === index ? null : index)}
              >
                → <VariableName name={targetWords(plan.document, skip.to)} />
              </button>
              {aiming === index && (
                <TargetPicker
                  section={place.section}
                  item={from}
                  none={null}
                  close={() => setAiming(null)}
                  choose={(target) => {
                    setAiming(null);
                    if (target !== null) replace(index, { ...skip, to: target }, 'to');
                  }}
                />
              )}
            </span>
          </div>
          <TakenBy count={countOf(index)} from={leaves} />
          {open === index && (
            <div className={rows.openSkip}>
              <ConditionField
                field={fieldId(id, 'skip', index)}
                label={`Condition of skip ${index + 1}`}
                value={skip.if ?? ''}
                place={reads}
                isProblem={(snag) => isProblem(snag, index) && snag.field === 'if'}
                placeholder="always"
                change={(text) => {
                  const { if: _, ...rest } = skip;
                  replace(index, text.trim() === '' ? rest : { if: text, ...rest }, 'if');
                }}
              />
              {picking && (
                <ConditionPicker
                  place={reads}
                  value={skip.if ?? ''}
                  change={(text) => replace(index, { ...skip, if: text }, 'if')}
                />
              )}
              <div className={rows.rowActs}>
                <button type="button" aria-expanded={picking} onClick={() => setPicking(!picking)}>
                  Pick
                </button>
                <button type="button" onClick={() => remove(index)}>
                  Delete skip
                </button>
                {asAskIf !== undefined && <Rewrite words="Write as ask if" make={() => asAskIf(index)} />}
              </div>
            </div>
          )}
        </div>
      ))}
      {!always && (
        <div className={rows.pair}>
          <span>{skips.length === 0 ? 'everyone' : 'everyone else'}</span>
          <b>{otherwise}</b>
        </div>
      )}
      {!always && skips.length > 0 && <TakenBy count={countOf(null)} from={leaves} />}
      <span className={rows.aim}>
        <button
          type="button"
          className={classes.button}
          aria-expanded={aiming === skips.length}
          onClick={() => setAiming(aiming === skips.length ? null : skips.length)}
        >
          Add a skip
        </button>
        {aiming === skips.length && (
          <TargetPicker
            section={place.section}
            item={from}
            none={null}
            close={() => setAiming(null)}
            choose={(target) => {
              setAiming(null);
              if (target === null) return;
              // Before a skip that takes everybody, which would leave the new one nothing.
              const at = always ? skips.findIndex((skip) => skip.if === undefined) : skips.length;
              const made: Skip = always ? { if: '', to: target } : { to: target };
              change([...skips.slice(0, at), made, ...skips.slice(at)], 'skips', 'Add a skip');
              setOpen(at);
              requestAnimationFrame(() => focusField(fieldId(id, 'skip', at)));
            }}
          />
        )}
      </span>
    </>
  );
}

function wordsOf(plan: Plan, skip: Skip, index: number, count: number): string {
  if (skip.if === undefined) return count > 1 && index === count - 1 ? 'everyone else' : 'everyone';
  const parsed = parseCondition(skip.if);
  return parsed.ok ? `if ${conditionSentence(parsed.tree, plan.variables)}` : `if ${skip.if}`;
}
