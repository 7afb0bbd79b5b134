/** Labels for all questions that have none, drawn from their words, to be looked at in one list and given at once. */
import { useMemo, useState } from 'react';
import { labelAll, labelsWanted } from '../../core/editing/labels';
import { plural } from '../ui/format';
import { Problem } from '../ui/Problem';
import { submitting } from '../ui/submitting';
import classes from '../slips/snags.module.css';
import { useStudy } from '../state/store';

export function LabelList({ done }: { readonly done: () => void }) {
  const document = useStudy((state) => state.document);
  const commit = useStudy((state) => state.commit);
  const [written, setWritten] = useState<ReadonlyMap<string, string>>(new Map());
  const [problem, setProblem] = useState<string | null>(null);
  const wanted = useMemo(() => labelsWanted(document), [document]);
  const labels = new Map(wanted.map(({ name, label }) => [name, written.get(name) ?? label]));
  const given = [...labels.values()].filter((label) => label.trim() !== '').length;
  return (
    <form
      className={classes.labels}
      aria-label="Labels from the questions"
      onSubmit={submitting(() => {
        const refused = commit(labelAll(labels));
        if (refused === null) done();
        else setProblem(refused);
      })}
    >
      <ul>
        {wanted.map(({ name, text }, index) => (
          <li key={name}>
            <label>
              <code>{name}</code>
              <span title={text}>{text}</span>
              <input
                autoFocus={index === 0}
                aria-label={`Label of ${name}`}
                value={labels.get(name)}
                maxLength={200}
                spellCheck
                onChange={(event) => setWritten(new Map([...written, [name, event.target.value]]))}
                onKeyDown={(event) => {
                  // Enter goes down the list; from the last one to the button that gives them all.
                  if (event.key !== 'Enter') return;
                  const fields = [...(event.currentTarget.form?.elements ?? [])] as HTMLElement[];
                  event.preventDefault();
                  fields[fields.indexOf(event.currentTarget) + 1]?.focus();
                }}
              />
            </label>
          </li>
        ))}
      </ul>
      <div className={classes.acts}>
        <button type="submit" className={classes.mend} disabled={given === 0}>
          Give {plural(given, 'label')}
        </button>
        <button type="button" onClick={done}>
          Not now
        </button>
      </div>
      <Problem of={problem} />
    </form>
  );
}
