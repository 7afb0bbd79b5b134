/** A codebook sheet that was worked on elsewhere: pasted or chosen, its changes told before they are made. */
import Papa from 'papaparse';
import { useState } from 'react';
import { readCodebookSheet, SHEET_HEAD } from '../../../core/exchange/codebook-sheet';
import { useStudy } from '../../state/store';
import { plural } from '../../ui/format';
import { useData } from '../../state/data';
import { FileButton } from '../../ui/FileField';
import { Problem } from '../../ui/Problem';
import classes from './book.module.css';
import { why } from '../../ui/why';

const LISTED = 200;

export function SheetBack({ close }: { readonly close: () => void }) {
  const { client } = useData();
  const document = useStudy((state) => state.document);
  const commit = useStudy((state) => state.commit);
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const cells = text.trim() === '' ? [] : Papa.parse<string[]>(text.trimEnd()).data;
  const read = cells.length === 0 ? null : readCodebookSheet(document, cells);
  const choose = async (chosen: File) => {
    try {
      const worker = await client.about(document);
      const rows = await worker.cells(chosen);
      setProblem(rows.ok ? null : rows.problem);
      if (rows.ok) setText(Papa.unparse(rows.answer as string[][]));
    } catch (error) {
      setProblem(`This file could not be read: ${why(error)}`);
    }
  };
  return (
    <section className={classes.panel} aria-label="Take a sheet back">
      <div className={classes.paste}>
        <label htmlFor="codebook-sheet">
          Paste a sheet with the columns{' '}
          {SHEET_HEAD.filter((name) => name !== 'question' && name !== 'type').join(', ')}, or{' '}
          <FileButton label="Codebook sheet" accept=".csv,.tsv,.txt,.xlsx" choose={choose}>
            choose a file
          </FileButton>
        </label>
        <textarea
          id="codebook-sheet"
          rows={6}
          spellCheck={false}
          value={text}
          placeholder={'variable\tlabel\tcodes\ntenure\tHow the home is held\t1 = Own | 2 = Rent'}
          onChange={(event) => setText(event.target.value)}
        />
        <Problem of={problem} />
      </div>
      <div className={classes.told}>
        {read === null ? (
          <p>
            Take the sheet out by the buttons above, change labels, levels, codes or missing codes in it, and
            bring it back here. What it changes is told before it is done.
          </p>
        ) : (
          <>
            <h2>
              {read.changes.length === 0 ? 'Nothing is different' : plural(read.changes.length, 'change')}
              {read.problems.length > 0 &&
                `, ${plural(read.problems.length, 'row')} that cannot be taken over`}
            </h2>
            <ul>
              {read.problems.slice(0, LISTED).map(({ row, message }) => (
                <li key={`${row} ${message}`} data-problem>
                  Row {row}: {message}
                </li>
              ))}
              {read.changes.slice(0, LISTED).map(({ variable, what, from, to }, at) => (
                <li key={at}>
                  <code>{variable}</code> {what}: {from === '' ? 'nothing' : `“${from}”`} becomes{' '}
                  {to === '' ? 'nothing' : `“${to}”`}
                </li>
              ))}
            </ul>
            {read.change !== null && (
              <button
                type="button"
                className={classes.main}
                onClick={() => {
                  if (read.change === null) return;
                  const refused = commit(read.change);
                  setProblem(refused);
                  if (refused === null) close();
                }}
              >
                Make {plural(read.changes.length, 'change')}
              </button>
            )}
          </>
        )}
      </div>
    </section>
  );
}
