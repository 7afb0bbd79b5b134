/** Two sheets side by side, chapter by chapter, with bars in the margin where something is other. */
import { CHAPTERS, type SheetEntry, type SheetLine, type TwoSheets } from '../../core/release/two-sheets';
import { shownName } from './CompareView';
import type { Shown } from './shown';
import classes from './sheets.module.css';

interface Props {
  readonly sheets: TwoSheets;
  readonly breaksOnly: boolean;
  readonly of: Shown;
  readonly against: number;
}

export function Sheets({ sheets, breaksOnly, of, against }: Props) {
  const wanted = sheets.flatMap(({ chapter, entries }) => {
    const shown = breaksOnly ? entries.filter(({ isBreak }) => isBreak) : entries;
    return shown.length === 0 ? [] : [{ chapter, shown }];
  });
  return wanted.map(({ chapter, shown }) => (
    <section key={chapter} className={classes.chapter}>
      <h3>{CHAPTERS[chapter]}</h3>
      <div className={classes.sides}>
        <p className={classes.side}>{shownName(against)}</p>
        <p className={classes.side}>{shownName(of)}</p>
        {shown.map((entry, n) => (
          <Entry key={n} entry={entry} />
        ))}
      </div>
    </section>
  ));
}

function Entry({ entry }: { readonly entry: SheetEntry }) {
  const { tag, isBreak, old, now } = entry;
  return (
    <>
      <div
        className={classes.entry}
        data-there={old.length > 0 || undefined}
        data-break={isBreak || undefined}
      >
        {old.length > 0 && <Title entry={entry} />}
        <Lines lines={old} gone />
      </div>
      <div className={classes.entry} data-there data-break={isBreak || undefined}>
        <p className={classes.top}>
          <Title entry={entry} />
          <small className={classes.tag}>{tag}</small>
        </p>
        <Lines lines={now} />
      </div>
    </>
  );
}

function Title({ entry: { title, isName } }: { readonly entry: SheetEntry }) {
  return isName ? <code>{title}</code> : <span className={classes.place}>{title}</span>;
}

function Lines({ lines, gone = false }: { readonly lines: readonly SheetLine[]; readonly gone?: boolean }) {
  return lines.map(({ part, pieces, code }, n) => {
    const words = pieces.map(({ text, isOther }, at) =>
      !isOther ? text : gone ? <del key={at}>{text}</del> : <ins key={at}>{text}</ins>,
    );
    return (
      <p key={n} className={code === null ? classes.line : classes.option}>
        {part !== null && <small>{part} </small>}
        <span>{words}</span>
        {code !== null && (
          <>
            <i aria-hidden="true" />
            <b>{code}</b>
          </>
        )}
      </p>
    );
  });
}
