/** Choosing in a list by typing: the beginning of a word, or one letter again and again. */

/** Letters typed within so many milliseconds are one word. */
export const ONE_WORD = 900;

export interface Letters {
  readonly typed: string;
  /** Index of what is chosen now. */
  readonly at: number;
}

/** The next letter; `before` is what was typed just before it, empty after a pause. Null where nothing begins so. */
export function byLetters(
  list: readonly string[],
  at: number,
  before: string,
  letter: string,
): Letters | null {
  const key = letter.toLowerCase();
  const typed = before + key;
  const word = list.findIndex((entry) => entry.toLowerCase().startsWith(typed));
  const exact = list.findIndex((entry) => entry.toLowerCase() === typed);
  if (typed.length > 1 && exact >= 0) return { typed, at: exact };
  if (typed.length > 1 && word >= 0)
    return { typed, at: list[at]?.toLowerCase().startsWith(typed) ? at : word };
  // The rest of a word that is spelt otherwise takes nothing back.
  if (before !== '' && [...before].some((each) => each !== key)) return null;
  const next = list.findIndex((entry, n) => n > at && entry.toLowerCase().startsWith(key));
  const first = list.findIndex((entry) => entry.toLowerCase().startsWith(key));
  const to = next >= 0 ? next : first;
  return to < 0 ? null : { typed, at: to };
}
