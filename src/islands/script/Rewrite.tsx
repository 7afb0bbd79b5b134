/** A change that is only made if the analysis proves that everybody goes on being led the same way. */
import { useState } from 'react';
import { applyChange, type Change } from '../../core/editing/change';
import { useAnalysisClient } from '../study/analysis';
import { useStudy, useStudyStore } from '../study/store';
import classes from './slip.module.css';

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
    const { document, analysis } = store.getState();
    if (analysis?.document !== document) {
      setSaid('The routes are still being counted: press again in a moment.');
      return;
    }
    const { document: next } = applyChange(document, change);
    setSaid('Comparing …');
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
