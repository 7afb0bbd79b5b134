/** All cases by variables: one cell is open at a time, and after each value the cursor goes on by the case's route. */
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import type { Answers } from '../../../core/document/types';
import type { KeyField } from '../../../core/keying/fields';
import type { Keying } from '../../../core/keying/sheet';
import { readTyped, typedText, typingOf } from '../../../core/keying/typed';
import type { KeyedCase } from '../../../wire/cases';
import type { Cases } from './cases';
import classes from './key.module.css';

interface Props {
  readonly keying: Keying;
  /** First keyings. */
  readonly cases: readonly KeyedCase[];
  readonly put: Cases['put'];
}

const ROW = 27;
const COLUMN = 96;

interface At {
  readonly row: number;
  readonly column: number;
}

interface KeyedUndo {
  readonly at: At;
  readonly answers: Answers;
}

export function CasesGrid({ keying, cases, put }: Props) {
  const { fields } = keying;
  const scroll = useRef<HTMLDivElement>(null);
  const [at, setAt] = useState<At>({ row: 0, column: 0 });
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [past, setPast] = useState<readonly KeyedUndo[]>([]);
  // eslint-disable-next-line react-hooks/incompatible-library -- its functions are used within this component only
  const rows = useVirtualizer({
    count: cases.length,
    getScrollElement: () => scroll.current,
    estimateSize: () => ROW,
    overscan: 10,
  });
  // The first rows are drawn a moment after the frame has its size.
  const drawn = rows.getVirtualItems().length > 0;
  const field = fields[at.column] as KeyField | undefined;
  const keyed = cases[at.row];
  const cell = useRef<HTMLInputElement>(null);
  useEffect(() => {
    cell.current?.focus({ preventScroll: true });
    cell.current?.select();
    const frame = scroll.current;
    if (frame === null) return;
    const left = at.column * COLUMN;
    if (left < frame.scrollLeft) frame.scrollLeft = left;
    else if (left + 2 * COLUMN + 90 > frame.scrollLeft + frame.clientWidth)
      frame.scrollLeft = left + 2 * COLUMN + 90 - frame.clientWidth;
  }, [at, drawn]);
  if (cases.length === 0)
    return (
      <div className={classes.empty}>
        <p>No case has been keyed yet. Begin one at the left; here all of them stand beside each other.</p>
      </div>
    );

  const move = (row: number, column: number) => {
    setTyped(null);
    setProblem(null);
    setAt({
      row: Math.min(Math.max(row, 0), cases.length - 1),
      column: Math.min(Math.max(column, 0), fields.length - 1),
    });
    rows.scrollToIndex(Math.min(Math.max(row, 0), cases.length - 1));
  };
  const commit = (text: string) => {
    if (field === undefined || keyed === undefined) return;
    const sheet = keying.sheet(keyed.answers);
    const state = sheet.states[at.column];
    const read = readTyped(field, text, state?.is === 'asked' ? (state.shown ?? undefined) : undefined);
    if (!read.ok) {
      setProblem(read.problem);
      return;
    }
    const left = state?.is === 'passed-over' && read.value === null;
    const others = Object.fromEntries(Object.entries(keyed.answers).filter(([key]) => key !== field.key));
    const answers: Answers = left ? others : { ...others, [field.key]: read.value };
    setPast([...past, { at, answers: keyed.answers }]);
    put({ ...keyed, answers });
    const next = keying.nextOpen(answers, keying.sheet(answers), field.key);
    if (next !== null) move(at.row, fields.indexOf(next));
    else if (at.row + 1 < cases.length) {
      const below = cases[at.row + 1] as KeyedCase;
      const open = keying.nextOpen(below.answers, keying.sheet(below.answers), null);
      move(at.row + 1, open === null ? 0 : fields.indexOf(open));
    } else move(at.row, at.column);
  };
  const undo = () => {
    const last = past.at(-1);
    const of = last === undefined ? undefined : cases[last.at.row];
    if (last === undefined || of === undefined) return;
    setPast(past.slice(0, -1));
    put({ ...of, answers: last.answers });
    move(last.at.row, last.at.column);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') {
      event.preventDefault();
      undo();
      return;
    }
    const go: Record<string, readonly [number, number]> = {
      ArrowUp: [-1, 0],
      ArrowDown: [1, 0],
      ...(typed === null ? { ArrowLeft: [0, -1], ArrowRight: [0, 1] } : {}),
    };
    const step = go[event.key];
    if (step !== undefined) {
      event.preventDefault();
      move(at.row + step[0], at.column + step[1]);
    } else if (event.key === 'Enter') {
      event.preventDefault();
      // What was refused is not a blank.
      if (problem === null || event.currentTarget.value !== '') commit(event.currentTarget.value);
    } else if (event.key === 'Escape') {
      setTyped(null);
      setProblem(null);
    }
  };
  return (
    <div className={classes.grid}>
      <p role="status">
        <code>{field?.key}</code> {field?.label}
        {problem !== null && <strong> {problem}</strong>}
      </p>
      <div ref={scroll} className={classes.frame}>
        <table style={{ width: 90 + fields.length * COLUMN }} aria-label="Keyed cases by variables">
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
                        value={typed ?? typedText(keyed?.answers[field?.key ?? ''])}
                        autoComplete="off"
                        onChange={(event) => {
                          const next = event.target.value;
                          const grown = next.length > (typed ?? '').length && field !== undefined;
                          const typing = grown ? typingOf(field, next) : 'open';
                          if (typing === 'refused') {
                            setProblem(`${next.trim()} is not allowed: nothing that is begins so.`);
                            return;
                          }
                          setTyped(next);
                          setProblem(null);
                          if (typing === 'complete') commit(next);
                        }}
                        onKeyDown={onKeyDown}
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
