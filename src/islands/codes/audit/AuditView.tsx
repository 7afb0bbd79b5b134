/** Audit: a collected file, its columns matched to variables, and what the routing says of every row. */
import { useState } from 'react';
import { useStore } from 'zustand';
import { ENCODINGS, type Encoding } from '../../../core/exchange/csv';
import { useStudy } from '../../state/store';
import { grouped, plural } from '../../ui/format';
import type { AuditState } from '../../state/audit-session';
import { useData } from '../../state/data';
import { AuditReport } from './AuditReport';
import { FileDrop } from './FileDrop';
import { Matching } from './Matching';
import { Problem } from '../../ui/Problem';
import classes from './audit.module.css';

const ENCODING_NAMES: Readonly<Record<Encoding, string>> = {
  'utf-8': 'UTF-8',
  'utf-16le': 'UTF-16',
  'utf-16be': 'UTF-16, big end first',
  'windows-1252': 'Windows-1252',
};

export function AuditView({ openTables }: { readonly openTables: (rows: string) => void }) {
  const { audit: store } = useData();
  const audit = useStore(store);
  const document = useStudy((state) => state.document);
  const api = useStudy((state) => state.api);
  const [matchingOpen, setMatchingOpen] = useState<boolean | null>(null);
  const { file, opened, running, summary, problem, matching } = audit;
  const choose = (chosen: File) => void audit.open(document, api, chosen);

  if (file === null || (opened === null && running === null))
    return <FileDrop choose={choose} problem={problem} />;
  const unknown = matching.filter(
    ({ name, column, by }) => column === null && by === null && name.trim() !== audit.caseColumn,
  ).length;
  const matched = matching.filter(({ column }) => column !== null).length;
  const isOpen = matchingOpen ?? (summary === null && unknown > 0);
  const stale = summary !== null && audit.against !== document;
  return (
    <div className={classes.page}>
      <AuditHead audit={audit} file={file} matched={matched} begin={() => setMatchingOpen(null)} />
      {running !== null && (
        <div className={classes.running} role="status">
          <progress value={running} max={1} aria-label="Share of the file read" /> {Math.round(100 * running)}
          % of the file read
        </div>
      )}
      <Problem of={problem} className={classes.problem} />
      {stale && (
        <p className={classes.note}>
          The questionnaire has changed since: audit again to hold the rows against it as it is now.
        </p>
      )}
      {opened !== null && running === null && (
        <>
          <FileWriting audit={audit} opened={opened} />
          <details className={classes.matching} open={isOpen}>
            <summary
              onClick={(event) => {
                event.preventDefault();
                setMatchingOpen(!isOpen);
              }}
            >
              Columns and variables
              {unknown > 0 && <span className={classes.warn}> · {grouped(unknown)} not in the codebook</span>}
            </summary>
            <Matching opened={opened} matching={matching} said={audit.said} />
          </details>
          {summary !== null && <AuditReport summary={summary} openTables={openTables} />}
        </>
      )}
    </div>
  );
}

interface HeadProps {
  readonly audit: AuditState;
  readonly file: File;
  /** Columns that belong to a variable. */
  readonly matched: number;
  /** Called when an audit begins. */
  readonly begin: () => void;
}

/** What file it is, and what is done with it as a whole. */
function AuditHead({ audit, file, matched, begin }: HeadProps) {
  const document = useStudy((state) => state.document);
  const api = useStudy((state) => state.api);
  return (
    <header className={classes.head}>
      <div>
        <h1>{file.name}</h1>
        <p>
          {audit.opened === null ? 'Reading …' : `Read as ${audit.opened.readAs}. `}
          {audit.opened !== null &&
            `${matched} of ${plural(audit.matching.length, 'column')} matched to variables.`}
        </p>
      </div>
      <div className={classes.tools}>
        {audit.opened?.encoding != null && (
          <label>
            Encoding{' '}
            <select
              value={audit.opened.encoding}
              onChange={(event) => void audit.open(document, api, file, event.target.value as Encoding)}
            >
              {ENCODINGS.map((each) => (
                <option key={each} value={each}>
                  {ENCODING_NAMES[each]}
                </option>
              ))}
            </select>
          </label>
        )}
        <button type="button" onClick={audit.close}>
          Another file
        </button>
        {audit.running === null ? (
          <button
            type="button"
            className={classes.main}
            onClick={() => {
              begin();
              void audit.audit(document);
            }}
          >
            {audit.summary === null ? 'Audit the rows' : 'Audit again'}
          </button>
        ) : (
          <button type="button" className={classes.main} onClick={audit.stop}>
            Stop
          </button>
        )}
      </div>
    </header>
  );
}

interface WritingProps {
  readonly audit: AuditState;
  readonly opened: NonNullable<AuditState['opened']>;
}

function FileWriting({ audit, opened }: WritingProps) {
  return (
    <fieldset className={classes.options}>
      <legend>How the file writes things</legend>
      <label>
        <input
          type="checkbox"
          checked={audit.options.codeBlanks ?? false}
          onChange={(event) => audit.setOptions({ ...audit.options, codeBlanks: event.target.checked })}
        />{' '}
        A blank in a question that may be left blank gets the code for no answer
      </label>
      <label>
        <input
          type="checkbox"
          checked={audit.options.blankPicks ?? false}
          onChange={(event) => audit.setOptions({ ...audit.options, blankPicks: event.target.checked })}
        />{' '}
        A blank among the picks of an answered question means not picked
      </label>
      <small>Otherwise both are listed as missing answers, and left as they are.</small>
      <label>
        Each case comes once, by the column{' '}
        <select
          aria-label="Column with case numbers"
          value={audit.caseColumn ?? ''}
          onChange={(event) => audit.setCaseColumn(event.target.value || null)}
        >
          <option value="">none: not looked at</option>
          {opened.header.map((name) => (
            <option key={name}>{name.trim()}</option>
          ))}
        </select>
      </label>
    </fieldset>
  );
}
