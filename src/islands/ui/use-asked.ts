/** Asking for something that takes a while, and forgetting the answer where it comes too late. */
import { useEffect, type DependencyList } from 'react';

/**
 * Asks again whenever something in `on` changes; an answer that comes after that, or once the component is gone, is
 * forgotten. `ask` gives null where there is nothing to ask; what asks on and on can look whether it is still wanted.
 * `whenever` subscribes to what is a reason to ask once more with the same `on`, and gives how to unsubscribe.
 */
export function useAsked<Answer>(
  ask: (isWanted: () => boolean) => Promise<Answer> | null,
  on: DependencyList,
  take: (answer: Answer) => void,
  whenever?: (askAgain: () => void) => () => void,
): void {
  useEffect(() => {
    let wanted = true;
    const askNow = () =>
      void ask(() => wanted)?.then((answer) => {
        if (wanted) take(answer);
      });
    askNow();
    const unsubscribe = whenever?.(askNow);
    return () => {
      wanted = false;
      unsubscribe?.();
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- made anew with every render: what is asked for is decided by what it is asked on
  }, on);
}
