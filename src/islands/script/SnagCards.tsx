/** The snags of one place. */
import type { Snag } from '../../core/snags';
import { useStudy } from '../study/store';
import classes from './slip.module.css';

export function SnagCards({ belongs }: { readonly belongs: (snag: Snag) => boolean }) {
  const snags = useStudy((state) => state.snags).filter(belongs);
  if (snags.length === 0) return null;
  return (
    <>
      <h2>{snags.length === 1 ? 'Snag' : 'Snags'}</h2>
      <div className={classes.card}>
        {snags.map((snag, index) => (
          <p key={index} className={classes.snag}>
            {snag.at.skip !== undefined && <b>Skip {snag.at.skip + 1}: </b>}
            {snag.at.option !== undefined && <b>Answer {snag.at.option}: </b>}
            {snag.message}
          </p>
        ))}
      </div>
    </>
  );
}
