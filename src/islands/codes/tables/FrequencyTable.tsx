/** How often each value occurs, with the reasons for what is missing apart, a chart, and what may be said of it. */
import { useState } from 'react';
import type { Variables } from '../../../core/document/variables';
import type { Frequency, FrequencyRow } from '../../../core/tables/frequency';
import { percentOf, percentWords } from '../../../core/tables/shares';
import type { TableVariable } from '../../../core/tables/variables';
import { frequencySheet } from '../../../core/views/table-sheets';
import { baseOf, whereOf } from '../../../core/wording/base';
import { findingSentences } from '../../../core/wording/finding';
import type { Analysed } from '../../../worker/client';
import { askedOf } from '../../state/asked';
import { useStudy } from '../../state/store';
import { grouped } from '../../ui/format';
import { ShareBars } from './ShareBars';
import { TableTitle } from './TableTitle';
import classes from './tables.module.css';

interface Props {
  readonly variable: TableVariable;
  readonly frequency: Frequency;
  /** Which rows it is of. */
  readonly about: string;
  readonly madeUp: boolean;
}

export function FrequencyTable({ variable, frequency, about, madeUp }: Props) {
  const plan = useStudy((state) => state.plan);
  const analysis = useStudy((state) => state.analysis);
  const where = whereAsked(plan.variables, analysis, variable);
  const { rows, missing, all, asked, answered, several, summary } = frequency;
  const [spoken, setSpoken] = useState<string | null>(null);
  const most = rows.reduce<FrequencyRow | null>(
    (best, row) => (best === null || row.count > best.count ? row : best),
    null,
  );
  const said = rows.find(({ label }) => label === spoken) ?? most;
  const passes = variable.over !== null;
  const title = `${variable.id}: ${variable.label}`;
  return (
    <div className={classes.sheet}>
      <TableTitle
        variable={variable}
        about={about}
        madeUp={madeUp}
        sheet={() => frequencySheet(title, about, frequency)}
      />
      <div className={classes.beside}>
        <table className={classes.table}>
          <thead>
            <tr>
              <th scope="col">Code</th>
              <th scope="col">Answer</th>
              <th scope="col">Count</th>
              <th scope="col" title="Of all rows, whoever was asked">
                % of all
              </th>
              <th scope="col" title="Without those passed over, not drawn, or gone before it">
                % of asked
              </th>
              <th scope="col" title="Without blanks, don’t know and the like">
                {several ? '% of cases' : '% of answers'}
              </th>
              {!several && <th scope="col">Cumulative</th>}
            </tr>
          </thead>
          <tbody>
            {rows.map((row, at) => (
              <Line
                key={at}
                row={row}
                several={several}
                chosen={row === said}
                choose={() => setSpoken(row.label)}
              />
            ))}
            <Sum
              words={several ? 'Answered, with one pick or more' : 'Answered'}
              count={answered}
              of={several ? [all, asked, answered] : [all, asked, answered, null]}
            />
          </tbody>
          {missing.length > 0 && (
            <tbody className={classes.missing}>
              {missing.map((row, at) => (
                <Line key={at} row={row} several={several} />
              ))}
            </tbody>
          )}
          <tfoot>
            <Sum words="Asked" count={asked} of={several ? [all, asked, null] : [all, asked, null, null]} />
            <Sum
              words={passes ? 'All passes' : 'All'}
              count={all}
              of={several ? [all, null, null] : [all, null, null, null]}
            />
          </tfoot>
        </table>
        <ShareBars
          title={`${several ? 'Percent of cases' : 'Percent of those who answered'}${madeUp ? ' (made up)' : ''}, ${variable.label}`}
          bars={rows.map(({ label, ofAnswered }) => ({ label, share: ofAnswered ?? 0 }))}
        />
      </div>
      {summary !== null && (
        <p className={classes.summary}>
          Mean {round(summary.mean)}, median {round(summary.median)}
          {summary.deviation !== null && `, standard deviation ${round(summary.deviation)}`}, from{' '}
          {round(summary.least)} to {round(summary.most)}.
        </p>
      )}
      {said !== null && (
        <div className={classes.finding} aria-label="What may be said" role="group">
          {findingSentences(
            { label: said.label, count: said.count, all, asked, answered, passes, madeUp },
            where,
          ).map((sentence) => (
            <p key={sentence}>{sentence}</p>
          ))}
        </div>
      )}
    </div>
  );
}

/** Of all passes together each pass is a case: there only its own condition counts. */
function whereAsked(
  variables: Variables,
  analysis: Analysed | null,
  { item, pass, over }: TableVariable,
): string | null {
  if (item === null) return null;
  const asked = askedOf(analysis, item);
  return whereOf(variables, baseOf(variables, over === null ? asked : { ...asked, passes: [] }, pass));
}

function Line({
  row,
  several,
  chosen,
  choose,
}: {
  readonly row: FrequencyRow;
  readonly several: boolean;
  readonly chosen?: boolean;
  readonly choose?: () => void;
}) {
  return (
    <tr data-chosen={chosen || undefined} data-na={row.reason === 'not_applicable' || undefined}>
      <td className={classes.code}>{row.code}</td>
      <th scope="row">
        {choose === undefined ? (
          row.label
        ) : (
          <button type="button" aria-pressed={chosen} title="Say this in a sentence below" onClick={choose}>
            {row.label}
          </button>
        )}
      </th>
      <td>{grouped(row.count)}</td>
      <td>{percentWords(row.ofAll)}</td>
      <td>{percentWords(row.ofAsked)}</td>
      <td>{percentWords(row.ofAnswered)}</td>
      {!several && <td>{percentWords(row.cumulative)}</td>}
    </tr>
  );
}

interface SumProps {
  readonly words: string;
  readonly count: number;
  /** What it is a share of, column by column. */
  readonly of: readonly (number | null)[];
}

function Sum({ words, count, of }: SumProps) {
  return (
    <tr className={classes.sum}>
      <td />
      <th scope="row">{words}</th>
      <td>{grouped(count)}</td>
      {of.map((base, at) => (
        <td key={at}>{base === null ? '' : percentWords(percentOf(count, base))}</td>
      ))}
    </tr>
  );
}

function round(value: number): string {
  return String(Math.round(value * 100) / 100);
}
