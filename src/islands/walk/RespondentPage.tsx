/** The page a respondent sees: a ruled form, its messages, and the way back and on. */
import { useEffect, useEffectEvent, useRef, useState, type KeyboardEvent } from 'react';
import { holds } from '../../core/condition/evaluate';
import type { Plan } from '../../core/routing/plan';
import type { WalkStep } from '../../core/routing/walk';
import { endingLabel } from '../../core/wording/targets';
import { shownText } from '../../core/wording/values';
import { EndingMark } from '../ui/EndingMark';
import { plural } from '../ui/format';
import { themeStyle } from '../ui/theme';
import { HumanCheckPage } from './HumanCheckPage';
import { ItemForm } from '../answering/ItemForm';
import { isChoiceKey, pickByKey, type TypedBefore } from '../answering/digits';
import { escapeMarkdown, RichText } from '../ui/RichText';
import { clockText, SectionClock } from './SectionClock';
import type { Session } from '../state/walk-session';
import type { ItemsAhead } from './ahead';
import classes from './walk.module.css';

/** Desktop and phone: the widths of the respondent's page. */
export type Device = 'Desktop' | 'Phone';

interface Props {
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

export function RespondentPage(props: Props) {
  const { plan, session, device, following, current, setCurrent, ahead } = props;
  const { walk, page, at, faults, next, back } = session;
  const paper = useRef<HTMLFormElement>(null);
  // A human check is passed once a walk.
  const [checked, setChecked] = useState<number | null>(null);

  // A new page begins at its first field; a followed one, whose answers are filled in, at "Next".
  const { aim, tries } = session;
  useEffect(() => {
    const form = paper.current;
    if (form === null) return;
    if (aim !== null) {
      focusOn(form.querySelector<HTMLElement>(`[data-item="${CSS.escape(aim.key)}"]`));
      return;
    }
    form.parentElement?.scrollTo({ top: 0 });
    const first = form.querySelector<HTMLElement>('input:not([disabled]), textarea, select');
    const goOn = form.querySelector<HTMLElement>('[data-next]');
    (following ? goOn : (first ?? goOn))?.focus({ preventScroll: true });
  }, [at, aim, following, session.walks, checked]);
  // Messages: to the first one, when somebody wanted to go on. While they mend it the focus is theirs.
  const firstFault = faults[0] && `${faults[0].step.key} ${faults[0].fault.part}`;
  const toFault = useEffectEvent(() => {
    if (firstFault !== undefined)
      focusOn(paper.current?.querySelector<HTMLElement>(`[data-part="${CSS.escape(firstFault)}"]`) ?? null);
  });
  useEffect(() => {
    if (tries > 0) toFault();
  }, [tries]);
  const typed = useRef<TypedBefore | null>(null);

  if (walk === null) return null;
  if (page === null) return <EndingPage {...props} />;
  const section = plan.sections[page.section]?.section;
  const first = page.steps[0];
  const before = session.pages[at - 1];
  const opensSection = before === undefined || before.section !== page.section || before.pass !== page.pass;
  const { progress = true, theme = {}, humanCheck = false } = plan.document.settings ?? {};
  const done = walk.steps.findIndex(({ key }) => key === first?.key);
  const total = done + (ahead === null ? page.steps.length : (ahead.least + ahead.most) / 2);
  const text = (of: string, pass: number | null) =>
    shownText(plan, walk, of, page.section, pass, escapeMarkdown);

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
  const onKeyDown = (event: KeyboardEvent<HTMLFormElement>) => {
    // In a field of several lines Enter writes a new one: with Ctrl it goes on.
    if (event.key === 'Enter' && event.ctrlKey) {
      event.preventDefault();
      next();
      return;
    }
    if (event.altKey || event.ctrlKey || event.metaKey) return;
    if (isChoiceKey(event.key)) {
      const { currentTarget: form, target, timeStamp } = event;
      const found = pickByKey(form, target as HTMLElement, event.key, typed.current, timeStamp);
      typed.current = found;
      if (found !== null) event.preventDefault();
    } else if (event.key === 'Enter' && event.target instanceof HTMLInputElement) {
      event.preventDefault();
      next();
    }
  };
  return (
    <form
      className={sheet}
      ref={paper}
      noValidate
      aria-label="Respondent’s page"
      style={themeStyle(theme)}
      onSubmit={(event) => {
        event.preventDefault();
        next();
      }}
      onKeyDown={onKeyDown}
    >
      {theme.logo !== undefined && <img src={theme.logo} alt="" className={classes.logo} />}
      {progress && (
        <>
          <div className={classes.progress} aria-hidden="true">
            <i style={{ width: `${total === 0 ? 0 : Math.round((100 * done) / total)}%` }} />
          </div>
          <p className={classes.left}>
            {section === undefined ? '' : text(section.title, page.pass)}
            {ahead !== null && ` · ${leftWords(ahead)}`}
          </p>
        </>
      )}
      {humanCheck && following && at === 0 && (
        <p className={classes.clock}>A human check comes before this page; a followed route passes it.</p>
      )}
      {section?.timeLimit !== undefined &&
        (following ? (
          <p className={classes.clock}>
            Limit of {clockText(section.timeLimit)} for this section; no clock runs while a route is followed.
          </p>
        ) : (
          <SectionClock
            key={`${session.walks} ${page.section} ${page.pass ?? ''}`}
            limit={section.timeLimit}
            over={session.timeOut}
          />
        ))}
      {faults.length > 0 && (
        <div className={classes.summary} role="alert">
          <strong>
            {faults.every(({ fault }) => fault.kind === 'soft')
              ? 'Please look once more, or press Next again to go on:'
              : `${plural(faults.length, 'answer')} to look at before going on:`}
          </strong>
          <ul>
            {faults.map(({ step, fault }, index) => (
              <li key={index}>
                {questionWords(plan, session, step)}: {fault.message}
              </li>
            ))}
          </ul>
        </div>
      )}
      {opensSection && section?.intro !== undefined && (
        <div className={classes.intro}>
          <RichText text={text(section.intro, page.pass)} />
        </div>
      )}
      {page.steps.map((step) => (
        <ItemForm
          key={step.key}
          plan={plan}
          session={session}
          walk={walk}
          step={step}
          current={step.key === current}
          focused={() => setCurrent(step.key)}
        />
      ))}
      <div className={classes.nav}>
        <button type="button" disabled={at === 0} onClick={back}>
          Back
        </button>
        <button type="submit" data-next className={classes.next}>
          Next
        </button>
      </div>
    </form>
  );
}

/** Focus and sight on a part of the page: its first field, or itself. */
function focusOn(part: HTMLElement | null): void {
  if (part === null) return;
  const field = part.matches('input, textarea, select')
    ? part
    : part.querySelector<HTMLElement>('input:checked, input:not([type=radio]), textarea, select, input');
  (field ?? part).focus({ preventScroll: true });
  part.scrollIntoView({ block: 'center' });
}

function leftWords({ least, most }: { least: number; most: number }): string {
  if (most === 0) return 'the last page';
  return least === most ? `${plural(most, 'question')} left` : `${least} to ${most} questions left`;
}

function questionWords(plan: Plan, session: Session, step: WalkStep): string {
  const { walk } = session;
  const { item, section } = step.planItem;
  const text = walk === null ? item.text : shownText(plan, walk, item.text, section, step.pass);
  return text.length > 60 ? `${text.slice(0, 59)}…` : text;
}

function EndingPage({ plan, session, device, again, againWords, walkOn }: Props) {
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
