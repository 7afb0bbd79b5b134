/** The page a respondent sees: a ruled form, its messages, and the way back and on. */
import { useRef, useState } from 'react';
import type { Plan } from '../../core/routing/plan';
import { PageItems, PageNav } from '../responding/PageItems';
import type { Session } from '../../core/responding/session';
import { themeStyle } from '../ui/theme';
import type { ItemsAhead } from './ahead';
import { EndingPage } from './EndingPage';
import { HumanCheckPage } from '../responding/HumanCheckPage';
import { PageHead } from '../responding/PageHead';
import { usePageFocus } from '../responding/use-page-focus';
import { usePageKeys } from '../responding/use-page-keys';
import { submitting } from '../ui/submitting';
import classes from '../responding/page.module.css';

/** Desktop and phone: the widths of the respondent's page. */
export type Device = 'Desktop' | 'Phone';

export interface RespondentPageProps {
  readonly plan: Plan;
  readonly session: Session;
  readonly device: Device;
  readonly following: boolean;
  readonly current: string | null;
  readonly setCurrent: (key: string) => void;
  readonly again: () => void;
  /** Goes on from another questionnaire in one sitting: no second human check. */
  readonly sameSitting?: boolean;
  readonly ahead: ItemsAhead | null;
  /** What walking again is called at the ending. */
  readonly againWords?: string;
  /** Goes on into the questionnaire that an ending hands on to, by the ending's id. */
  readonly walkOn?: (ending: string) => void;
}

export function RespondentPage(props: RespondentPageProps) {
  const { plan, session, device, following, current, setCurrent, ahead } = props;
  const { walk, page, at, next, back } = session;
  const paper = useRef<HTMLFormElement>(null);
  // A human check is passed once a walk.
  const [checked, setChecked] = useState<number | null>(null);
  usePageFocus(paper, session, following, checked);
  const onKeyDown = usePageKeys(next);

  if (walk === null) return null;
  if (page === null) return <EndingPage {...props} />;
  const { theme = {}, humanCheck = false } = plan.document.settings ?? {};
  const sheet = `${classes.paper} ${device === 'Phone' ? classes.phone : ''}`;
  if (humanCheck && !following && at === 0 && checked !== session.walks && props.sameSitting !== true) {
    return (
      <HumanCheckPage
        className={sheet}
        style={themeStyle(theme)}
        seed={session.inputs.seed}
        passed={() => setChecked(session.walks)}
      />
    );
  }
  return (
    <form
      className={sheet}
      ref={paper}
      noValidate
      aria-label="Respondent’s page"
      style={themeStyle(theme)}
      onSubmit={submitting(() => next())}
      onKeyDown={onKeyDown}
    >
      <PageHead plan={plan} session={session} walk={walk} page={page} following={following} ahead={ahead} />
      <PageItems {...{ plan, session, walk, current, setCurrent }} steps={page.steps} />
      <PageNav back={back} isFirst={at === 0} words="Next" />
    </form>
  );
}
