/** What a respondent sees at the end: the message of the ending, and where it hands on to. */
import { useEffect, useRef } from 'react';
import { holds } from '../../core/condition/evaluate';
import { endingLabel } from '../../core/wording/targets';
import { shownText } from '../../core/wording/values';
import { EndingMark } from '../ui/EndingMark';
import { escapeMarkdown, RichText } from '../ui/RichText';
import { themeStyle } from '../ui/theme';
import type { RespondentPageProps } from './RespondentPage';
import classes from '../responding/page.module.css';

type Props = Pick<RespondentPageProps, 'plan' | 'session' | 'device' | 'again' | 'againWords' | 'walkOn'>;

export function EndingPage({ plan, session, device, again, againWords, walkOn }: Props) {
  const { walk, back } = session;
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    heading.current?.focus();
  }, []);
  if (walk === null || walk.ending === null) return null;
  const end = plan.endings[walk.ending];
  if (end === undefined) return null;
  const past = plan.sections.length;
  const environment = walk.environment(past, null);
  const message = end.messages.find((entry) => entry.if === null || holds(entry.if, environment));
  const next = end.ending.next;
  return (
    <div
      className={`${classes.paper} ${device === 'Phone' ? classes.phone : ''}`}
      style={themeStyle(plan.document.settings?.theme ?? {})}
    >
      <h2 ref={heading} tabIndex={-1} className={classes.ending}>
        <EndingMark kind={end.ending.kind} /> {endingLabel(plan.document, end.ending.id)}
      </h2>
      {message === undefined ? (
        <p>No message: a respondent on this route sees nothing here.</p>
      ) : (
        <div className={classes.message}>
          <RichText text={shownText(plan, walk, message.text, past, null, escapeMarkdown)} />
        </div>
      )}
      {next !== undefined && (
        <p className={classes.left}>
          Then on to {'url' in next ? next.url : next.questionnaire}
          {'carry' in next &&
            next.carry !== undefined &&
            next.carry.length > 0 &&
            `, carrying ${next.carry.join(', ')}`}
          .
        </p>
      )}
      <div className={classes.nav}>
        <button type="button" onClick={back}>
          Back
        </button>
        <button type="button" onClick={again}>
          {againWords ?? 'Walk again, choosing freely'}
        </button>
        {next !== undefined && 'questionnaire' in next && walkOn !== undefined && (
          <button type="button" className={classes.next} onClick={() => walkOn(end.ending.id)}>
            Walk on
          </button>
        )}
      </div>
    </div>
  );
}
