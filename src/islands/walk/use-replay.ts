/** A response that is walked again as it was answered: page by page, forward and back, at the moments it was there. */
import { useCallback, useEffect, useState } from 'react';
import type { Session } from '../../core/responding/session';
import type { Trail } from '../../wire/monitor';
import { askTrail } from '../state/monitor';
import { useStudy } from '../state/store';
import { useAsked } from '../ui/use-asked';

export interface Replay {
  readonly trail: Trail;
  /** Which of the pages they left; one more than the last: where they are, or ended. */
  readonly at: number;
  /** Pages left, and the one they came to at last. */
  readonly stops: number;
  /** That the page in hand is no more on their route: a later change of mind put it off. */
  readonly isGone: boolean;
  readonly isPlaying: boolean;
  go(to: number): void;
  play(isOn: boolean): void;
}

/** Pages go by ten times as fast as they did, in milliseconds each at least and at most. */
const LEAST = 400;
const MOST = 3000;

/** Null where no response is walked again. `problem`: why one cannot be. */
export function useReplay(session: Session): {
  readonly replay: Replay | null;
  readonly problem: string | null;
} {
  const link = useStudy((state) => state.link);
  const api = useStudy((state) => state.api);
  const [wanted] = useState(() => new URLSearchParams(location.search).get('response'));
  const [trail, setTrail] = useState<Trail | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [at, setAt] = useState(0);
  const [isPlaying, setIsPlaying] = useState(false);
  const { start, goTo, pages } = session;
  const token = link?.token ?? null;
  useAsked(
    () => (token === null || wanted === null ? null : askTrail(api, token, wanted)),
    [token, wanted, api],
    (reply) => {
      setProblem(reply.ok ? null : reply.problem);
      if (!reply.ok) return;
      const { answers, given, seed, full, timedOut } = reply.body;
      start(answers, { given, seed, full, timedOut });
      setTrail(reply.body);
      setAt(0);
    },
  );
  const pageAt = useCallback(
    (to: number) => {
      const key = trail?.visits[to]?.page ?? trail?.inHand ?? null;
      return key === null ? pages.length : pages.findIndex((page) => page.key === key);
    },
    [trail, pages],
  );
  const go = useCallback(
    (to: number) => {
      setAt(to);
      const page = pageAt(to);
      if (page >= 0) goTo(page);
    },
    [pageAt, goTo],
  );
  const last = trail?.visits.length ?? 0;
  useEffect(() => {
    if (!isPlaying || trail === null) return;
    if (at >= last) {
      setIsPlaying(false);
      return;
    }
    const { seconds } = trail.visits[at] ?? { seconds: 0 };
    const timer = setTimeout(() => go(at + 1), Math.min(MOST, Math.max(LEAST, seconds * 100)));
    return () => clearTimeout(timer);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `go` is made anew with every page; the wait is for the one in hand
  }, [isPlaying, at, last, trail]);
  return {
    problem,
    replay:
      trail === null
        ? null
        : {
            ...{ trail, at, stops: last + 1, isPlaying, go },
            isGone: pageAt(at) < 0,
            play: (isOn) => {
              if (isOn && at >= last) go(0);
              setIsPlaying(isOn);
            },
          },
  };
}
