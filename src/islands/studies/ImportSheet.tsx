/** What a file was understood as, and what not, before anything is taken over; of a table, what each column means. */
import { useEffect, useRef } from 'react';
import { ITEM_COLUMN_NAMES, ITEM_COLUMNS, type ItemColumn } from '../../core/exchange/items/columns';
import type { Questionnaire } from '../../core/document/types';
import type { FoundColumn, ReadFile } from '../../worker/import/types';
import { plural } from '../ui/format';
import classes from './import.module.css';

type Shown = Extract<ReadFile, { readonly as: 'questionnaire' | 'unmatched' }>;

interface Props {
  readonly name: string;
  readonly read: Shown;
  readonly say: (head: string, column: ItemColumn | null) => void;
  readonly take: (document: Questionnaire) => void;
  readonly cancel: () => void;
}

export function ImportSheet({ name, read, say, take, cancel }: Props) {
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => heading.current?.focus(), [name]);
  const document = read.as === 'questionnaire' ? read.document : null;
  return (
    <section className={classes.sheet} aria-label="Import a file">
      <header className={classes.head}>
        <h2 ref={heading} tabIndex={-1}>
          {name}
        </h2>
        <p role="status">
          {document === null ? (
            <b>Nothing can be made of it yet: say which column holds the questions.</b>
          ) : (
            <>
              {read.as === 'questionnaire' && read.words}: <b>{contentWords(document)}</b>
            </>
          )}
        </p>
        <button type="button" onClick={cancel}>
          Cancel
        </button>
        <button
          type="button"
          className={classes.take}
          disabled={document === null}
          onClick={() => document && take(document)}
        >
          Make a study of it
        </button>
      </header>
      <div className={classes.parts}>
        {read.columns !== null && <Columns columns={read.columns} say={say} />}
        {document !== null && <Outline document={document} />}
        <Told read={read} />
      </div>
    </section>
  );
}

function contentWords({ sections }: Questionnaire): string {
  const items = sections.flatMap((section) => section.items);
  const questions = items.filter(({ kind }) => kind === 'question').length;
  const skips = items.reduce(
    (count, item) => count + (item.kind === 'page_break' ? 0 : (item.skips?.length ?? 0)),
    0,
  );
  const askIfs = [...sections, ...items].filter((each) => 'askIf' in each && each.askIf !== undefined).length;
  return [
    plural(sections.length, 'section'),
    plural(questions, 'question'),
    plural(skips, 'skip'),
    plural(askIfs, 'ask-if'),
  ].join(', ');
}

/** A word for each meaning, as the heads are written. */
const MEANINGS = ITEM_COLUMN_NAMES.map(
  (column) => [column, ITEM_COLUMNS[column][0].replace('_', ' ')] as const,
);
const NOTHING = '';

function Columns({ columns, say }: { readonly columns: readonly FoundColumn[]; readonly say: Props['say'] }) {
  return (
    <section aria-label="Columns">
      <h3>What its columns are taken for</h3>
      <p>What you say here is kept for the next file with such columns.</p>
      <table className={classes.columns}>
        <tbody>
          {columns.map(({ head, sample, taken }, n) => (
            <tr key={n} data-open={taken === null || undefined}>
              <th scope="row">{head}</th>
              <td>{sample}</td>
              <td>
                <select
                  aria-label={`Meaning of the column ${head}`}
                  value={taken ?? NOTHING}
                  onChange={({ target: { value } }) =>
                    say(head, ITEM_COLUMN_NAMES.find((each) => each === value) ?? null)
                  }
                >
                  <option value={NOTHING}>not taken over</option>
                  {MEANINGS.map(([column, words]) => (
                    <option key={column} value={column}>
                      {words}
                    </option>
                  ))}
                </select>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Outline({ document }: { readonly document: Questionnaire }) {
  return (
    <section aria-label="Understood">
      <h3>Understood</h3>
      {document.sections.map(({ id, title, items }) => (
        <details key={id} open={document.sections.length <= 3}>
          <summary>
            {title}{' '}
            <small>{plural(items.filter(({ kind }) => kind === 'question').length, 'question')}</small>
          </summary>
          <ul>
            {items.map((item, n) =>
              item.kind === 'page_break' ? null : (
                <li key={n}>
                  <code>{item.name}</code> {item.text}
                </li>
              ),
            )}
          </ul>
        </details>
      ))}
    </section>
  );
}

function Told({ read }: { readonly read: Shown }) {
  const doubts = read.as === 'questionnaire' ? read.doubts : [];
  const problems = read.as === 'unmatched' ? read.problems : [];
  return (
    <section aria-label="Not understood">
      <h3>Not understood, or not taken over</h3>
      {doubts.length + problems.length === 0 ? (
        <p>Nothing: all of it was understood.</p>
      ) : (
        <ul>
          {problems.map((problem) => (
            <li key={problem}>{problem}</li>
          ))}
          {doubts.map(({ line, what }, n) => (
            <li key={n}>
              <b>line {line}</b> {what}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
