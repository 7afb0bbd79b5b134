/** Key in: paper forms by keyboard, one at a time or as a grid of cases, the cursor following the route. */
import { useMemo, useState } from 'react';
import { csvLines } from '../../../core/exchange/csv';
import { Keying } from '../../../core/keying/sheet';
import { nextCaseId } from '../../../core/keying/typed';
import type { KeyedCase } from '../../../wire/cases';
import { useReviewer } from '../../state/reviewer';
import { useStudy } from '../../state/store';
import { whenText } from '../../ui/format';
import { saveBlob } from '../../ui/save-blob';
import { CaseList } from './CaseList';
import { CasesGrid } from './CasesGrid';
import { isSameCase, useCases, type Cases } from './cases';
import { Comparison } from './Comparison';
import { FormView } from './FormView';
import classes from './key.module.css';

/** One row a case: who keyed it and when, then the columns of the codebook. */
function codedFile(keying: Keying, list: readonly KeyedCase[]): Blob {
  const head = ['case', 'keyed_by', 'keyed_at', ...keying.columns.map(({ name }) => name)];
  const rows = list
    .filter(({ entry }) => entry === 1)
    .map(({ caseId, keyedBy, at, answers }) => [
      caseId,
      keyedBy,
      new Date(at).toISOString(),
      ...keying.coded(answers).row,
    ]);
  return new Blob([csvLines([head, ...rows])], { type: 'text/csv' });
}

type KeyInDisplay = 'form' | 'grid' | 'compare';

export function KeyInView() {
  const plan = useStudy((state) => state.plan);
  const keying = useMemo(() => new Keying(plan), [plan]);
  const cases = useCases();
  const [open, setOpen] = useState<Pick<KeyedCase, 'caseId' | 'entry'> | null>(null);
  const [shown, setShown] = useState<KeyInDisplay>('form');
  const { reviewer: keyedBy, isGiven, setReviewer: setKeyedBy, remember } = useReviewer();
  /** The case that was removed last, to be brought back. */
  const [removed, setRemoved] = useState<KeyedCase | null>(null);
  const { list } = cases;
  if (list === null) return <div className={classes.columns} aria-busy="true" />;
  const current = open === null ? null : (list.find((each) => isSameCase(each, open)) ?? null);
  const nextId =
    current === null ? null : nextCaseId(current.caseId, new Set(list.map(({ caseId }) => caseId)));
  const start = (caseId: string): string | null => {
    const same = list.filter((each) => each.caseId === caseId);
    if (same.length === 2) return `Case ${caseId} has been keyed twice already: open it at the left.`;
    const [first] = same;
    if (first?.settledBy != null) return `Case ${caseId} has been settled: open it at the left.`;
    remember();
    const entry = same.length + 1;
    cases.put({ caseId, entry, keyedBy: keyedBy.trim(), answers: {}, settledBy: null });
    setOpen({ caseId, entry });
    setShown('form');
    return null;
  };
  return (
    <div className={classes.columns} data-own-undo>
      <CaseList
        keying={keying}
        cases={list}
        open={current}
        choose={(each, as) => {
          setOpen(each);
          setShown(as);
        }}
        start={start}
        keyedBy={keyedBy}
        isNameGiven={isGiven}
        setKeyedBy={setKeyedBy}
      />
      <div className={classes.main}>
        <div className={classes.tools}>
          <div role="group" aria-label="How to key">
            <button type="button" aria-pressed={shown === 'form'} onClick={() => setShown('form')}>
              Form
            </button>
            <button type="button" aria-pressed={shown === 'grid'} onClick={() => setShown('grid')}>
              Grid
            </button>
          </div>
          <SavedNote cases={cases} />
          {removed !== null && (
            <span role="status">
              Case {removed.caseId} is removed.{' '}
              <button
                type="button"
                onClick={() => {
                  cases.put(removed);
                  setOpen(removed);
                  setRemoved(null);
                }}
              >
                Bring it back
              </button>
            </span>
          )}
          {list.length > 0 && (
            <button type="button" onClick={() => saveBlob(codedFile(keying, list), 'keyed-cases.csv')}>
              Coded rows, CSV
            </button>
          )}
          {current !== null && (
            <button
              type="button"
              className={classes.remove}
              onClick={() => {
                cases.remove(current);
                setRemoved(current);
                setOpen(null);
              }}
            >
              Remove {current.entry === 2 ? 'the second keying' : 'this case'}
            </button>
          )}
        </div>
        {shown === 'grid' ? (
          <CasesGrid keying={keying} cases={list.filter(({ entry }) => entry === 1)} put={cases.put} />
        ) : current === null ? (
          <HowToKey />
        ) : shown === 'compare' ? (
          <Comparison keying={keying} cases={list} caseId={current.caseId} by={keyedBy} put={cases.put} />
        ) : (
          <FormView
            key={`${current.entry} ${current.caseId}`}
            keying={keying}
            keyed={current}
            set={(answers) => cases.put({ ...current, answers })}
            nextId={nextId}
            next={() => {
              if (nextId !== null) start(nextId);
              else document.querySelector<HTMLInputElement>('input[name="case"]')?.focus();
            }}
          />
        )}
      </div>
    </div>
  );
}

function HowToKey() {
  return (
    <div className={classes.empty}>
      <h1>Key in paper forms</h1>
      <p>
        Write the number of a form at the left and press Enter. Then key the code of each answer: the cursor
        goes on by the route, what is passed over fills with its code, and a code that is not allowed is
        refused. Enter alone leaves a question blank; arrow up goes back.
      </p>
      <p>
        Keys: a code of one digit goes on by itself, numbers and words by Enter; Enter after the last field
        saves the form and opens the next number; Ctrl+Z takes the last field back.
      </p>
      <p>Keyed twice under the same number, by two people, the two are compared.</p>
    </div>
  );
}

function SavedNote({ cases }: { readonly cases: Cases }) {
  return (
    <small role="status">
      {cases.saving === 'saved' && cases.savedAt > 0 && `Saved ${whenText(cases.savedAt)}`}
      {cases.saving === 'waiting' && 'Saving …'}
      {cases.saving === 'failed' && `Not saved; kept in this tab and tried again. ${cases.problem ?? ''}`}
    </small>
  );
}
