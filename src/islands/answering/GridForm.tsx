/** A grid: a row a line, an option a column; on a phone each row is a list of its own. */
import { passKey } from '../../core/document/addresses';
import type { GridAnswer, Question, Value } from '../../core/document/types';
import type { WalkStep } from '../../core/routing/walk';
import { picksAfter } from './Choices';
import type { Session } from '../../core/responding/session';
import classes from './grid.module.css';

interface Props {
  readonly session: Pick<Session, 'answers' | 'faults' | 'answer'>;
  readonly step: WalkStep;
  readonly question: Question;
  readonly answer: GridAnswer;
  readonly words: (text: string) => string;
  readonly codes: boolean;
}

export function GridForm({ session, step, question, answer, words, codes }: Props) {
  const rows = answer.rows.filter((_, index) => step.shown.rows[index]);
  const options = answer.options.filter((_, index) => step.shown.options[index]);
  const several = answer.pick === 'many';
  const faults = new Map(
    session.faults
      .filter((entry) => entry.step.key === step.key)
      .map(({ fault }) => [fault.part, fault.message]),
  );
  return (
    <table className={classes.grid} data-part={`${step.key} ${question.name}`}>
      <thead>
        <tr>
          <td />
          {options.map(({ code, label }) => (
            <th key={code} scope="col">
              {words(label)}
              {codes && <code>{code}</code>}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => {
          const key = passKey(row.name, step.pass);
          const value: Value | null = session.answers[key] ?? null;
          const picked = Array.isArray(value)
            ? (value as readonly number[])
            : value === null
              ? []
              : [value as number];
          const fault = faults.get(row.name);
          return (
            <tr key={row.name} data-row={row.name} data-part={`${step.key} ${row.name}`}>
              <th scope="row">
                {words(row.label)}
                {fault !== undefined && <small className={classes.fault}>{fault}</small>}
              </th>
              {options.map((option, place) => (
                <td key={option.code}>
                  <label>
                    <input
                      data-keys={codes ? option.code : place + 1}
                      type={several ? 'checkbox' : 'radio'}
                      name={`${step.key} ${row.name}`}
                      aria-label={`${words(row.label)}: ${words(option.label)}`}
                      checked={picked.includes(option.code)}
                      onChange={(event) =>
                        session.answer(
                          key,
                          several
                            ? picksAfter(answer.options, picked, option, event.target.checked)
                            : option.code,
                        )
                      }
                      onClick={() => {
                        if (!several && picked.includes(option.code)) session.answer(key, null);
                      }}
                    />
                    <span aria-hidden="true">{words(option.label)}</span>
                  </label>
                </td>
              ))}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
