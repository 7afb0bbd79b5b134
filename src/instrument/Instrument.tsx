/** Which is shown: the cases on this device, or one that is answered. */
import { useState, useSyncExternalStore } from 'react';
import type { Asked } from '../core/responding/case-data';
import { caseBegun, caseStopped, type KeptCase } from '../core/responding/kept-case';
import type { Answers } from '../core/document/types';
import type { Plan } from '../core/routing/plan';
import { themeStyle } from '../islands/ui/theme';
import { CasePage } from './CasePage';
import { CaseLock, whileOurs } from './CaseLock';
import { Desk } from './Desk';
import classes from './instrument.module.css';
import type { Sender } from './sender';
import type { Shelf } from './shelf';

interface Props {
  readonly plan: Plan;
  readonly asked: Asked;
  readonly shelf: Shelf;
  /** Null where cases stay on this device. */
  readonly sender: Sender | null;
}

export function Instrument({ plan, asked, shelf, sender }: Props) {
  const { settings } = plan.document;
  const interviewer = settings?.mode === 'interviewer';
  const cases = useSyncExternalStore(shelf.subscribe, shelf.all);
  const [open, setOpen] = useState<KeptCase | null>(() => firstOpened(plan, shelf, interviewer));
  const begin = (id: string, values: Answers) =>
    setOpen(caseBegun(plan, { key: crypto.randomUUID(), id, seed: seed(), given: values }, Date.now()));
  const send = () => void sender?.send();
  const [told, setTold] = useState<string | null>(null);
  return (
    <main className={classes.instrument} style={themeStyle(settings?.theme ?? {})}>
      {open === null ? (
        <Desk
          {...{ plan, asked, shelf, cases, interviewer }}
          begin={begin}
          goOn={setOpen}
          stop={(kept) =>
            whileOurs(kept.key, (ours) => {
              setTold(ours ? null : `Case ${kept.id} is being answered in another tab: close it there.`);
              if (!ours) return;
              shelf.put(caseStopped(plan, shelf.get(kept.key) ?? kept, Date.now()));
              send();
            })
          }
          send={sender === null ? null : () => void sender.sendNow(true)}
        />
      ) : (
        <CaseLock key={open.key} name={open.key} leave={() => setOpen(null)}>
          <CasePage
            {...{ plan, shelf, interviewer }}
            version={asked.version}
            opened={open}
            posts={sender !== null}
            closed={send}
            leave={() => setOpen(null)}
          />
        </CaseLock>
      )}
      <footer className={classes.foot}>
        {asked.version === 'Draft' ? (
          <>
            <strong>Draft, for trying out.</strong> {asked.title}
          </>
        ) : (
          `${asked.title}. ${asked.version}`
        )}
        {[shelf.problem, told].map(
          (problem) =>
            problem !== null && (
              <span key={problem} role="alert" className={classes.problem}>
                {problem}
              </span>
            ),
        )}
      </footer>
    </main>
  );
}

/**
 * Respondents who answer by themselves go on where they were, or begin. Whoever asks others, or has values to put in first,
 * or has been through it, chooses.
 */
function firstOpened(plan: Plan, shelf: Shelf, interviewer: boolean): KeptCase | null {
  if (interviewer) return null;
  const cases = shelf.all();
  const open = cases.find(({ closed }) => closed === null);
  if (open !== undefined) return open;
  const asks = plan.document.given?.some(({ random }) => !random) ?? false;
  if (cases.length > 0 || asks) return null;
  return caseBegun(plan, { key: crypto.randomUUID(), id: '1', seed: seed(), given: {} }, Date.now());
}

const MOST_SEEDS = 2 ** 31;
const seed = () => 1 + ((crypto.getRandomValues(new Uint32Array(1))[0] ?? 0) % (MOST_SEEDS - 1));
