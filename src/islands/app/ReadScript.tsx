/** The script for who can change nothing: the paper to read, and comments on what is chosen. */
import { useState } from 'react';
import { address, WHOLE_STUDY } from '../../core/document/addresses';
import { PaperScript } from '../paper/PaperScript';
import { CommentCards } from '../slips/CommentCards';
import slip from '../slips/slip.module.css';
import primitives from '../ui/primitives.module.css';
import { useStudy } from '../state/store';
import classes from './read.module.css';

export function ReadScript() {
  const plan = useStudy((state) => state.plan);
  const isVersion = useStudy((state) => state.version !== null);
  const comments = useStudy((state) => state.comments);
  const [chosen, setChosen] = useState<string | null>(null);
  const open = comments.filter(({ settledBy }) => settledBy === null).length;
  return (
    <div className={classes.columns}>
      <div className={classes.sheet}>
        <PaperScript plan={plan} choose={setChosen} chosen={chosen} />
      </div>
      <aside className={slip.slip} aria-label="Comments">
        <h2>{chosen === null ? 'Comments' : `On ${chosen}`}</h2>
        <div className={primitives.card}>
          <p>
            {chosen === null
              ? `Choose a question by its name ${isVersion ? 'to read what was said of it' : 'to comment on it'}. ${open === 0 ? 'No comment is open.' : `${open} open.`}`
              : isVersion
                ? 'What was said of it, on this version and since.'
                : 'Comments go to the authors under your name.'}
          </p>
        </div>
        {chosen === null ? (
          <CommentCards key="study" places={[[WHOLE_STUDY, 'the study as a whole']]} />
        ) : (
          <CommentCards key={chosen} places={[[address('item', chosen), chosen]]} />
        )}
        <button type="button" className={slip.button} onClick={() => print()}>
          Print the script
        </button>
      </aside>
    </div>
  );
}
