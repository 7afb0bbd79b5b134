/** Number keys: the digit picks the answer standing at that place of the question in hand. */

/** Whether a digit was taken. Fields to write in keep their digits. */
export function pickByDigit(form: HTMLElement, target: HTMLElement, digit: string): boolean {
  if (target.matches('input:not([type=radio]):not([type=checkbox]), textarea, select')) return false;
  const questions = [...form.querySelectorAll<HTMLElement>('[data-question]')];
  const own = target.closest<HTMLElement>('[data-question]');
  const unanswered = questions.find(
    (question) => marks(question).length > 0 && !marks(question).some((mark) => mark.checked),
  );
  const question = own ?? unanswered ?? questions[0];
  if (question === undefined) return false;
  // In a grid the row in hand, else its first row without a mark.
  const rows = [...question.querySelectorAll<HTMLElement>('[data-row]')];
  const row =
    target.closest<HTMLElement>('[data-row]') ??
    rows.find((entry) => !marks(entry).some((mark) => mark.checked));
  const mark = marks(row ?? question)[digit === '0' ? 9 : Number(digit) - 1];
  if (mark === undefined) return false;
  mark.focus();
  mark.click();
  return true;
}

function marks(within: HTMLElement): HTMLInputElement[] {
  return [...within.querySelectorAll<HTMLInputElement>('input[type=radio], input[type=checkbox]')];
}
