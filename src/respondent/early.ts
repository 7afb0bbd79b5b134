/**
 * What a respondent has done on the page before this program ran: it stands there as the server drew it, and whoever is quick has
 * chosen, typed or sent already.
 */

type Field = HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement;

/** Set by the lines at the head of the page (`server/answer-page.ts`): whether the page was sent off. */
export interface WithEarly {
  early?: { sent: boolean };
}

/** Looks at the page before it is brought to life; what comes back does the same again once it is. */
export function earlyDone(root: HTMLElement): () => void {
  const done = [...root.querySelectorAll<Field>('input, textarea, select')].flatMap(
    (field): (() => void)[] => {
      if (field instanceof HTMLInputElement && (field.type === 'radio' || field.type === 'checkbox')) {
        const { checked } = field;
        if (checked === field.defaultChecked) return [];
        return [
          () => {
            field.checked = !checked;
            field.click();
          },
        ];
      }
      const { value } = field;
      const before = field instanceof HTMLSelectElement ? '' : field.defaultValue;
      if (value === before) return [];
      return [
        () => {
          field.value = value;
          for (const type of ['input', 'change']) field.dispatchEvent(new Event(type, { bubbles: true }));
        },
      ];
    },
  );
  return () => {
    for (const act of done) act();
    // Once the page has taken in what was done.
    if ((window as WithEarly).early?.sent === true)
      setTimeout(() => root.querySelector('form')?.requestSubmit());
    delete (window as WithEarly).early;
  };
}
