/** Copying for somebody. */

/** False where the browser does not allow it, or, over plain HTTP from another machine, knows no clipboard. */
export async function toClipboard(text: string): Promise<boolean> {
  try {
    await navigator.clipboard.writeText(text);
    return true;
  } catch {
    return false;
  }
}
