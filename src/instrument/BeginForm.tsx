/** Begins a case: what it is called, and the values that are known before the start. */
import { useState } from 'react';
import type { Answers } from '../core/document/types';
import { nextCaseId } from '../core/keying/typed';
import type { KeptCase } from '../core/responding/kept-case';
import type { Plan } from '../core/routing/plan';
import { walk } from '../core/routing/walk';
import { GivenField } from '../islands/answering/GivenField';
import { Problem } from '../islands/ui/Problem';
import { submitting } from '../islands/ui/submitting';
import page from '../islands/responding/page.module.css';
import classes from './instrument.module.css';

interface Props {
  readonly plan: Plan;
  readonly cases: readonly KeptCase[];
  readonly interviewer: boolean;
  readonly begin: (id: string, given: Answers) => void;
}

export function BeginForm({ plan, cases, interviewer, begin }: Props) {
  // What chance decides is nobody's to choose.
  const known = (plan.document.given ?? []).filter(({ random }) => !random);
  const taken = new Set(cases.map(({ id }) => id));
  const [latest] = cases;
  const [id, setId] = useState(latest === undefined ? '1' : (nextCaseId(latest.id, taken) ?? ''));
  const [given, setGiven] = useState<Answers>({});
  const [problem, setProblem] = useState<string | null>(null);
  const start = () => {
    const name = id.trim();
    const missing = known.find((entry) => (given[entry.name] ?? null) === null);
    const walked = walk(plan, { answers: {}, given, seed: 1, lenient: true });
    if (name === '')
      setProblem('Write what the case is called: a number, or what stands on the address list.');
    else if (taken.has(name))
      setProblem(`There is a case ${name} on this device already: go on with it below.`);
    else if (missing !== undefined)
      setProblem(`Fill in “${missing.label}” first: it is known before the start.`);
    else if (!walked.ok) setProblem(`This cannot be begun: ${walked.problem}.`);
    else begin(name, given);
  };
  return (
    <form noValidate className={classes.begin} aria-label="Begin a case" onSubmit={submitting(() => start())}>
      {interviewer && (
        <label>
          Case
          <input
            type="text"
            size={12}
            maxLength={60}
            value={id}
            autoComplete="off"
            onChange={(event) => setId(event.target.value)}
          />
        </label>
      )}
      {known.map((entry) => (
        <label key={entry.name}>
          {entry.label}
          <GivenField
            given={entry}
            value={given[entry.name] ?? null}
            change={(value) => setGiven({ ...given, [entry.name]: value })}
          />
        </label>
      ))}
      <Problem of={problem} className={page.summary} />
      <button type="submit" className={classes.start}>
        {interviewer ? 'Begin the case' : 'Begin'}
      </button>
    </form>
  );
}
