/**
 * The rows of the ledger. Any number of routes scrolls: only the rows in sight are asked for, and where the
 * sheet would be higher than a browser allows, its scroll bar stands for a share of the whole.
 */
import { useEffect, useLayoutEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { grouped } from '../ui/format';
import { useLedger } from '../state/ledger';
import { useStudy } from '../state/store';
import { columnsIn } from './columns';
import { LedgerHeads, SIDES } from './LedgerHeads';
import { LedgerRow, ROW } from './LedgerRow';
import { Matrix } from './Matrix';
import classes from './ledger.module.css';
import { useRows, useShares, type ListedRoutes } from './use-list';

/** Browsers stop at some tens of millions of pixels. */
const HIGHEST = 6_000_000;
const HEADS = 46;

interface Props {
  readonly list: ListedRoutes;
  /** Place of the current row, counted from 0. */
  readonly place: bigint;
  readonly setPlace: (place: bigint) => void;
  readonly column: number | null;
  readonly setColumn: (column: number | null) => void;
  /** How much wider than what fits the columns are. */
  readonly zoom: number;
  readonly open: (number: string) => void;
}

export function LedgerGrid({ list, place, setPlace, column, setColumn, zoom, open }: Props) {
  const plan = useStudy((state) => state.plan);
  const ledger = useLedger();
  const scroller = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 1000, height: 480 });
  const [top, setTop] = useState(0n);
  const [offset, setOffset] = useState(0);
  const count = BigInt(list.summary.total);
  const fits = Math.max(1, Math.floor((size.height - HEADS) / ROW));
  const last = count > BigInt(fits) ? count - BigInt(fits) : 0n;
  const first = top > last ? last : top;
  const rows = useRows(list, first, Math.min(fits + 1, 200));
  const shares = useShares(rows);
  const width = size.width - SIDES.left - SIDES.right;
  const columns = useMemo(() => columnsIn(plan, width, zoom), [plan, width, zoom]);
  const exact = count * BigInt(ROW) < BigInt(HIGHEST);
  const height = exact ? Number(count) * ROW : HIGHEST;
  const current = Number(place - first);

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
  }, []);

  // The current row comes into sight when it was chosen elsewhere, or the list is another.
  const shown = useRef({ first, fits });
  useEffect(() => {
    shown.current = { first, fits };
  });
  useEffect(() => {
    const { first: from, fits: inSight } = shown.current;
    const next = place < from ? place : place >= from + BigInt(inSight) ? place - BigInt(inSight) + 1n : from;
    if (next !== from) scrollTo(next);
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [place, list]);

  const own = useRef(-1);
  function scrollTo(row: bigint): void {
    const node = scroller.current;
    if (node === null) return;
    const bounded = row < 0n ? 0n : row > last ? last : row;
    setTop(bounded);
    const room = node.scrollHeight - node.clientHeight;
    const y = exact
      ? Number(bounded) * ROW
      : last === 0n
        ? 0
        : (Number((bounded * 1_000_000n) / last) / 1_000_000) * room;
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
      const part = node.scrollTop / (node.scrollHeight - node.clientHeight);
      setTop((last * BigInt(Math.round(part * 1_000_000))) / 1_000_000n);
    }
  };
  // Where the bar stands for a share, a turn of the wheel still moves by rows.
  useEffect(() => {
    const node = scroller.current;
    if (node === null || exact) return;
    const onWheel = (event: WheelEvent) => {
      if (event.deltaY === 0) return;
      event.preventDefault();
      scrollTo(
        first + BigInt(Math.sign(event.deltaY) * Math.max(1, Math.round(Math.abs(event.deltaY) / ROW))),
      );
    };
    node.addEventListener('wheel', onWheel, { passive: false });
    return () => node.removeEventListener('wheel', onWheel);
  });

  const choose = (row: bigint) => setPlace(row < 0n ? 0n : row >= count ? count - 1n : row);
  const across = (by: number) => {
    const next = Math.min(columns.items.length - 1, Math.max(0, (column ?? -1) + by));
    setColumn(next);
    const x = columns.items[next]?.x ?? 0;
    const node = scroller.current;
    if (node !== null && (x < node.scrollLeft || x + columns.step > node.scrollLeft + width))
      node.scrollLeft = Math.max(0, x - width / 2);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const page = BigInt(fits);
    switch (event.key) {
      case 'ArrowDown':
        choose(place + 1n);
        break;
      case 'ArrowUp':
        choose(place - 1n);
        break;
      case 'PageDown':
        choose(place + page);
        break;
      case 'PageUp':
        choose(place - page);
        break;
      case 'Home':
        choose(0n);
        break;
      case 'End':
        choose(count - 1n);
        break;
      case 'ArrowRight':
        across(1);
        break;
      case 'ArrowLeft':
        across(-1);
        break;
      case 'Enter': {
        const row = rows[current];
        if (row !== undefined) open(row.number);
        break;
      }
      default:
        return;
    }
    event.preventDefault();
  };

  return (
    <div
      className={classes.scroller}
      ref={scroller}
      onScroll={onScroll}
      tabIndex={0}
      role="listbox"
      aria-label={`Routes, ${grouped(count)} listed`}
      aria-activedescendant={rows[current] === undefined ? undefined : `row-${rows[current].number}`}
      onKeyDown={onKeyDown}
    >
      <div
        style={{ height: height + HEADS, width: SIDES.left + columns.width + SIDES.right }}
        className={classes.tall}
      >
        <div className={classes.window} style={{ height: size.height, width: size.width }}>
          <LedgerHeads columns={columns} column={column} width={width} offset={offset} />
          {rows.map((row, index) => (
            <LedgerRow
              key={row.number}
              row={row}
              ledger={ledger}
              share={shares.get(row.number)}
              front={first + BigInt(index) < BigInt(list.summary.front)}
              y={HEADS + index * ROW}
              current={index === current}
              choose={() => choose(first + BigInt(index))}
              open={open}
            />
          ))}
          <Matrix
            rows={rows}
            folded={list.query.folded}
            columns={columns}
            offset={offset}
            current={current}
            column={column}
            left={SIDES.left}
            top={HEADS}
            width={width}
            height={size.height - HEADS}
            point={(index, at) => {
              setColumn(at);
              if (index !== null && rows[index] !== undefined) choose(first + BigInt(index));
            }}
          />
        </div>
      </div>
    </div>
  );
}
