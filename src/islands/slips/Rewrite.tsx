/** A change that is only made if the analysis proves that everybody goes on being led the same way. */
import { useState } from 'react';
import type { Questionnaire } from '../../core/document/types';
import { applyChange, type Change } from '../../core/editing/change';
import type { StudyStore } from '../state/study-state';
import { useAnalysisClient } from '../state/analysis';
import { useStudy, useStudyStore } from '../state/store';
import classes from './slip.module.css';

/** Until the routes of a document have been counted, or a newer one has come. */
function counted(store: StudyStore, document: Questionnaire): Promise<void> {
  return new Promise((resolve) => {
    const isOver = () => {
      const { analysis, document: now } = store.getState();
      return analysis?.document === document || now !== document;
    };
    if (isOver()) {
      resolve();
      return;
    }
    const stop = store.subscribe(() => {
      if (!isOver()) return;
      stop();
      resolve();
    });
  });
}

interface Props {
  readonly words: string;
  /** Null where there is nothing to write so. */
  readonly make: () => Change | null;
}

export function Rewrite({ words, make }: Props) {
  const client = useAnalysisClient();
  const store = useStudyStore();
  const commit = useStudy((state) => state.commit);
  const [said, setSaid] = useState('');
  const rewrite = async () => {
    const change = make();
    if (change === null) {
      setSaid('There is nothing between that could be asked so.');
      return;
    }
    const { document } = store.getState();
    const { document: next } = applyChange(document, change);
    setSaid('Comparing …');
    await counted(store, document);
    const alike = await client.api.leadsAlike(next).catch(() => null);
    if (store.getState().document !== document) setSaid('');
    else if (alike === true) {
      setSaid(commit(change) ?? '');
    } else if (alike === false)
      setSaid('Left as it is: written so, some would be asked other questions than now.');
    else
      setSaid(
        'Left as it is: whether it would mean the same cannot be told while something is broken or not exact.',
      );
  };
  return (
    <>
      <button type="button" className={classes.rewrite} onClick={() => void rewrite()}>
        {words}
      </button>
      {said !== '' && (
        <span role="status" className={classes.plain}>
          {said}
        </span>
      )}
    </>
  );
}
