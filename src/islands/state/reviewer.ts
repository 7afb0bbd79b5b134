/** The name under which somebody judges: that of the link or of who is signed in; else asked for once and remembered in this browser. */
import { useState } from 'react';
import { useStudy } from './store';

const KEPT = 'jolly-fork/reviewer';

export const rememberedReviewer = (): string => localStorage.getItem(KEPT) ?? '';

export const rememberReviewer = (name: string): void => localStorage.setItem(KEPT, name.trim());

export function useReviewer(): {
  readonly reviewer: string;
  /** Whether the name is known, by a reviewer's link or by signing in, and so is not asked for. */
  readonly isGiven: boolean;
  readonly setReviewer: (name: string) => void;
  /** To be called once the name was used. */
  readonly remember: () => void;
} {
  const given = useStudy((state) => state.reviewer);
  const [typed, setReviewer] = useState(rememberedReviewer);
  const reviewer = given ?? typed;
  return {
    reviewer,
    isGiven: given !== null,
    setReviewer,
    remember: () => {
      if (given === null) rememberReviewer(typed);
    },
  };
}
