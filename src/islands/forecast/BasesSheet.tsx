/** Every base, in the order of the script or by size: how many are asked, in what range, and how precise a share of them is. */
import { useRef, useState, type KeyboardEvent } from 'react';
import type { Plan } from '../../core/routing/plan';
import type { Expected, Hanging } from '../../core/forecast/forecast';
import type { MadeFor } from '../../core/forecast/made-for';
import { groupKey } from '../../core/forecast/groups';
import type { Figures } from '../../worker/forecast/types';
import { grouped, plural } from '../ui/format';
import classes from './bases.module.css';
import { countOf, marginOf } from './figures';
import type { Sets } from './use-sets';
import { Whisker } from './Whisker';

interface Props {
  readonly figures: Figures;
  readonly held: MadeFor;
  readonly plan: Plan;
  readonly sets: Sets | null;
  readonly selected: Hanging;
  readonly select: (of: Hanging) => void;
  /** Into the slip of what is selected. */
  readonly enter: () => void;
}

interface Part {
  readonly id: string;
  readonly title: string;
  readonly rows: readonly Expected[];
}

export function BasesSheet({ figures, held, plan, sets, selected, select, enter }: Props) {
  const [bySize, setBySize] = useState(false);
  const list = useRef<HTMLDivElement>(null);
  const parts = bySize ? sorted(figures) : inOrder(figures, plan);
  const whole = figures.items.filter(({ group }) => 'item' in group && group.pass === null);
  const low = whole.filter(({ expected }) => expected < held.least).length;
  const key = selected === 'minutes' ? null : groupKey(selected.group);
  const ticks = [0, 0.25, 0.5, 0.75, 1].map((part) => Math.round(part * held.starts));
  const step = (event: KeyboardEvent) => {
    const group = (event.target as HTMLElement).closest('button')?.dataset.group;
    const row = figures.items.find((of) => groupKey(of.group) === group);
    if (event.key === 'ArrowRight' && row !== undefined) {
      event.preventDefault();
      select({ group: row.group });
      enter();
    }
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (by === undefined) return;
    const buttons = [...(list.current?.querySelectorAll('button') ?? [])];
    const at = buttons.indexOf(event.target as HTMLButtonElement);
    if (at < 0) return;
    event.preventDefault();
    buttons[at + by]?.focus();
  };
  return (
    <>
      <div className={classes.tools}>
        <span>
          {figures.items.length === 0
            ? 'There is nothing to ask yet: write questions in the script.'
            : low === 0
              ? `No base is below ${grouped(held.least)}.`
              : `${low} of ${plural(whole.length, 'base')} below ${grouped(held.least)}.`}
        </span>
        {sets !== null && <span>Pale: over all sets of assumptions.</span>}
        <label>
          <input type="checkbox" checked={bySize} onChange={(event) => setBySize(event.target.checked)} />{' '}
          smallest first
        </label>
      </div>
      <div className={classes.scale} aria-hidden="true">
        <span />
        <span>asked</span>
        <span className={classes.ticks}>
          {ticks.map((tick) => (
            <i key={tick} style={{ left: `${(100 * tick) / held.starts}%` }}>
              {grouped(tick)}
            </i>
          ))}
        </span>
        <span title="Half the width of the 95% interval of a share of one half, in points">± for a half</span>
      </div>
      <div ref={list} onKeyDown={step}>
        {parts.map(({ id, title, rows }) => (
          <section key={id} aria-label={title}>
            {title !== '' && <h3>{title}</h3>}
            {rows.map((row) => (
              <BaseRow
                key={groupKey(row.group)}
                row={row}
                held={held}
                span={sets?.spans.get(groupKey(row.group)) ?? null}
                isSelected={groupKey(row.group) === key}
                whole={bySize}
                select={() => select({ group: row.group })}
              />
            ))}
          </section>
        ))}
      </div>
    </>
  );
}

interface RowProps {
  readonly row: Expected;
  readonly held: MadeFor;
  readonly span: { readonly low: number; readonly high: number } | null;
  readonly isSelected: boolean;
  /** The name stands with its pass: other rows of the item are not beside it. */
  readonly whole: boolean;
  readonly select: () => void;
}

function BaseRow({ row, held, span, isSelected, whole, select }: RowProps) {
  const { group, expected, low, high, error } = row;
  if (!('item' in group)) return null;
  const margin = marginOf(expected, held.designEffect);
  const isLow = expected < held.least;
  const pass = group.pass === null ? null : `pass ${group.pass}`;
  return (
    <button
      type="button"
      className={classes.row}
      data-group={groupKey(group)}
      aria-pressed={isSelected}
      data-low={isLow || undefined}
      onClick={select}
    >
      <code data-pass={(pass !== null && !whole) || undefined}>
        {pass === null ? group.item : whole ? `${group.item}, ${pass}` : pass}
      </code>
      <span className={classes.dots} aria-hidden="true" />
      <b>
        {error !== null && <small title={`Simulated, within ${(100 * error).toFixed(1)} points`}>≈ </small>}
        {countOf(expected)}
      </b>
      <Whisker low={low} high={high} expected={expected} least={held.least} of={held.starts} span={span} />
      <span className={classes.margin}>{margin === null ? 'nobody' : `± ${margin.toFixed(1)}`}</span>
      <span className={classes.unseen}>
        , {grouped(low)} to {grouped(high)}
        {span !== null && `, ${grouped(span.low)} to ${grouped(span.high)} over all sets`}
        {isLow && ', too few'}
      </span>
    </button>
  );
}

function inOrder(figures: Figures, plan: Plan): Part[] {
  const byItem = new Map<string, Expected[]>();
  for (const row of figures.items) {
    if (!('item' in row.group)) continue;
    byItem.set(row.group.item, [...(byItem.get(row.group.item) ?? []), row]);
  }
  return plan.sections
    .map(({ section, items }) => ({
      id: section.id,
      title: section.title,
      rows: items.flatMap(({ item }) => byItem.get(item.name) ?? []),
    }))
    .filter(({ rows }) => rows.length > 0);
}

function sorted(figures: Figures): Part[] {
  return [{ id: '', title: '', rows: figures.items.toSorted((a, b) => a.expected - b.expected) }];
}
