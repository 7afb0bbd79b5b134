/** Which rows of the sheet are on the page: those near the view, and those that must not be taken away meanwhile. */
import { defaultRangeExtractor, useVirtualizer, type Range, type Virtualizer } from '@tanstack/react-virtual';
import { useCallback, useEffect, useMemo, useState, type RefObject } from 'react';
import { flushSync } from 'react-dom';
import type { Address, FieldId } from '../../../core/document/addresses';
import type { Plan } from '../../../core/routing/plan';
import {
  likelyHeight,
  RowIndex,
  rowsOf,
  steadyRows,
  type SheetRow,
  type SteadyRows,
} from '../../../core/views/sheet-rows';
import { bringWith } from '../../fields/focus';
import { useStudy } from '../../state/store';
import { partSelected } from '../../state/study-state';

export interface SheetRows {
  readonly index: RowIndex;
  readonly virtualizer: Virtualizer<HTMLDivElement, HTMLDivElement>;
  /** Rows on the page, in order. */
  readonly shown: readonly ShownRow[];
  /** Height of what follows the last row shown, in pixels. */
  readonly below: number;
}

export interface ShownRow {
  readonly row: SheetRow;
  readonly at: number;
  /** Height of the rows that are left out before this one, in pixels. */
  readonly above: number;
}

const OVERSCAN = 5;
/** Until the view has been measured. */
const FIRST_VIEW = { width: 800, height: 700 };

/** `held`: key of an item that is being dragged. */
export function useSheetRows(
  plan: Plan,
  scroller: RefObject<HTMLDivElement | null>,
  held: Address | null,
): SheetRows {
  const folded = useStudy((state) => state.folded);
  const selection = useStudy((state) => state.selection);
  const part = partSelected(selection);
  const { document } = plan;
  const rows = useSteadyRows(useMemo(() => rowsOf(document, folded), [document, folded]));
  const index = useMemo(() => new RowIndex(rows, document), [rows, document]);
  // A field that was asked for from afar stays on the page until another one is.
  const [brought, setBrought] = useState<FieldId | null>(null);
  useEffect(() => bringWith((field) => flushSync(() => setBrought(field))), []);

  const pinned = [
    part === null ? undefined : index.ofAnchor(part),
    held === null ? undefined : index.ofAnchor(held),
    brought === null ? undefined : index.ofField(brought),
  ].filter((at) => at !== undefined);
  const virtualizer = useVirtualizer<HTMLDivElement, HTMLDivElement>({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: (at) => {
      const row = rows[at];
      return row === undefined ? 0 : likelyHeight(row, document);
    },
    getItemKey: useCallback((at: number) => rows[at]?.key ?? at, [rows]),
    overscan: OVERSCAN,
    initialRect: FIRST_VIEW,
    useFlushSync: false,
    rangeExtractor: (range: Range) =>
      [...new Set([...defaultRangeExtractor(range), ...pinned])].sort((a, b) => a - b),
  });
  // Where the browser itself keeps what is in view in its place, doing so twice would move it.
  virtualizer.shouldAdjustScrollPositionOnItemSizeChange = () => !CSS.supports('overflow-anchor', 'auto');

  let bottom = 0;
  const shown = virtualizer.getVirtualItems().flatMap(({ index: at, start, end }) => {
    const row = rows[at];
    if (row === undefined) return [];
    const above = start - bottom;
    bottom = end;
    return [{ row, at, above }];
  });
  return { index, virtualizer, shown, below: virtualizer.getTotalSize() - bottom };
}

/** The list as it was while nothing in it has changed, so that its measures need not be added up anew. */
function useSteadyRows(rows: readonly SheetRow[]): readonly SheetRow[] {
  const [steady, setSteady] = useState<SteadyRows>({ rows, kept: new Map() });
  const next = steadyRows(steady, rows);
  if (next !== steady) setSteady(next);
  return next.rows;
}
