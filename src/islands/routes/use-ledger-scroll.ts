/**
 * Which rows of the ledger are in sight. Any number of routes scrolls: where the sheet would be higher than a browser
 * allows, its scroll bar stands for a share of the whole, and the wheel still moves by rows.
 */
import { useEffect, useLayoutEffect, useRef, useState, type RefObject } from 'react';
import { rowToShow, type InSight } from './in-sight';
import { ROW } from './LedgerRow';
import type { ListedRoutes } from './use-list';

/** How far the sheet scrolls at most: browsers stop at some tens of millions of pixels. */
const FARTHEST = 6_000_000;
/** The share that a scroll bar tells, in parts of this. */
const PARTS = 1_000_000;
/** Height of the headings, in pixels. */
export const HEADS = 46;

/** `place`: the current row, counted from 0; it comes into sight when it changes, or the list does. */
export function useLedgerScroll(
  scroller: RefObject<HTMLDivElement | null>,
  list: ListedRoutes,
  place: bigint,
) {
  const size = useSize(scroller);
  const [top, setTop] = useState(0n);
  const [offset, setOffset] = useState(0);
  const count = BigInt(list.summary.total);
  const fits = Math.max(1, Math.floor((size.height - HEADS) / ROW));
  const last = count > BigInt(fits) ? count - BigInt(fits) : 0n;
  const first = top > last ? last : top;
  const exact = last * BigInt(ROW) < BigInt(FARTHEST);
  // How far it scrolls hangs on the rows alone. Were it the height of the sheet less what is in sight, a line that
  // goes and comes again above it would move the bar, and the bar would be read as a share of the whole.
  const range = exact ? Number(last) * ROW : FARTHEST;

  const shown = useRef<InSight>({ first, fits, place: 0n, list });
  /** Where it was scrolled to by us: that the bar then stands there is no news. */
  const own = useRef(-1);
  function scrollTo(row: bigint): void {
    const node = scroller.current;
    if (node === null) return;
    const bounded = row < 0n ? 0n : row > last ? last : row;
    setTop(bounded);
    shown.current = { ...shown.current, first: bounded };
    const share = last === 0n ? 0 : Number((bounded * BigInt(PARTS)) / last) / PARTS;
    const y = exact ? Number(bounded) * ROW : share * range;
    own.current = Math.round(y);
    node.scrollTop = y;
  }
  const onScroll = () => {
    const node = scroller.current;
    if (node === null) return;
    setOffset(node.scrollLeft);
    if (Math.abs(node.scrollTop - own.current) <= 1) return;
    own.current = -1;
    if (exact) setTop(BigInt(Math.round(node.scrollTop / ROW)));
    else {
      const share = Math.min(1, node.scrollTop / range);
      setTop((last * BigInt(Math.round(share * PARTS))) / BigInt(PARTS));
    }
  };
  // After every drawing: what is about to be scrolled to counts as in sight already, since a line that takes room from the
  // sheet may be drawn together with it.
  useEffect(() => {
    const now = { first, fits, place, list };
    const row = rowToShow(shown.current, now);
    shown.current = now;
    if (row !== null) scrollTo(row);
  });
  useEffect(() => {
    const node = scroller.current;
    if (node === null || exact) return;
    const onWheel = (event: WheelEvent) => {
      if (event.deltaY === 0) return;
      event.preventDefault();
      const rows = Math.max(1, Math.round(Math.abs(event.deltaY) / ROW));
      scrollTo(first + BigInt(Math.sign(event.deltaY) * rows));
    };
    node.addEventListener('wheel', onWheel, { passive: false });
    return () => node.removeEventListener('wheel', onWheel);
  });
  return { size, count, fits, first, offset, range, onScroll };
}

/** Of what is in sight of the sheet, in pixels. */
function useSize(scroller: RefObject<HTMLDivElement | null>) {
  const [size, setSize] = useState({ width: 1000, height: 480 });
  useLayoutEffect(() => {
    const node = scroller.current;
    if (node === null) return;
    const measure = () =>
      setSize((before) =>
        before.width === node.clientWidth && before.height === node.clientHeight
          ? before
          : { width: node.clientWidth, height: node.clientHeight },
      );
    // Before it is painted, so that the first rows that are asked for are the right ones.
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(node);
    return () => observer.disconnect();
  }, [scroller]);
  return size;
}
