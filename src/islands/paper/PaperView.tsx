/** Paper: the coded script with the walk on it, or a form to be filled in, made as one wants it and printed. */
import { useState } from 'react';
import type { Plan } from '../../core/routing/plan';
import { PaperForm, type FormLook } from './PaperForm';
import { PaperScript, type PaperWalk } from './PaperScript';
import classes from './view.module.css';

interface Props {
  readonly plan: Plan;
  readonly walk: PaperWalk;
  readonly choose: (name: string) => void;
  readonly chosen: string | null;
}

const AS_IT_COMES: FormLook = { reader: 'respondent', routing: 'answers', passes: 'columns', codes: false };

export function PaperView({ plan, walk, choose, chosen }: Props) {
  const [form, setForm] = useState(false);
  const [look, setLook] = useState(AS_IT_COMES);
  const repeats = plan.sections.some(({ repeat }) => repeat !== null);
  return (
    <>
      <div className={classes.tools} role="toolbar" aria-label="What is printed">
        <button type="button" aria-pressed={!form} onClick={() => setForm(false)}>
          Coded script
        </button>
        <button type="button" aria-pressed={form} onClick={() => setForm(true)}>
          Form to fill in
        </button>
        <button type="button" onClick={() => print()}>
          Print
        </button>
        {form && (
          <>
            <label>
              for{' '}
              <select
                value={look.reader}
                onChange={(event) => {
                  const reader = event.target.value === 'interviewer' ? 'interviewer' : 'respondent';
                  setLook({ ...look, reader, codes: reader === 'interviewer' });
                }}
              >
                <option value="respondent">respondents</option>
                <option value="interviewer">interviewers</option>
              </select>
            </label>
            <label>
              the way{' '}
              <select
                value={look.routing}
                onChange={(event) =>
                  setLook({ ...look, routing: event.target.value === 'questions' ? 'questions' : 'answers' })
                }
              >
                <option value="answers">by “go to” at the answers</option>
                <option value="questions">by “only if” at the questions</option>
              </select>
            </label>
            {repeats && (
              <label>
                passes{' '}
                <select
                  value={look.passes}
                  onChange={(event) =>
                    setLook({ ...look, passes: event.target.value === 'blocks' ? 'blocks' : 'columns' })
                  }
                >
                  <option value="columns">as columns</option>
                  <option value="blocks">one after the other</option>
                </select>
              </label>
            )}
            <label>
              <input
                type="checkbox"
                checked={look.codes}
                onChange={(event) => setLook({ ...look, codes: event.target.checked })}
              />{' '}
              with codes
            </label>
          </>
        )}
      </div>
      {form ? (
        <PaperForm plan={plan} look={look} />
      ) : (
        <PaperScript plan={plan} walk={walk} choose={choose} chosen={chosen} />
      )}
    </>
  );
}
