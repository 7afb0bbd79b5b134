/** The name under which somebody judges: asked for once, then remembered in this browser. */
import { useState } from 'react';

const KEPT = 'jolly-fork/reviewer';

export const rememberedReviewer = (): string => localStorage.getItem(KEPT) ?? '';

export const rememberReviewer = (name: string): void => localStorage.setItem(KEPT, name.trim());

export function useReviewer(): {
  readonly reviewer: string;
  readonly setReviewer: (name: string) => void;
  /** To be called once the name was used. */
  readonly remember: () => void;
} {
  const [reviewer, setReviewer] = useState(rememberedReviewer);
  return { reviewer, setReviewer, remember: () => rememberReviewer(reviewer) };
}
