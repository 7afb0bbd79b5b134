/** The missing-code plan: each reason with its code, reasons of one's own, and conventions to start from. */
import { useState } from 'react';
import { MISSING_REASONS } from '../../../core/document/types';
import { addReason, followConvention } from '../../../core/editing/missing-codes';
import { CheckedField, NumberField } from '../../fields/Fields';
import { useStudy } from '../../state/store';
import { Problem } from '../../ui/Problem';
import { submitting } from '../../ui/submitting';
import classes from './book.module.css';

export function MissingPlan() {
  const document = useStudy((state) => state.document);
  const commit = useStudy((state) => state.commit);
  const [problem, setProblem] = useState<string | null>(null);
  const { missing } = document;
  const exceptions = document.sections.reduce(
    (sum, { items }) =>
      sum + items.filter((item) => item.kind === 'question' && item.missingCodes !== undefined).length,
    0,
  );
  return (
    <section className={classes.panel} aria-label="Missing-code plan">
      <div className={classes.plan}>
        {missing.map(({ reason, code, label }, at) => (
          <div key={reason}>
            <NumberField
              field={`book/plan/${reason}`}
              className={classes.code}
              whole
              label={`Code for ${label}`}
              value={code}
              take={(to) => {
                if (to === undefined) return 'Every reason has a code.';
                if (missing.some((other, n) => n !== at && other.code === to))
                  return `Another reason has the code ${to}.`;
                return commit({
                  label: `Code ${label}`,
                  apply: (draft) => {
                    const found = draft.missing[at];
                    if (found !== undefined) found.code = to;
                  },
                });
              }}
            />
            <CheckedField
              field={`book/plan/${reason}/words`}
              className={classes.field}
              label={`Words for ${reason.replaceAll('_', ' ')}`}
              value={label}
              take={(words) =>
                words === ''
                  ? 'A reason has words.'
                  : commit({
                      label: `Change the words for ${reason.replaceAll('_', ' ')}`,
                      apply: (draft) => {
                        const found = draft.missing[at];
                        if (found !== undefined) found.label = words;
                      },
                    })
              }
            />
            {(MISSING_REASONS as readonly string[]).includes(reason) ? (
              <small>{reason.replaceAll('_', ' ')}</small>
            ) : (
              <button
                type="button"
                onClick={() =>
                  commit({
                    label: `Delete the reason “${label}”`,
                    apply: (draft) => {
                      draft.missing.splice(at, 1);
                      for (const { items } of draft.sections)
                        for (const item of items)
                          if (item.kind === 'question') delete item.missingCodes?.[reason];
                    },
                  })
                }
              >
                Delete
              </button>
            )}
          </div>
        ))}
        <form
          onSubmit={submitting((form) => {
            const words = String(new FormData(form).get('reason') ?? '').trim();
            if (words === '') {
              setProblem('Write what the reason is called.');
              return;
            }
            setProblem(commit(addReason(document, words)));
            form.reset();
          })}
        >
          <input
            name="reason"
            aria-label="A reason of your own"
            placeholder="a reason of your own, like: page lost"
          />
          <button type="submit">Add it</button>
        </form>
      </div>
      <div className={classes.conventions}>
        <h2>Start from a convention</h2>
        <button type="button" onClick={() => setProblem(commit(followConvention(document, 'negative')))}>
          Negative codes: −1, −2, −3 …
        </button>
        <button type="button" onClick={() => setProblem(commit(followConvention(document, 'high')))}>
          High codes: 6 to 9, 96 to 99 or 996 to 999 by width
        </button>
        <p>
          Both keep clear of what a variable can hold, and give a variable codes of its own where it needs
          them
          {exceptions > 0 && ` (now ${exceptions})`}. Rows that are kept with the study follow. Undo takes it
          back.
        </p>
        <Problem of={problem} />
      </div>
    </section>
  );
}
