/** The monitor of a link: its figures as the server tells them, the responses behind one, and what can be done with the link. */
import { useState } from 'react';
import type { Picked } from '../../core/monitor/picked';
import { BehindSchema, MonitorSchema, TrailSchema, type Behind, type Monitor } from '../../wire/monitor';
import { TrialSchema, type Trial } from '../../wire/trials';
import { call, type Reply } from '../ui/api';
import { useLive } from '../ui/use-live';
import { useAsked } from '../ui/use-asked';
import { useStudy } from './store';

/** How often the list behind a figure is asked for anew while it is looked at, in milliseconds. */
const EVERY = 4000;

export interface Watched {
  /** Token of the link. */
  readonly link: string;
  /** Number of the follow-up; 0 for the questionnaire of the link. */
  readonly asked: number;
}

const searchOf = ({ asked }: Watched, more: Readonly<Record<string, string>> = {}) =>
  new URLSearchParams({
    zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    questionnaire: String(asked),
    ...more,
  }).toString();

export interface MonitorInHand {
  /** Null until it has come. */
  readonly told: Monitor | null;
  /** That nothing is told any more; or that there is no such link. */
  readonly isLost: boolean;
  /** Gives why not, as a sentence, or null. */
  change(change: Partial<Pick<Trial, 'state' | 'settings'>>): Promise<string | null>;
}

export function useMonitor({ link, asked }: Watched): MonitorInHand {
  const api = useStudy((state) => state.api);
  const [told, setTold] = useState<Monitor | null>(null);
  const isLost = useLive(
    `${api}/trials/${link}/monitor?${searchOf({ link, asked })}`,
    MonitorSchema,
    setTold,
  );
  return {
    told,
    isLost,
    async change(change) {
      const reply = await call(TrialSchema, 'PATCH', `${api}/trials`, { token: link, ...change });
      if (!reply.ok) return reply.problem;
      setTold((before) => before && { ...before, link: reply.body });
      return null;
    },
  };
}

/** The responses behind a figure, asked for again while they are looked at; null until they have come. */
export function useBehind(watched: Watched, picked: Picked): Reply<Behind> | null {
  const api = useStudy((state) => state.api);
  const wanted = JSON.stringify(picked);
  const [found, setFound] = useState<{ readonly of: string; readonly reply: Reply<Behind> } | null>(null);
  const path = `${api}/trials/${watched.link}/responses?${searchOf(watched, { picked: wanted })}`;
  useAsked(
    () => (document.visibilityState === 'visible' ? call(BehindSchema, 'GET', path) : null),
    [path],
    (reply) => setFound({ of: path, reply }),
    (askAgain) => {
      const timer = setInterval(askAgain, EVERY);
      return () => clearInterval(timer);
    },
  );
  return found?.of === path ? found.reply : null;
}

/** One response, to be walked again. */
export function askTrail(api: string, link: string, id: string) {
  return call(
    TrailSchema,
    'GET',
    `${api}/trials/${link}/responses?${new URLSearchParams({ id }).toString()}`,
  );
}
