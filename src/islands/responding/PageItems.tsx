/** What is asked on a page, and the ways back and on under it: the same wherever somebody answers. */
import type { Session } from '../../core/responding/session';
import type { Plan } from '../../core/routing/plan';
import type { Walk, WalkStep } from '../../core/routing/walk';
import { ItemForm } from '../answering/ItemForm';
import classes from './page.module.css';

interface Props {
  readonly plan: Plan;
  readonly session: Session;
  readonly walk: Walk;
  readonly steps: readonly WalkStep[];
  /** Key of the step that is answered now. */
  readonly current: string | null;
  readonly setCurrent: (key: string) => void;
}

export function PageItems({ steps, current, setCurrent, ...answering }: Props) {
  return steps.map((step) => (
    <ItemForm
      key={step.key}
      {...answering}
      step={step}
      current={step.key === current}
      focused={() => setCurrent(step.key)}
    />
  ));
}

interface NavProps {
  /** Null where nobody may go back. */
  readonly back: (() => void) | null;
  /** Whether nothing lies before this page. */
  readonly isFirst: boolean;
  /** Of the button that leads on. */
  readonly words: string;
}

export function PageNav({ back, isFirst, words }: NavProps) {
  return (
    <div className={classes.nav}>
      {back === null ? (
        <span />
      ) : (
        <button type="button" disabled={isFirst} onClick={back}>
          Back
        </button>
      )}
      <button type="submit" data-next className={classes.next}>
        {words}
      </button>
    </div>
  );
}
