/** The sheet: every section with its items, the endings at the foot, the skips in the margin. */
import {
  DndContext,
  DragOverlay,
  KeyboardSensor,
  PointerSensor,
  pointerWithin,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { addSection, type ItemPlace } from '../../core/editing/structure';
import { useStudy, useStudyStore } from '../study/store';
import { announcementsFor } from './announcements';
import { ArcLayer } from './ArcLayer';
import { BeforeStart, WorkedOut } from './AroundBlocks';
import { EndingBlocks } from './EndingBlocks';
import { fieldId, thenFocus } from './focus';
import { outlineOf } from './ItemPrint';
import { useItemMoves, wholeItem } from './moves';
import { SectionBlock } from './SectionBlock';
import classes from './sheet.module.css';

export function Sheet() {
  const plan = useStudy((state) => state.plan);
  const selection = useStudy((state) => state.selection);
  const outline = useMemo(() => outlineOf(plan), [plan]);
  const scroller = useRef<HTMLDivElement>(null);
  const sheet = useRef<HTMLDivElement>(null);
  const moves = useItemMoves();
  const [dragged, setDragged] = useState<string | null>(null);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor),
  );
  const addSectionAtEnd = useAddSection();

  // What was selected elsewhere comes into sight.
  useEffect(() => {
    if (selection === null) return;
    const node = sheet.current?.querySelector(`[data-field="${CSS.escape(wholeItem(selection))}"]`);
    if (node && !node.contains(document.activeElement)) node.scrollIntoView({ block: 'nearest' });
  }, [selection]);

  const announcements = announcementsFor((side) => {
    const place = side?.data.current?.place as ItemPlace | undefined;
    const section = place && plan.document.sections[place.section];
    if (place === undefined || section === undefined) return null;
    const item = section.items[place.item];
    const name = item === undefined ? null : item.kind === 'page_break' ? 'a page break' : item.name;
    if (side?.id === `${place.section}/${place.item}`) return name;
    return name === null ? `the end of ${section.title}` : `before ${name}`;
  });

  const onDragEnd = ({ active, over }: DragEndEvent) => {
    setDragged(null);
    const from = active.data.current?.place as ItemPlace | undefined;
    const to = over?.data.current?.place as ItemPlace | undefined;
    if (from !== undefined && to !== undefined) moves.moveTo(from, to);
  };
  return (
    <DndContext
      id="sheet"
      sensors={sensors}
      collisionDetection={pointerWithin}
      accessibility={{ announcements }}
      onDragStart={({ active }) => setDragged(String(active.data.current?.title ?? ''))}
      onDragEnd={onDragEnd}
      onDragCancel={() => setDragged(null)}
    >
      <div className={classes.scroller} ref={scroller}>
        <div className={classes.sheet} ref={sheet}>
          <ArcLayer scroller={scroller} sheet={sheet} />
          <BeforeStart />
          {plan.sections.map((planSection) => (
            <SectionBlock
              // By place, not by id: naming a section must not take away what is being pressed in it.
              key={planSection.index}
              plan={plan}
              planSection={planSection}
              outline={outline}
            />
          ))}
          <button type="button" className={classes.addSection} onClick={addSectionAtEnd}>
            Add a section
          </button>
          <WorkedOut />
          <EndingBlocks />
        </div>
      </div>
      <DragOverlay dropAnimation={null}>
        {dragged === null ? null : <div className={classes.dragging}>{dragged}</div>}
      </DragOverlay>
    </DndContext>
  );
}

/** Adds a section after the last one and puts the caret into its title. */
export function useAddSection(): () => void {
  const store = useStudyStore();
  return () => {
    const { document: before, commit, select } = store.getState();
    const at = before.sections.length;
    commit(addSection(before, at, ''));
    const id = store.getState().document.sections[at]?.id ?? '';
    thenFocus(() => select(`section:${id}`), fieldId(id, 'title'));
  };
}
