/** The rows of the ledger, of which only those in sight are asked for, with the matrix of who is asked what beside them. */
import { useMemo, useRef, type KeyboardEvent } from 'react';
import { grouped } from '../ui/format';
import { useLedger } from '../state/ledger';
import { useStudy } from '../state/store';
import { columnsIn } from './columns';
import { LedgerHeads, SIDES } from './LedgerHeads';
import { LedgerRow, ROW } from './LedgerRow';
import { Matrix } from './Matrix';
import classes from './ledger.module.css';
import { HEADS, useLedgerScroll } from './use-ledger-scroll';
import { useRows, useShares, type ListedRoutes } from './use-list';

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
  const { size, count, fits, first, offset, range, onScroll } = useLedgerScroll(scroller, list, place);
  const rows = useRows(list, first, Math.min(fits + 1, 200));
  const shares = useShares(rows);
  const width = size.width - SIDES.left - SIDES.right;
  const columns = useMemo(() => columnsIn(plan, width, zoom), [plan, width, zoom]);
  const current = Number(place - first);

  const choose = (row: bigint) => setPlace(row < 0n ? 0n : row >= count ? count - 1n : row);
  const across = (by: number) => {
    const next = Math.min(columns.items.length - 1, Math.max(0, (column ?? -1) + by));
    setColumn(next);
    const x = columns.items[next]?.x ?? 0;
    const node = scroller.current;
    if (node !== null && (x < node.scrollLeft || x + columns.step > node.scrollLeft + width))
      node.scrollLeft = Math.max(0, x - width / 2);
  };
  const keys: Readonly<Record<string, () => void>> = {
    ArrowDown: () => choose(place + 1n),
    ArrowUp: () => choose(place - 1n),
    PageDown: () => choose(place + BigInt(fits)),
    PageUp: () => choose(place - BigInt(fits)),
    Home: () => choose(0n),
    End: () => choose(count - 1n),
    ArrowRight: () => across(1),
    ArrowLeft: () => across(-1),
    Enter: () => {
      const row = rows[current];
      if (row !== undefined) open(row.number);
    },
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const act = keys[event.key];
    if (act === undefined) return;
    act();
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
        style={{ height: `calc(100% + ${range}px)`, width: SIDES.left + columns.width + SIDES.right }}
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
