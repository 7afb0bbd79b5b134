/** Number keys: what is typed picks an answer of the question in hand, and never goes on to another. */
import { typedChoice } from './typed-choice';

/** Keys further apart than this, in milliseconds, begin anew. */
const TOGETHER = 1500;

/** What was typed last, and where. */
export interface TypedBefore {
  readonly within: Element;
  readonly typed: string;
  /** The box that the last key turned over, to be turned back where the number goes on. */
  readonly turned: HTMLInputElement | null;
  readonly at: number;
}

export const isChoiceKey = (key: string) => /^[0-9.-]$/.test(key);

/**
 * Picks by a key; null where it was not taken. Fields to write in keep their keys. Choices say what is typed for them in
 * `data-keys`.
 */
export function pickByKey(
  form: HTMLElement,
  target: HTMLElement,
  key: string,
  before: TypedBefore | null,
  now: number,
): TypedBefore | null {
  if (target.matches('input:not([type=radio]):not([type=checkbox]), textarea, select')) return null;
  const questions = [...form.querySelectorAll<HTMLElement>('[data-question]')];
  const own = target.closest<HTMLElement>('[data-question]');
  const unanswered = questions.find(
    (question) => marks(question).length > 0 && !marks(question).some((mark) => mark.checked),
  );
  const question = own ?? unanswered ?? questions[0];
  if (question === undefined) return null;
  // In a grid the row in hand, else its first row without a mark.
  const rows = [...question.querySelectorAll<HTMLElement>('[data-row]')];
  const row =
    target.closest<HTMLElement>('[data-row]') ??
    rows.find((entry) => !marks(entry).some((mark) => mark.checked));
  const within = row ?? question;
  const goesOn = before !== null && before.within === within && now - before.at < TOGETHER;
  const choices = marks(within);
  const found = typedChoice(
    goesOn ? before.typed : '',
    key,
    choices.map((mark) => mark.dataset.keys ?? null),
  );
  if (found === null) return null;
  const continues = goesOn && found.typed.length > 1;
  if (continues && found.chosen !== null) before.turned?.click();
  const mark = found.chosen === null ? undefined : choices[found.chosen];
  mark?.focus();
  // A radio that is chosen stays so: pressed again it would be blank.
  if (mark !== undefined && !(mark.type === 'radio' && mark.checked)) mark.click();
  const turned = mark?.type === 'checkbox' ? mark : continues ? before.turned : null;
  return { within, typed: found.typed, turned, at: now };
}

function marks(within: HTMLElement): HTMLInputElement[] {
  return [...within.querySelectorAll<HTMLInputElement>('input[type=radio], input[type=checkbox]')];
}
