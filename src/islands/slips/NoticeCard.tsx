/** What the last change left leading nowhere, with ways to mend it or take the change back. */
import { partAt } from '../../core/routing/problems';
import { plural } from '../ui/format';
import { SnagEntry } from './SnagEntry';
import { useStudy } from '../state/store';
import classes from './slip.module.css';

/** Shown at once; the rest is in the panel of snags. */
const MOST = 3;

export function NoticeCard() {
  const notice = useStudy((state) => state.notice);
  const undo = useStudy((state) => state.undo);
  const close = useStudy((state) => state.closeNotice);
  const select = useStudy((state) => state.select);
  if (notice === null) return null;
  const { label, snags } = notice;
  return (
    <div className={classes.notice} role="status">
      <p>
        <b>“{label}”</b> leaves {snags.length === 1 ? 'a place' : plural(snags.length, 'place')} that{' '}
        {snags.length === 1 ? 'leads' : 'lead'} nowhere any more.
      </p>
      {snags.slice(0, MOST).map((snag, index) => (
        <SnagEntry
          key={index}
          snag={snag}
          fresh
          heading={
            <button type="button" className={classes.door} onClick={() => select(partAt(snag.at))}>
              {snag.at.item ?? snag.at.section ?? snag.at.derived ?? snag.at.quota ?? snag.at.ending ?? ''}
            </button>
          }
        />
      ))}
      {snags.length > MOST && <p>and {snags.length - MOST} more, under snags.</p>}
      <div className={classes.acts}>
        <button type="button" onClick={undo}>
          Take it back
        </button>
        <button type="button" onClick={close}>
          Leave it so
        </button>
      </div>
    </div>
  );
}
