/** What stands over the questions of a page: how far one has come, the clock, what is to be mended, the introduction. */
import type { Section } from '../../core/document/types';
import type { Plan } from '../../core/routing/plan';
import type { Page } from '../../core/routing/pages';
import type { WalkStep } from '../../core/routing/walk';
import { shownText } from '../../core/wording/values';
import type { Session } from '../../core/responding/session';
import { plural } from '../ui/format';
import { escapeMarkdown, RichText } from '../ui/RichText';
import { clockText, SectionClock } from './SectionClock';
import classes from './page.module.css';

/** How many questions may still come, those of the page among them. */
export interface QuestionsAhead {
  readonly least: number;
  readonly most: number;
}

interface Props {
  readonly plan: Plan;
  readonly session: Session;
  readonly walk: NonNullable<Session['walk']>;
  readonly page: Page;
  readonly following: boolean;
  readonly ahead: QuestionsAhead | null;
  /** When the time of the section in hand began, where it may have been before the page was opened. */
  readonly clockBegun?: number;
}

export function PageHead({ plan, session, walk, page, following, ahead, clockBegun }: Props) {
  const section = plan.sections[page.section]?.section;
  const before = session.pages[session.at - 1];
  const opensSection = before === undefined || before.section !== page.section || before.pass !== page.pass;
  const { progress = true, theme = {}, humanCheck = false } = plan.document.settings ?? {};
  const done = walk.steps.findIndex(({ key }) => key === page.steps[0]?.key);
  const total = done + (ahead === null ? page.steps.length : (ahead.least + ahead.most) / 2);
  const text = (of: string) => shownText(plan, walk, of, page.section, page.pass, escapeMarkdown);
  return (
    <>
      {theme.logo !== undefined && <img src={theme.logo} alt="" className={classes.logo} />}
      {progress && (
        <>
          <div className={classes.progress} aria-hidden="true">
            <i style={{ width: `${total === 0 ? 0 : Math.round((100 * done) / total)}%` }} />
          </div>
          <p className={classes.left}>
            {section === undefined ? '' : text(section.title)}
            {ahead !== null && ` · ${leftWords(ahead)}`}
          </p>
        </>
      )}
      {humanCheck && following && session.at === 0 && (
        <p className={classes.clock}>A human check comes before this page; a followed route passes it.</p>
      )}
      {section?.timeLimit !== undefined && (
        <TimeLimit
          session={session}
          page={page}
          limit={section.timeLimit}
          following={following}
          begun={clockBegun}
        />
      )}
      {session.faults.length > 0 && <FaultsSummary plan={plan} session={session} />}
      {opensSection && section?.intro !== undefined && (
        <div className={classes.intro}>
          <RichText text={text(section.intro)} />
        </div>
      )}
    </>
  );
}

interface LimitProps {
  readonly session: Session;
  readonly page: Page;
  readonly limit: NonNullable<Section['timeLimit']>;
  readonly following: boolean;
  readonly begun?: number;
}

function TimeLimit({ session, page, limit, following, begun }: LimitProps) {
  return following ? (
    <p className={classes.clock}>
      Limit of {clockText(limit)} for this section; no clock runs while a route is followed.
    </p>
  ) : (
    <SectionClock
      key={`${session.walks} ${page.section} ${page.pass ?? ''}`}
      limit={limit}
      begun={begun}
      over={session.timeOut}
    />
  );
}

function FaultsSummary({ plan, session }: { readonly plan: Plan; readonly session: Session }) {
  const { faults } = session;
  return (
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
  );
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
