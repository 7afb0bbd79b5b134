/**
 * The skips, drawn in the sheet's margin: from the row they leave down to an arrowhead at their target.
 * Positions are measured on rows that are on the page and estimated for others; lanes are packed so that no two arcs
 * share a line.
 */
import { useEffect, useMemo, useState, type RefObject } from 'react';
import { address, parseAddress, readAddress, type Address } from '../../../core/document/addresses';
import { isEarly } from '../../../core/document/vocabularies';
import { arcsOf, packLanes, type Arc } from '../../../core/views/arcs';
import { useStudy } from '../../state/store';
import type { SheetRows } from './use-sheet-rows';
import { VariableName } from '../../ui/VariableName';
import classes from './arcs.module.css';

interface Props {
  /** What scrolls, with the sheet inside. */
  readonly scroller: RefObject<HTMLElement | null>;
  readonly sheet: RefObject<HTMLElement | null>;
  readonly rows: SheetRows;
}

interface Drawn {
  readonly arc: Arc;
  readonly sources: readonly { readonly anchor: Address; readonly y: number }[];
  readonly target: number;
  readonly x: number;
}

const EDGE = 92;
const FIRST_LANE = 78;
const LAST_LANE = 14;
/** Of the sheet above its first row, as in its style. */
const SHEET_PADDING = 4;
/** How far out of view arcs are drawn. */
const BEYOND = 400;

export function ArcLayer({ scroller, sheet, rows }: Props) {
  const plan = useStudy((state) => state.plan);
  const arcs = useMemo(() => arcsOf(plan), [plan]);
  const offsets = useAnchorOffsets(sheet);
  const [lit, setLit] = useState<string | null>(null);
  const view = useVisible(scroller);
  const drawn = place(arcs, rows, offsets, view);

  const litArc = drawn.find(({ arc }) => arc.id === lit);
  return (
    <>
      <svg className={classes.arcs} width="96" height="1" aria-hidden="true">
        {drawn.map((entry) => (
          <ArcPath key={entry.arc.id} entry={entry} lit={entry.arc.id === lit} light={setLit} />
        ))}
      </svg>
      {litArc !== undefined && <Lights entry={litArc} />}
      <EdgeNames drawn={drawn} view={view} />
    </>
  );
}

function ArcPath({ entry, lit, light }: { entry: Drawn; lit: boolean; light: (id: string | null) => void }) {
  const { arc, sources, target, x } = entry;
  const ys = [...sources.map(({ y }) => y), target];
  const [top, bottom] = [Math.min(...ys), Math.max(...ys)];
  const turn = (y: number) => {
    // The corner bends towards the other end; a source in between meets the line straight.
    if (y === top) return `M${EDGE} ${y} H${x + 9} q-9 0 -9 9`;
    if (y === bottom) return `M${EDGE} ${y} H${x + 9} q-9 0 -9 -9`;
    return `M${EDGE} ${y} H${x}`;
  };
  const path = [
    ...sources.map(({ y }) => turn(y)),
    `M${x} ${top + 9} V${bottom - 9}`,
    target === bottom
      ? `M${x} ${bottom - 9} q0 9 9 9 H${EDGE - 5}`
      : target === top
        ? `M${x} ${top + 9} q0 -9 9 -9 H${EDGE - 5}`
        : `M${x} ${target} H${EDGE - 5}`,
  ].join(' ');
  return (
    <g
      className={`${isEarly(arc.target.ending) ? classes.early : classes.skip} ${lit ? classes.lit : ''}`}
      onMouseEnter={() => light(arc.id)}
      onMouseLeave={() => light(null)}
    >
      <path className={classes.touch} d={path} />
      <path d={path} />
      <path d={`M${EDGE - 6} ${target - 5} l6 5 l-6 5`} />
    </g>
  );
}

/** Marks the rows at both ends of the arc under the pointer. */
function Lights({ entry }: { readonly entry: Drawn }) {
  return (
    <>
      {[...entry.sources.map(({ y }) => y), entry.target].map((y) => (
        <span key={y} className={classes.light} style={{ top: y - 11 }} />
      ))}
    </>
  );
}

/** For arcs that leave a visible row for a place out of sight: its name at the edge. */
function EdgeNames({ drawn, view }: { drawn: readonly Drawn[]; view: { top: number; bottom: number } }) {
  const seen = (y: number) => y >= view.top && y <= view.bottom;
  const below = drawn.filter(
    ({ sources, target }) => sources.some(({ y }) => seen(y)) && target > view.bottom,
  );
  return (
    <div
      className={classes.edge}
      style={{
        top: view.bottom - 8 - below.reduce((sum, { arc }) => sum + 17 * linesOf(arc.target.label), 0),
      }}
      aria-hidden="true"
    >
      {below.map(({ arc }) => (
        <span
          key={arc.id}
          className={isEarly(arc.target.ending) ? classes.early : classes.skip}
          title={arc.target.label}
        >
          ↓ <VariableName name={arc.target.label} />
        </span>
      ))}
    </div>
  );
}

/** Of a name at the edge: a long one goes on below. */
function linesOf(label: string): number {
  return Math.ceil(label.length / 14);
}

/** Where arcs meet rows that have not been on the page yet, in pixels below the top of the row. */
const UNSEEN_OFFSET = 19;

/** Offsets of anchors within their rows, as last measured. A new map where one has changed. */
function useAnchorOffsets(sheet: RefObject<HTMLElement | null>): ReadonlyMap<Address, number> {
  const [offsets, setOffsets] = useState<ReadonlyMap<Address, number>>(new Map());
  // After every change of what is on the page; with the frame's own layout, which is worked out anyway by then.
  useEffect(() => {
    const frame = requestAnimationFrame(() => {
      if (sheet.current === null) return;
      const measured = measure(sheet.current);
      setOffsets((before) =>
        [...measured].every(([anchor, y]) => before.get(anchor) === y)
          ? before
          : new Map([...before, ...measured]),
      );
    });
    return () => cancelAnimationFrame(frame);
  });
  return offsets;
}

function measure(sheet: HTMLElement): Map<Address, number> {
  const offsets = new Map<Address, number>();
  for (const row of sheet.querySelectorAll<HTMLElement>('[data-index]')) {
    const origin = row.getBoundingClientRect().top;
    for (const node of row.querySelectorAll<HTMLElement>('[data-anchor]')) {
      const { top, height } = node.getBoundingClientRect();
      const anchor = parseAddress(node.dataset.anchor ?? '');
      if (anchor === null) continue;
      const { kind } = readAddress(anchor);
      // An item's or section's arrow points at its first line.
      const into = kind === 'item' || kind === 'ending' ? 19 : kind === 'section' ? 16 : height / 2;
      if (!offsets.has(anchor)) offsets.set(anchor, Math.round(top - origin + into));
    }
  }
  return offsets;
}

/** The arcs that pass the view, with where they run. Lanes are packed over all, so that none changes by scrolling. */
function place(
  arcs: readonly Arc[],
  { index, virtualizer }: SheetRows,
  offsets: ReadonlyMap<Address, number>,
  view: { readonly top: number; readonly bottom: number },
): Drawn[] {
  const yOf = (anchor: Address) => {
    const row = index.ofAnchor(anchor);
    const start = row === undefined ? undefined : virtualizer.measurementsCache[row]?.start;
    const offset = offsets.get(anchor) ?? offsets.get(address('item', readAddress(anchor).name));
    return start === undefined ? undefined : SHEET_PADDING + start + (offset ?? UNSEEN_OFFSET);
  };
  const placed = arcs.flatMap((arc) => {
    const target = yOf(arc.target.anchor);
    const sources = arc.sources.flatMap((anchor) => {
      const y = yOf(anchor);
      return y === undefined ? [] : [{ anchor, y }];
    });
    return target === undefined || sources.length === 0 ? [] : [{ arc, sources, target }];
  });
  const stretches = placed.map(({ arc, sources, target }) => {
    const ys = [...sources.map(({ y }) => y), target];
    return { id: arc.id, top: Math.min(...ys), bottom: Math.max(...ys) };
  });
  const lanes = packLanes(stretches);
  const count = Math.max(1, ...[...lanes.values()].map((lane) => lane + 1));
  const step = Math.min(14, (FIRST_LANE - LAST_LANE) / Math.max(1, count - 1));
  return placed.flatMap((entry, at) => {
    const stretch = stretches[at];
    if (stretch === undefined || stretch.bottom < view.top - BEYOND || stretch.top > view.bottom + BEYOND)
      return [];
    return [{ ...entry, x: Math.round(FIRST_LANE - (lanes.get(entry.arc.id) ?? 0) * step) }];
  });
}

/** The stretch of the sheet that is in sight. */
function useVisible(scroller: RefObject<HTMLElement | null>): { top: number; bottom: number } {
  const [view, setView] = useState({ top: 0, bottom: 0 });
  useEffect(() => {
    const node = scroller.current;
    if (node === null) return;
    const look = () => setView({ top: node.scrollTop, bottom: node.scrollTop + node.clientHeight });
    look();
    node.addEventListener('scroll', look, { passive: true });
    addEventListener('resize', look);
    return () => {
      node.removeEventListener('scroll', look);
      removeEventListener('resize', look);
    };
  }, [scroller]);
  return view;
}
