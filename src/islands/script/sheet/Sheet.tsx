/** The sheet: every section with its items, the endings at the foot, the skips in the margin. */
import {
  DndContext,
  DragOverlay,
  KeyboardSensor,
  MeasuringStrategy,
  PointerSensor,
  pointerWithin,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import { Fragment, useEffect, useMemo, useRef, useState } from 'react';
import { address, fieldId, parseAddress, wholeField, type Address } from '../../../core/document/addresses';
import { addSection, type ItemPlace } from '../../../core/editing/structure';
import type { Plan } from '../../../core/routing/plan';
import type { SheetRow } from '../../../core/views/sheet-rows';
import { partSelected } from '../../state/study-state';
import { openPaste } from '../../state/open-paste';
import { OVER_ALL } from '../../state/pasting';
import { useStudy, useStudyStore } from '../../state/store';
import { announcementsFor } from './announcements';
import { ArcLayer } from './ArcLayer';
import { BeforeStart, WorkedOut } from '../declarations/Declarations';
import { EndingBlocks } from './EndingBlocks';
import { focusField, showField, thenFocus } from '../../fields/focus';
import { ItemBlock, planItemAt } from '../item/ItemBlock';
import { outlineOf } from '../item/ItemPrint';
import { useItemMoves } from '../../fields/part-moves';
import { SectionEnd } from './SectionEnd';
import { SectionHeading } from './SectionHeading';
import { useSheetRows, type ShownRow } from './use-sheet-rows';
import classes from './sheet.module.css';

/** Rows come onto the page while something is dragged to them. */
const WHILE_SCROLLING = { droppable: { strategy: MeasuringStrategy.Always } };

export function Sheet() {
  const plan = useStudy((state) => state.plan);
  const selection = useStudy((state) => state.selection);
  const outline = useMemo(() => outlineOf(plan), [plan]);
  const scroller = useRef<HTMLDivElement>(null);
  const sheet = useRef<HTMLDivElement>(null);
  const moves = useItemMoves();
  const [dragged, setDragged] = useState<{ readonly title: string; readonly key: Address } | null>(null);
  const rows = useSheetRows(plan, scroller, dragged?.key ?? null);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor),
  );
  const addSectionAtEnd = useAddSection();
  // What was selected elsewhere comes into sight.
  useEffect(() => {
    const part = partSelected(selection);
    if (part === null) return;
    const node = sheet.current?.querySelector(`[data-field="${CSS.escape(wholeField(part))}"]`);
    if (node && !node.contains(document.activeElement)) node.scrollIntoView({ block: 'nearest' });
    // What had the focus has gone, as a panel does: the keys are for what is selected now.
    if (document.activeElement === document.body) focusField(wholeField(part));
  }, [selection]);

  // What an undo did is selected and comes into sight, also where the rest of the sheet has to be brought.
  const store = useStudyStore();
  const said = useStudy((state) => state.said);
  useEffect(() => {
    if (said?.at == null) return;
    store.getState().select(said.at);
    showField(wholeField(said.at), 'nearest');
  }, [said, store]);

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
      onDragStart={({ active: { data } }) => {
        const key = parseAddress(String(data.current?.key ?? ''));
        if (key !== null) setDragged({ title: String(data.current?.title ?? ''), key });
      }}
      onDragEnd={onDragEnd}
      onDragCancel={() => setDragged(null)}
      measuring={WHILE_SCROLLING}
    >
      <div className={classes.scroller} ref={scroller} role="region" aria-label="Sheet" tabIndex={-1}>
        <div className={classes.sheet} ref={sheet}>
          <ArcLayer scroller={scroller} sheet={sheet} rows={rows} />
          {bySection(rows.shown).map(({ section, shown }) => {
            const all = shown.map(({ row, at, above }) => (
              <Fragment key={row.key}>
                {above > 0 && <div style={{ height: above }} />}
                <div className={classes.row} data-index={at} ref={rows.virtualizer.measureElement}>
                  <Row row={row} plan={plan} outline={outline} addSection={() => addSectionAtEnd()} />
                </div>
              </Fragment>
            ));
            return section === null ? (
              <Fragment key={shown[0]?.row.key}>{all}</Fragment>
            ) : (
              <section key={section} aria-label={plan.document.sections[section]?.title}>
                {all}
              </section>
            );
          })}
          <div style={{ height: rows.below }} />
        </div>
      </div>
      <DragOverlay dropAnimation={null}>
        {dragged === null ? null : <div className={classes.dragging}>{dragged.title}</div>}
      </DragOverlay>
    </DndContext>
  );
}

interface RowProps {
  readonly row: SheetRow;
  readonly plan: Plan;
  readonly outline: string;
  readonly addSection: () => void;
}

function Row({ row, plan, outline, addSection }: RowProps) {
  const folded = useStudy((state) => state.folded);
  const store = useStudyStore();
  if (row.kind === 'before') return <BeforeStart />;
  if (row.kind === 'foot')
    return (
      <>
        <button type="button" className={classes.addSection} onClick={addSection}>
          Add a section
        </button>{' '}
        <button type="button" className={classes.addSection} onClick={() => openPaste(store, OVER_ALL)}>
          Paste a list
        </button>
        <WorkedOut />
        <EndingBlocks />
      </>
    );
  const planSection = plan.sections[row.section];
  if (planSection === undefined) return null;
  if (row.kind === 'heading')
    return <SectionHeading planSection={planSection} folded={folded.has(planSection.section.id)} />;
  if (row.kind === 'end') return <SectionEnd plan={plan} planSection={planSection} />;
  return (
    <ItemBlock
      plan={plan}
      planItem={planItemAt(plan, row.section, row.item)}
      section={row.section}
      item={row.item}
      outline={outline}
    />
  );
}

/** Runs of rows of one section; null for what belongs to none. */
function bySection(shown: readonly ShownRow[]): { section: number | null; shown: ShownRow[] }[] {
  const runs: { section: number | null; shown: ShownRow[] }[] = [];
  for (const entry of shown) {
    const section = 'section' in entry.row ? entry.row.section : null;
    const last = runs.at(-1);
    if (last !== undefined && section !== null && last.section === section) last.shown.push(entry);
    else runs.push({ section, shown: [entry] });
  }
  return runs;
}

/** Adds a section, after the last one where no place is given, and puts the caret into its title. */
export function useAddSection(): (place?: number) => void {
  const store = useStudyStore();
  return (place) => {
    const { document: before, commit, select } = store.getState();
    const at = place ?? before.sections.length;
    commit(addSection(before, at, ''));
    const id = store.getState().document.sections[at]?.id ?? '';
    thenFocus(() => select(address('section', id)), fieldId('@section', id, 'title'));
  };
}
