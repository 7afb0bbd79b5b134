/** Keys on a respondent's page: digits choose answers, Enter goes on. */
import { useRef, type KeyboardEvent } from 'react';
import { isChoiceKey, pickByKey, type TypedBefore } from '../answering/digits';

export function usePageKeys(next: () => void) {
  const typed = useRef<TypedBefore | null>(null);
  return (event: KeyboardEvent<HTMLFormElement>) => {
    // In a field of several lines Enter writes a new one: with Ctrl it goes on.
    if (event.key === 'Enter' && event.ctrlKey) {
      event.preventDefault();
      next();
      return;
    }
    if (event.altKey || event.ctrlKey || event.metaKey) return;
    if (isChoiceKey(event.key)) {
      const { currentTarget: form, target, timeStamp } = event;
      const found = pickByKey(form, target as HTMLElement, event.key, typed.current, timeStamp);
      typed.current = found;
      if (found !== null) event.preventDefault();
    } else if (event.key === 'Enter' && event.target instanceof HTMLInputElement) {
      event.preventDefault();
      next();
    }
  };
}
