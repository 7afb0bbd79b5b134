/** The last page of a case: its message, and what became of the answers. */
import { useEffect, useRef, useSyncExternalStore } from 'react';
import { holds } from '../core/condition/evaluate';
import type { KeptCase } from '../core/responding/kept-case';
import type { Plan } from '../core/routing/plan';
import type { Walk } from '../core/routing/walk';
import { shownText } from '../core/wording/values';
import { escapeMarkdown, RichText } from '../islands/ui/RichText';
import page from '../islands/responding/page.module.css';
import classes from './instrument.module.css';
import { PrintedCase } from './PrintedCase';
import type { Shelf } from './shelf';

interface Props {
  readonly plan: Plan;
  /** “Version 2, frozen 2026-11-09”, or “Draft”. */
  readonly version: string;
  readonly shelf: Shelf;
  readonly walk: Walk;
  readonly kept: KeptCase;
  readonly interviewer: boolean;
  readonly posts: boolean;
  readonly leave: () => void;
}

export function EndPage({ plan, version, shelf, walk, kept, interviewer, posts, leave }: Props) {
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => heading.current?.focus(), []);
  const now = useSyncExternalStore(shelf.subscribe, () => shelf.get(kept.key)) ?? kept;
  const end = walk.ending === null ? undefined : plan.endings[walk.ending];
  const past = plan.sections.length;
  const environment = walk.environment(past, null);
  const message = end?.messages.find((entry) => entry.if === null || holds(entry.if, environment));
  const next = end?.ending.next;
  return (
    <>
      <div className={classes.sheet}>
        <h1 ref={heading} tabIndex={-1} className={page.ending}>
          {interviewer ? `Case ${kept.id}: ended` : 'The questionnaire is over'}
        </h1>
        <div className={page.message}>
          <RichText
            text={
              message === undefined
                ? 'Thank you for your time.'
                : shownText(plan, walk, message.text, past, null, escapeMarkdown)
            }
          />
        </div>
        {next !== undefined && 'url' in next && (
          <p>
            It goes on at <a href={next.url}>{next.url}</a>.
          </p>
        )}
        {next !== undefined && 'questionnaire' in next && interviewer && (
          <p>
            It goes on in another questionnaire, “{next.questionnaire}”, which is not in this file
            {next.carry !== undefined && next.carry.length > 0 && ` and is given ${next.carry.join(', ')}`}.
          </p>
        )}
        <p className={page.left} aria-live="polite">
          {posts ? sentWords(now) : 'The answers are kept on this device.'}
        </p>
        <div className={page.nav}>
          <span />
          <button type="button" className={interviewer ? page.next : undefined} onClick={leave}>
            {interviewer ? 'Next case' : 'Cases on this device'}
          </button>
        </div>
      </div>
      <PrintedCase plan={plan} kept={now} version={version} />
    </>
  );
}

/** What became of a closed case on its way. */
export function sentWords({ closed, sending }: KeptCase): string {
  if (closed === null) return 'not closed';
  if (sending.takenAt !== null) return 'Sent.';
  if (sending.problem === null) return 'Being sent …';
  return sending.nextAt === null
    ? `Not taken: ${sending.problem}. It stays on this device.`
    : `Not sent yet: ${sending.problem}. It stays on this device and is sent later by itself.`;
}
