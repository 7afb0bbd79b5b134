/** Where the focus is on a respondent's page: at its first field, at what is aimed at, at what is to be mended. */
import { useEffect, useEffectEvent, useLayoutEffect, type RefObject } from 'react';
import type { Session } from '../../core/responding/session';

/**
 * A new page begins at its first field; a followed one, whose answers are filled in, at "Next". `renewed` changes where
 * the page is another though its place is the same.
 */
export function usePageFocus(
  paper: RefObject<HTMLElement | null>,
  { at, aim, tries, walks, faults }: Session,
  following: boolean,
  renewed: unknown,
): void {
  // Before the page is painted: whoever keys fast has the next key down by then.
  useLayoutEffect(() => {
    const form = paper.current;
    if (form === null) return;
    if (aim !== null) {
      focusOn(form.querySelector<HTMLElement>(`[data-item="${CSS.escape(aim.key)}"]`));
      return;
    }
    // In the preview the sheet scrolls; where the page is all there is, the window does.
    form.parentElement?.scrollTo({ top: 0 });
    window.scrollTo({ top: 0 });
    // What turns the pages from outside, one after the other, keeps the focus.
    if (document.activeElement?.closest('[data-turns-pages]') != null) return;
    const first = form.querySelector<HTMLElement>('input:not([disabled]), textarea, select');
    const goOn = form.querySelector<HTMLElement>('[data-next]');
    (following ? goOn : (first ?? goOn))?.focus({ preventScroll: true });
  }, [paper, at, aim, following, walks, renewed]);
  // Messages: to the first one, when somebody wanted to go on. While they mend it the focus is theirs.
  const firstFault = faults[0] && `${faults[0].step.key} ${faults[0].fault.part}`;
  const toFault = useEffectEvent(() => {
    if (firstFault !== undefined)
      focusOn(paper.current?.querySelector<HTMLElement>(`[data-part="${CSS.escape(firstFault)}"]`) ?? null);
  });
  useEffect(() => {
    if (tries > 0) toFault();
  }, [tries]);
}

/** Focus and sight on a part of the page: its first field, or itself. */
function focusOn(part: HTMLElement | null): void {
  if (part === null) return;
  const field = part.matches('input, textarea, select')
    ? part
    : part.querySelector<HTMLElement>('input:checked, input:not([type=radio]), textarea, select, input');
  (field ?? part).focus({ preventScroll: true });
  part.scrollIntoView({ block: 'center' });
}
