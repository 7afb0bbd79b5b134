/** All cases by variables: one cell is open at a time, and after each value the cursor goes on by the case's route. */
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef } from 'react';
import type { Keying } from '../../../core/keying/sheet';
import { typedText } from '../../../core/keying/typed';
import type { KeyedCase } from '../../../wire/cases';
import type { Cases } from './cases';
import classes from './key.module.css';
import { useGridKeying } from './use-grid-keying';

interface Props {
  readonly keying: Keying;
  /** First keyings. */
  readonly cases: readonly KeyedCase[];
  readonly put: Cases['put'];
}

/** Sizes in pixels; the column of case numbers stays in sight. */
const ROW = 27;
const COLUMN = 96;
const CASE_COLUMN = 90;

export function CasesGrid(props: Props) {
  return props.cases.length > 0 ? (
    <Grid {...props} />
  ) : (
    <div className={classes.empty}>
      <p>No case has been keyed yet. Begin one at the left; here all of them stand beside each other.</p>
    </div>
  );
}

function Grid({ keying, cases, put }: Props) {
  const { fields } = keying;
  const scroll = useRef<HTMLDivElement>(null);
  const cell = useRef<HTMLInputElement>(null);
  // eslint-disable-next-line react-hooks/incompatible-library -- its functions are used within this component only
  const rows = useVirtualizer({
    count: cases.length,
    getScrollElement: () => scroll.current,
    estimateSize: () => ROW,
    overscan: 10,
  });
  const editing = useGridKeying(keying, cases, put, (row) => rows.scrollToIndex(row));
  const { at, field, keyed, problem, move } = editing;
  // The first rows are drawn a moment after the frame has its size.
  const drawn = rows.getVirtualItems().length > 0;
  useEffect(() => {
    cell.current?.focus({ preventScroll: true });
    cell.current?.select();
    const frame = scroll.current;
    if (frame === null) return;
    const left = at.column * COLUMN;
    const right = left + 2 * COLUMN + CASE_COLUMN;
    if (left < frame.scrollLeft) frame.scrollLeft = left;
    else if (right > frame.scrollLeft + frame.clientWidth) frame.scrollLeft = right - frame.clientWidth;
  }, [at, drawn]);
  return (
    <div className={classes.grid}>
      <p role="status">
        <code>{field?.key}</code> {field?.label}
        {problem !== null && <strong> {problem}</strong>}
      </p>
      <div ref={scroll} className={classes.frame}>
        <table style={{ width: CASE_COLUMN + fields.length * COLUMN }} aria-label="Keyed cases by variables">
          <thead>
            <tr>
              <th scope="col">Case</th>
              {fields.map(({ key }, column) => (
                <th key={key} scope="col" data-here={column === at.column || undefined} title={key}>
                  {key}
                </th>
              ))}
            </tr>
          </thead>
          <tbody style={{ height: rows.getTotalSize() }}>
            {rows.getVirtualItems().map(({ index, start }) => {
              const each = cases[index] as KeyedCase;
              return (
                <tr key={each.caseId} style={{ transform: `translateY(${start}px)` }}>
                  <th scope="row">{each.caseId}</th>
                  <Cells
                    keying={keying}
                    keyed={each}
                    open={index === at.row ? at.column : -1}
                    choose={(column) => move(index, column)}
                    editor={
                      <input
                        ref={cell}
                        aria-label={`${field?.key ?? ''} of case ${each.caseId}`}
                        aria-invalid={problem !== null || undefined}
                        value={editing.typed ?? typedText(keyed?.answers[field?.key ?? ''])}
                        autoComplete="off"
                        onChange={(event) => editing.type(event.target.value)}
                        onKeyDown={editing.onKeyDown}
                      />
                    }
                  />
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </div>
  );
}

interface CellsProps {
  readonly keying: Keying;
  readonly keyed: KeyedCase;
  /** The column that is open; -1 for none. */
  readonly open: number;
  readonly choose: (column: number) => void;
  readonly editor: React.ReactNode;
}

function Cells({ keying, keyed, open, choose, editor }: CellsProps) {
  const { answers } = keyed;
  const sheet = useMemo(() => keying.sheet(answers), [keying, answers]);
  return keying.fields.map(({ key }, column) => {
    const state = sheet.states[column];
    const away = state?.is === 'passed-over';
    const text = typedText(answers[key]);
    return (
      <td
        key={key}
        data-away={(away && text === '') || undefined}
        data-flag={(away && text !== '') || undefined}
        onClick={() => {
          if (column !== open) choose(column);
        }}
      >
        {column === open ? editor : text !== '' ? text : away ? state.code : key in answers ? '·' : ''}
      </td>
    );
  });
}
