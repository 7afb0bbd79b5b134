/** The rows of the codebook; those near the view are on the page, the one that is open shows its fields. */
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef, useState } from 'react';
import type { BookRow } from '../../../core/views/codebook';
import { baseOf } from '../../../core/wording/base';
import { percentText } from '../../../core/wording/percent';
import { askedOf } from '../../state/asked';
import { useGoTo } from '../../state/going';
import { CheckedField } from '../../fields/Fields';
import { useStudy } from '../../state/store';
import { VariableName } from '../../ui/VariableName';
import { BookEditor } from './BookEditor';
import { useBookEdits } from './edits';
import classes from './book.module.css';

const HEADS = ['Variable', 'Label and question', 'Type', 'Codes', 'Missing codes', 'Asked'] as const;
const ROW = 74;
/** Codes listed in a closed row. */
const LISTED = 5;

export function BookTable({ rows }: { readonly rows: readonly BookRow[] }) {
  const scroll = useRef<HTMLDivElement>(null);
  const [open, setOpen] = useState<string | null>(null);
  // eslint-disable-next-line react-hooks/incompatible-library -- its functions are used within this component only
  const list = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroll.current,
    estimateSize: () => ROW,
    getItemKey: (index) => rows[index]?.column ?? index,
    overscan: 8,
  });
  return (
    <div ref={scroll} className={classes.frame}>
      <div role="table" aria-label="Codebook" aria-rowcount={rows.length + 1}>
        <div role="row" aria-rowindex={1} className={classes.heads}>
          {HEADS.map((head) => (
            <span key={head} role="columnheader">
              {head}
            </span>
          ))}
        </div>
        <div role="rowgroup" className={classes.body} style={{ height: list.getTotalSize() }}>
          {list.getVirtualItems().map(({ index, start, key }) => {
            const row = rows[index];
            if (row === undefined) return null;
            const before = rows[index - 1];
            return (
              <div
                key={key}
                ref={list.measureElement}
                data-index={index}
                role="row"
                aria-rowindex={index + 2}
                className={classes.row}
                data-part={(before?.item === row.item && row.item !== null) || undefined}
                style={{ transform: `translateY(${start}px)` }}
              >
                <Row
                  row={row}
                  isOpen={open === row.column}
                  toggle={() => setOpen(open === row.column ? null : row.column)}
                />
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}

interface RowProps {
  readonly row: BookRow;
  readonly isOpen: boolean;
  readonly toggle: () => void;
}

function Row({ row, isOpen, toggle }: RowProps) {
  const { setLabel } = useBookEdits(row);
  const question = useStudy((state) => {
    const item =
      row.place === null ? null : state.document.sections[row.place.section]?.items[row.place.item];
    return item?.kind === 'question' ? item : null;
  });
  const isReadOnly = useStudy((state) => state.readOnly !== null);
  const { values, missing } = row;
  return (
    <>
      <span role="cell" className={classes.name}>
        <code>
          <VariableName name={row.column} />
        </code>
        {row.place !== null && row.isFirst && !isReadOnly && (
          <button
            type="button"
            aria-expanded={isOpen}
            aria-label={`Change the codes of ${row.item ?? ''}`}
            onClick={toggle}
          >
            {isOpen ? 'Close' : 'Change'}
          </button>
        )}
      </span>
      <span role="cell" className={classes.words}>
        {row.isFirst && question !== null && !isReadOnly ? (
          <CheckedField
            field={`book/${question.name}/label`}
            className={classes.field}
            label={`Label of ${question.name}`}
            value={question.label ?? ''}
            placeholder="short label"
            take={setLabel}
          />
        ) : (
          <b>{row.label}</b>
        )}
        {row.isFirst && row.part !== '' && <b>{row.part}</b>}
        {row.isFirst && <small>{row.text}</small>}
      </span>
      <span role="cell">
        {row.type}
        <small>{row.measure}</small>
      </span>
      <span role="cell" className={classes.codes}>
        {row.range !== '' && <span>{row.range}</span>}
        {values.slice(0, LISTED).map(({ code, label, missing: apart }) => (
          <span key={code} data-apart={apart || undefined}>
            <b>{code}</b> {label}
          </span>
        ))}
        {values.length > LISTED && <small>and {values.length - LISTED} more</small>}
      </span>
      <span role="cell" className={classes.missing}>
        {missing.map(({ reason, code, label, isOwn }) => (
          <span key={reason} title={label} data-own={isOwn || undefined}>
            <b>{code}</b> {reason.replaceAll('_', ' ')}
          </span>
        ))}
      </span>
      <span role="cell" className={classes.base}>
        <Base row={row} />
      </span>
      {isOpen && question !== null && <BookEditor row={row} question={question} />}
    </>
  );
}

/** Who is asked, as a sentence and as the condition, and the share of the sample that is expected. */
function Base({ row }: { readonly row: BookRow }) {
  const goTo = useGoTo();
  const variables = useStudy((state) => state.plan.variables);
  const analysis = useStudy((state) => state.analysis);
  if (row.item === null) return null;
  const { sentence, conditions } = baseOf(variables, askedOf(analysis, row.item), row.pass);
  const expected = analysis?.sample?.items[row.item];
  const share = row.pass === null ? expected?.share : expected?.byPass[row.pass - 1];
  return (
    <>
      <span>{sentence}</span>
      {conditions.length > 0 && <code>{conditions.join(' · ')}</code>}
      {share !== undefined && (
        <button
          type="button"
          title="Its table"
          onClick={() =>
            goTo(
              'codes',
              `?part=tables&variable=${encodeURIComponent(row.pass === null ? (row.item ?? '') : `${row.item ?? ''}_${row.pass}`)}`,
            )
          }
        >
          {percentText(share)} expected
        </button>
      )}
    </>
  );
}
