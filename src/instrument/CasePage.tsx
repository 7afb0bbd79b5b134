/** A case that is answered, page by page, until its ending. */
import { useRef, useState } from 'react';
import { clockOf, type KeptCase } from '../core/responding/kept-case';
import type { Plan } from '../core/routing/plan';
import { PageItems, PageNav } from '../islands/responding/PageItems';
import { HumanCheckPage } from '../islands/responding/HumanCheckPage';
import { PageHead } from '../islands/responding/PageHead';
import { usePageFocus } from '../islands/responding/use-page-focus';
import { usePageKeys } from '../islands/responding/use-page-keys';
import { submitting } from '../islands/ui/submitting';
import { EndPage } from './EndPage';
import classes from './instrument.module.css';
import { PrintedCase } from './PrintedCase';
import type { Shelf } from './shelf';
import { useCase } from './use-case';

interface Props {
  readonly plan: Plan;
  /** “Version 2, frozen 2026-11-09”, or “Draft”. */
  readonly version: string;
  readonly shelf: Shelf;
  readonly interviewer: boolean;
  readonly opened: KeptCase;
  /** Whether cases are posted somewhere. */
  readonly posts: boolean;
  /** Told once the case is closed. */
  readonly closed: () => void;
  readonly leave: () => void;
}

export function CasePage({ plan, version, shelf, interviewer, opened, posts, closed, leave }: Props) {
  const { kept, session, change } = useCase(plan, shelf, opened, closed);
  const { walk, page: shown } = session;
  const [current, setCurrent] = useState<string | null>(null);
  const form = useRef<HTMLFormElement>(null);
  usePageFocus(form, session, false, kept.isPerson);
  const onKeyDown = usePageKeys(session.next);
  if (walk === null) return <p className={classes.sheet}>This case cannot go on: {session.problem}.</p>;
  if (shown === null) return <EndPage {...{ plan, version, shelf, walk, kept, interviewer, posts, leave }} />;
  if (plan.document.settings?.humanCheck && !interviewer && !kept.isPerson)
    return (
      <HumanCheckPage
        className={classes.sheet ?? ''}
        style={{}}
        seed={kept.seed}
        passed={() => change({ ...kept, isPerson: true })}
      />
    );
  return (
    <>
      {interviewer && (
        <p className={classes.bar}>
          Case {kept.id}
          <button type="button" onClick={leave}>
            Leave it for now
          </button>
        </p>
      )}
      <form
        className={classes.sheet}
        ref={form}
        noValidate
        aria-label="Questionnaire"
        onSubmit={submitting(() => session.next())}
        onKeyDown={onKeyDown}
      >
        <PageHead
          {...{ plan, session, walk }}
          page={shown}
          following={false}
          ahead={null}
          clockBegun={kept.clocks[clockOf(shown)]}
        />
        <PageItems {...{ plan, session, walk, current, setCurrent }} steps={shown.steps} />
        <PageNav back={session.back} isFirst={session.at === 0} words="Next" />
      </form>
      <PrintedCase plan={plan} kept={kept} version={version} />
    </>
  );
}
