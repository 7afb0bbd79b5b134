/** Which link is watched and how it stands, pausing, closing and extending it, and from where leaving counts as a partial interview. */
import { format } from 'date-fns';
import { useState } from 'react';
import type { Monitor } from '../../../wire/monitor';
import type { MonitorInHand, Watched } from '../../state/monitor';
import { momentWords } from '../panel/moments';
import { Problem } from '../../ui/Problem';
import { submitting } from '../../ui/submitting';
import classes from './head.module.css';

interface Props {
  readonly told: Monitor;
  readonly inHand: MonitorInHand;
  readonly watched: Watched;
  readonly watch: (asked: number) => void;
  readonly back: () => void;
}

const STATE_WORDS = { open: 'open', paused: 'paused', closed: 'closed' } as const;

export function MonitorHead({ told, inHand, watched, watch, back }: Props) {
  const { link, sections, now } = told;
  const { state, settings, isPanel, followUps } = link;
  const [problem, setProblem] = useState<string | null>(null);
  const [extending, setExtending] = useState(false);
  const change = async (to: Parameters<MonitorInHand['change']>[0]) => {
    const refused = await inHand.change(to);
    setProblem(refused);
    return refused === null;
  };
  const partialFrom = (id: string) => {
    const { partialFrom: _before, ...rest } = settings;
    void change({ settings: id === '' ? rest : { ...rest, partialFrom: id } });
  };
  return (
    <header className={classes.head}>
      <div className={classes.title}>
        <button type="button" className={classes.back} onClick={back}>
          ‹ All links
        </button>
        <h1>{link.name}</h1>
        <p role="status">
          <b data-state={state}>
            {state === 'open' && link.isOver ? 'its time is over' : STATE_WORDS[state]}
          </b>
          {link.version === null ? ' · draft' : ` · version ${link.version}`}
          {isPanel ? ` · made-up panel, ${momentWords(now)}` : ''}
          {!isPanel && settings.closesAt !== undefined && !link.isOver
            ? ` · closes ${format(settings.closesAt, 'd MMM yyyy, HH:mm')}`
            : ''}
          {inHand.isLost && ' · the server does not answer; this is what it said last'}
        </p>
      </div>
      <div className={classes.acts}>
        {followUps.length > 0 && (
          <label>
            Questionnaire{' '}
            <select value={watched.asked} onChange={(event) => watch(Number(event.target.value))}>
              <option value={0}>of the link itself</option>
              {followUps.map(({ number, title }) => (
                <option key={number} value={number}>
                  handed on to: {title}
                </option>
              ))}
            </select>
          </label>
        )}
        <label>
          Partial from{' '}
          <select value={settings.partialFrom ?? ''} onChange={(event) => partialFrom(event.target.value)}>
            <option value="">none: who leaves has broken off</option>
            {sections.map(({ id, title }) => (
              <option key={id} value={id}>
                {title}
              </option>
            ))}
          </select>
        </label>
        {state === 'open' ? (
          <button type="button" onClick={() => void change({ state: 'paused' })}>
            Pause
          </button>
        ) : (
          <button type="button" onClick={() => void change({ state: 'open' })}>
            Open again
          </button>
        )}
        {state !== 'closed' && (
          <button type="button" onClick={() => void change({ state: 'closed' })}>
            Close
          </button>
        )}
        {!isPanel && (
          <button type="button" aria-expanded={extending} onClick={() => setExtending(!extending)}>
            {settings.closesAt === undefined ? 'Set its end …' : 'Extend …'}
          </button>
        )}
      </div>
      {extending && (
        <ExtendForm
          closesAt={settings.closesAt ?? null}
          close={() => setExtending(false)}
          extend={async (closesAt) => {
            const { closesAt: _before, ...rest } = settings;
            const isDone = await change({ settings: closesAt === null ? rest : { ...rest, closesAt } });
            if (isDone) setExtending(false);
          }}
        />
      )}
      <Problem of={problem} />
    </header>
  );
}

interface ExtendProps {
  readonly closesAt: number | null;
  readonly extend: (closesAt: number | null) => Promise<void>;
  readonly close: () => void;
}

const WEEK = 7 * 86_400_000;

function ExtendForm({ closesAt, extend, close }: ExtendProps) {
  const [text, setText] = useState(() => format((closesAt ?? Date.now()) + WEEK, "yyyy-MM-dd'T'HH:mm"));
  const at = new Date(text).getTime();
  return (
    <form className={classes.extend} onSubmit={submitting(() => extend(at))}>
      <label>
        Open until{' '}
        <input
          type="datetime-local"
          autoFocus
          required
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      <button type="submit" disabled={Number.isNaN(at)}>
        {closesAt === null ? 'Close it then' : 'Keep it open until then'}
      </button>
      {closesAt !== null && (
        <button type="button" onClick={() => void extend(null)}>
          Keep it open without an end
        </button>
      )}
      <button type="button" onClick={close}>
        Cancel
      </button>
    </form>
  );
}
