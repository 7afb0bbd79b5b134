/** What is to be settled on a form: answers where the routing says that none should be, and other faults. */
import type { Answers } from '../../../core/document/types';
import type { KeyField } from '../../../core/keying/fields';
import type { Keying, KeyedSheet } from '../../../core/keying/sheet';
import { typedText } from '../../../core/keying/typed';
import type { RowProblem } from '../../../core/audit/types';
import { passedOverBecause } from '../../../core/wording/why';
import { problemWords } from '../../../core/wording/audit';
import classes from './key.module.css';

interface Props {
  readonly keying: Keying;
  readonly answers: Answers;
  readonly sheet: KeyedSheet;
  /** Of a form that is finished. */
  readonly problems: readonly RowProblem[];
  /** Required, and left blank on the form. */
  readonly blanks: readonly KeyField[];
  readonly drop: (key: string) => void;
  readonly go: (key: string) => void;
}

export function Flags({ keying, answers, sheet, problems, blanks, drop, go }: Props) {
  const flagged = keying.flagged(answers, sheet);
  return (
    <aside className={classes.flags} aria-label="To settle">
      <h2>To settle</h2>
      {flagged.length === 0 && problems.length === 0 && blanks.length === 0 && (
        <p>Nothing on this form speaks against the routing.</p>
      )}
      {flagged.map((field) => (
        <div key={field.key}>
          <p>
            <code>{field.key}</code> holds {typedText(answers[field.key])}, and should be blank:{' '}
            {field.planItem === null
              ? 'it is not asked'
              : passedOverBecause(sheet.walk, field.planItem, field.pass)}
            .
          </p>
          <p>It is kept and stays out of the coded row until an answer before it is put right.</p>
          <button type="button" onClick={() => drop(field.key)}>
            Drop {field.key}
          </button>{' '}
          <button type="button" onClick={() => go(field.key)}>
            Go there
          </button>
        </div>
      ))}
      {blanks.map((field) => (
        <div key={field.key}>
          <p>
            <code>{field.key}</code> wants an answer, and was left blank. If it is blank on the form, it stays
            so.
          </p>
          <button type="button" onClick={() => go(field.key)}>
            Go there
          </button>
        </div>
      ))}
      {problems.map(({ column, problem, value }) => (
        <div key={`${column} ${problem}`}>
          <p>
            <code>{column}</code> {value !== '' && `holds ${value}: `}
            {problemWords(problem)}.
          </p>
        </div>
      ))}
    </aside>
  );
}
