/** Asking for something that takes a while, and forgetting the answer where it comes too late. */
import { useEffect, type DependencyList } from 'react';

/**
 * Asks again whenever something in `on` changes; an answer that comes after that, or once the component is gone, is
 * forgotten. `ask` gives null where there is nothing to ask; what asks on and on can look whether it is still wanted.
 */
export function useAsked<Answer>(
  ask: (isWanted: () => boolean) => Promise<Answer> | null,
  on: DependencyList,
  take: (answer: Answer) => void,
): void {
  useEffect(() => {
    let wanted = true;
    void ask(() => wanted)?.then((answer) => {
      if (wanted) take(answer);
    });
    return () => {
      wanted = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- made anew with every render: what is asked for is decided by what it is asked on
  }, on);
}
