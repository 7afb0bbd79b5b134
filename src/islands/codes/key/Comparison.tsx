/** Two keyings of one form beside each other; the person at the form says which is right. */
import { differences } from '../../../core/keying/compare';
import type { Keying } from '../../../core/keying/sheet';
import { typedText } from '../../../core/keying/typed';
import type { KeyedCase } from '../../../wire/cases';
import type { Cases } from './cases';
import { TableHead } from '../../ui/TableHead';
import classes from './key.module.css';

interface Props {
  readonly keying: Keying;
  readonly cases: readonly KeyedCase[];
  readonly caseId: string;
  /** Who settles. */
  readonly by: string;
  readonly put: Cases['put'];
}

export function Comparison({ keying, cases, caseId, by, put }: Props) {
  const first = cases.find((each) => each.caseId === caseId && each.entry === 1);
  const second = cases.find((each) => each.caseId === caseId && each.entry === 2);
  if (first === undefined || second === undefined) return null;
  const found = differences(keying, first.answers, second.answers);
  /** Both keyings hold the right answer then, so that nothing is left to differ. */
  const settle = (key: string, from: KeyedCase, to: KeyedCase) => {
    const value = from.answers[key];
    const answers = Object.fromEntries(Object.entries(to.answers).filter(([each]) => each !== key));
    const left = found.length === 1;
    put({
      ...to,
      answers: value === undefined ? answers : { ...answers, [key]: value },
      ...(left ? { settledBy: by } : {}),
    });
    if (left) put({ ...from, settledBy: by });
  };
  return (
    <div className={classes.sheet}>
      <h1>Case {caseId}, keyed twice</h1>
      {found.length === 0 ? (
        <p>
          {first.keyedBy} and {second.keyedBy} keyed the same in every field.
          {second.settledBy !== null && ` ${second.settledBy} settled where they differed.`}
        </p>
      ) : (
        <>
          <p>Look at the form, and press what stands on it.</p>
          <table className={classes.two}>
            <TableHead
              of={['Variable', 'Question', `${first.keyedBy}, first`, `${second.keyedBy}, second`]}
            />
            <tbody>
              {found.map(({ field, first: a, second: b }) => (
                <tr key={field.key}>
                  <th scope="row">{field.key}</th>
                  <td>{field.label}</td>
                  <td>
                    <button type="button" onClick={() => settle(field.key, first, second)}>
                      {a === null ? 'blank' : typedText(a)}
                    </button>
                  </td>
                  <td>
                    <button type="button" onClick={() => settle(field.key, second, first)}>
                      {b === null ? 'blank' : typedText(b)}
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </div>
  );
}
