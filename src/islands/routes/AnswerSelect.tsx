/** Routes by an answer: one of a question's list, or, where it has none, a test that is written. */
import { useMemo, useState, type KeyboardEvent } from 'react';
import type { Plan } from '../../core/routing/plan';
import { answerAsked, answersToAsk } from '../../core/views/answers-asked';
import classes from './filters.module.css';

interface Props {
  /** Null while the lists wait for the first rows. */
  readonly plan: Plan | null;
  readonly add: (condition: string) => void;
}

/** Stands in front of the name of a question whose answer is to be written. */
const WRITE = '?';

export function AnswerSelect({ plan, add }: Props) {
  const questions = useMemo(() => (plan === null ? [] : answersToAsk(plan)), [plan]);
  const [written, setWritten] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const end = () => {
    setWritten(null);
    setProblem(null);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Escape') end();
    else if (event.key === 'Enter' && written !== null && plan !== null) {
      const asked = answerAsked(plan, written);
      if (asked.ok) {
        add(written.trim());
        end();
      } else setProblem(asked.problem);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  if (written !== null)
    return (
      <span className={classes.written}>
        <input
          autoFocus
          aria-label="Answer asked for"
          aria-invalid={problem !== null || undefined}
          value={written}
          onChange={(event) => {
            setWritten(event.target.value);
            setProblem(null);
          }}
          onKeyDown={onKeyDown}
        />
        <small role={problem === null ? undefined : 'alert'}>
          {problem ?? 'Enter asks for these routes, Escape for none'}
        </small>
      </span>
    );
  return (
    <select
      aria-label="Answering …"
      value=""
      onChange={(event) => {
        const { value } = event.target;
        if (value.startsWith(WRITE)) setWritten(`${value.slice(WRITE.length)} > `);
        else add(value);
      }}
    >
      <option value="">Answering …</option>
      {questions.map(({ item, answers, others }) => (
        <optgroup key={item} label={item}>
          {answers.map(({ text, words }) => (
            <option key={text} value={text}>
              {words}
            </option>
          ))}
          {others && <option value={`${WRITE}${item}`}>a value, to be written …</option>}
        </optgroup>
      ))}
    </select>
  );
}
