/** The name under which somebody judges: asked for once, then remembered in this browser. */
import { useState } from 'react';

const KEPT = 'jolly-fork/reviewer';

export function useReviewer(): {
  readonly reviewer: string;
  readonly setReviewer: (name: string) => void;
  /** To be called once the name was used. */
  readonly remember: () => void;
} {
  const [reviewer, setReviewer] = useState(() => localStorage.getItem(KEPT) ?? '');
  return { reviewer, setReviewer, remember: () => localStorage.setItem(KEPT, reviewer.trim()) };
}
