/** The cases keyed so far, with what is still to be settled, and where the next one is begun. */
import { useMemo, useState } from 'react';
import { differences } from '../../../core/keying/compare';
import type { Keying } from '../../../core/keying/sheet';
import type { KeyedCase } from '../../../wire/cases';
import { useStudy } from '../../state/store';
import { onVersion } from '../../state/versions';
import { plural, whenText } from '../../ui/format';
import { Problem } from '../../ui/Problem';
import { submitting } from '../../ui/submitting';
import classes from './key.module.css';

interface Props {
  readonly keying: Keying;
  readonly cases: readonly KeyedCase[];
  readonly open: KeyedCase | null;
  readonly choose: (keyed: KeyedCase, as: 'form' | 'compare') => void;
  /** Why a case cannot be begun; null where it was. */
  readonly start: (caseId: string) => string | null;
  readonly keyedBy: string;
  /** By signing in: it is not asked for. */
  readonly isNameGiven: boolean;
  readonly setKeyedBy: (name: string) => void;
}

export function CaseList({ keying, cases, open, choose, start, keyedBy, isNameGiven, setKeyedBy }: Props) {
  const [problem, setProblem] = useState<string | null>(null);
  return (
    <nav className={classes.cases} aria-label="Cases">
      <form
        onSubmit={submitting((form) => {
          const caseId = String(new FormData(form).get('case') ?? '').trim();
          if (keyedBy.trim() === '') setProblem('Say who keys: write your name first.');
          else if (caseId === '') setProblem('Write the number or name that stands on the form.');
          else {
            setProblem(start(caseId));
            form.reset();
          }
        })}
      >
        {!isNameGiven && (
          <label>
            Keyed by
            <input value={keyedBy} autoComplete="name" onChange={(event) => setKeyedBy(event.target.value)} />
          </label>
        )}
        <label>
          Case on the form
          <input name="case" autoComplete="off" maxLength={60} />
        </label>
        <button type="submit">Key it</button>
        <Problem of={problem} />
      </form>
      <ul>
        {cases.map((each) => (
          <Case
            key={`${each.entry} ${each.caseId}`}
            keying={keying}
            keyed={each}
            other={
              each.entry === 2
                ? (cases.find(({ caseId, entry }) => caseId === each.caseId && entry === 1) ?? null)
                : null
            }
            open={open === each}
            choose={choose}
          />
        ))}
      </ul>
    </nav>
  );
}

interface CaseProps {
  readonly keying: Keying;
  readonly keyed: KeyedCase;
  /** Of a second keying the first. */
  readonly other: KeyedCase | null;
  readonly open: boolean;
  readonly choose: Props['choose'];
}

function Case({ keying, keyed, other, open, choose }: CaseProps) {
  const { answers } = keyed;
  const state = useMemo(() => {
    const sheet = keying.sheet(answers);
    const left = keying.nextOpen(answers, sheet, null) !== null;
    const problems =
      keying.flagged(answers, sheet).length +
      keying.blanks(answers, sheet).length +
      (left
        ? 0
        : keying.coded(answers).problems.filter(({ problem }) => problem !== 'missing-answer').length);
    return { left, problems };
  }, [keying, answers]);
  const differing = useMemo(
    () =>
      other === null || keyed.settledBy !== null ? 0 : differences(keying, other.answers, answers).length,
    [keying, other, answers, keyed.settledBy],
  );
  const versions = useStudy((state) => state.versions);
  return (
    <li>
      <button type="button" aria-current={open || undefined} onClick={() => choose(keyed, 'form')}>
        <b>{keyed.caseId}</b> {keyed.entry === 2 && 'second time, '}
        {keyed.keyedBy}
        <small>
          {state.left ? 'not finished' : 'finished'}, {whenText(keyed.at)}
          {onVersion(versions, keyed.revision)}
          {state.problems > 0 && <em> · {plural(state.problems, 'thing')} to settle</em>}
        </small>
      </button>
      {other !== null && (
        <button type="button" className={classes.compare} onClick={() => choose(keyed, 'compare')}>
          {keyed.settledBy !== null
            ? `Settled by ${keyed.settledBy}`
            : differing === 0
              ? 'Both keyings agree'
              : `${plural(differing, 'answer')} keyed differently`}
        </button>
      )}
    </li>
  );
}
