/** One item on the sheet: printed, or written in while it is selected. A handle at its left drags it. */
import { useDraggable, useDroppable } from '@dnd-kit/core';
import { GripVertical } from 'lucide-react';
import { memo, useRef, type KeyboardEvent, type MouseEvent } from 'react';
import { address, fieldOfElement, nameAt, wholeField } from '../../../core/document/addresses';
import type { ItemPlace } from '../../../core/editing/structure';
import type { Plan, PlanItem } from '../../../core/routing/plan';
import { neighbour } from '../../../core/views/sheet-rows';
import { useStudy, useStudyStore } from '../../state/store';
import { caretAt, focusField, thenFocus } from '../../fields/focus';
import { ItemEditor } from './ItemEditor';
import { ItemPrint } from './ItemPrint';
import { useItemMoves } from '../../fields/part-moves';
import classes from './block.module.css';

interface Props {
  /** Of any version in which the item and the outline are the same. */
  readonly plan: Plan;
  /** Null for a page break. */
  readonly planItem: PlanItem | null;
  readonly section: number;
  readonly item: number;
  readonly outline: string;
}

/** Drawn anew only where the item itself, its place or what its print shows of the rest has changed. */
export const ItemBlock = memo(function ItemBlock({ plan, planItem, section, item, outline }: Props) {
  const place: ItemPlace = { section, item };
  const key = planItem === null ? address('break', section, item) : address('item', planItem.item.name);
  const selected = useStudy((state) => state.selection === key && state.group.size === 0);
  const grouped = useStudy((state) => state.group.has(key));
  const store = useStudyStore();
  const moves = useItemMoves();
  const box = useRef<HTMLDivElement>(null);
  const title = planItem === null ? 'Page break' : `${planItem.item.name}: ${planItem.item.text}`;
  const { setActivatorNodeRef, attributes, listeners, setNodeRef, isDragging } = useDraggable({
    id: `${section}/${item}`,
    data: { place, title, key },
  });
  const { setNodeRef: setDropRef, isOver } = useDroppable({
    id: `before ${section}/${item}`,
    data: { place },
  });

  const select = () => {
    if (store.getState().selection !== key) store.getState().select(key);
  };
  const onMouseDown = (event: MouseEvent<HTMLElement>) => {
    if (selected || event.button !== 0) return;
    const target = event.target as HTMLElement;
    if (event.shiftKey && planItem !== null) {
      event.preventDefault();
      store.getState().selectTo(key);
      box.current?.focus();
      return;
    }
    if (grouped) store.getState().select(null);
    if (target.closest('button, a, select, input, textarea')) return;
    event.preventDefault();
    const named = target.closest<HTMLElement>('[data-field]')?.dataset.field;
    const field = fieldOfElement(named) ?? wholeField(key);
    thenFocus(select, field, caretAt(event.clientX, event.clientY));
  };
  const onKeyDown = (event: KeyboardEvent<HTMLElement>) => {
    const own = event.target === box.current;
    // A field that has used the key, to close a list for instance, has done all that was meant.
    if (event.isDefaultPrevented()) return;
    if (event.key === 'Escape' && !own) box.current?.focus();
    else if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown'))
      moves.moveBy(place, event.key === 'ArrowUp' ? -1 : 1);
    else if (!own) return;
    else if (event.key === 'Enter') moves.addAfter(place);
    else if (event.key === 'Delete' || event.key === 'Backspace') moves.remove(place);
    else if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'd') moves.duplicate(place);
    else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      const { document, folded } = store.getState();
      const next = neighbour(document, folded, key, event.key === 'ArrowDown' ? 1 : -1);
      if (next === undefined) return;
      if (event.shiftKey && nameAt(next, 'item') !== null) store.getState().selectTo(next);
      focusField(wholeField(next));
    } else return;
    event.preventDefault();
  };

  return (
    <div
      ref={(node) => {
        box.current = node;
        setDropRef(node);
        setNodeRef(node);
      }}
      className={`${planItem === null ? classes.break : classes.item} ${selected || grouped ? classes.selected : ''}`}
      data-selected={selected || grouped || undefined}
      data-grouped={grouped || undefined}
      data-anchor={planItem === null ? undefined : key}
      data-field={wholeField(key)}
      data-over={isOver || undefined}
      data-dragged={isDragging || undefined}
      role="group"
      aria-label={title}
      tabIndex={0}
      onFocus={(event) => {
        // Taking the handle is not yet a wish to write: opening here would move everything below.
        if (!event.target.closest(`.${classes.grip}`)) select();
      }}
      onMouseDown={onMouseDown}
      onKeyDown={onKeyDown}
    >
      <button
        type="button"
        ref={setActivatorNodeRef}
        {...attributes}
        {...listeners}
        tabIndex={selected ? 0 : -1}
        className={classes.grip}
        aria-label={`Drag ${planItem?.item.name ?? 'page break'}`}
        title="Drag to move, or Alt with the arrows"
      >
        <GripVertical size={13} />
      </button>
      {planItem === null ? (
        <span>page break</span>
      ) : selected ? (
        <Written section={section} item={item} />
      ) : (
        <ItemPrint plan={plan} planItem={planItem} outline={outline} />
      )}
    </div>
  );
}, isSameBlock);

function isSameBlock(a: Props, b: Props): boolean {
  return (
    a.planItem?.item === b.planItem?.item &&
    a.section === b.section &&
    a.item === b.item &&
    a.outline === b.outline
  );
}

/** The item while it is written in, which follows everything. */
function Written({ section, item }: ItemPlace) {
  const plan = useStudy((state) => state.plan);
  const planItem = planItemAt(plan, section, item);
  return planItem === null ? null : <ItemEditor plan={plan} planItem={planItem} place={{ section, item }} />;
}

/** Null for a page break. */
export function planItemAt(plan: Plan, section: number, item: number): PlanItem | null {
  return plan.sections[section]?.items.find(({ place }) => place === item) ?? null;
}
