/** What the browser keeps for this page. */

/** The browser's own; null where it offers none, or refuses. */
export function storageHere(): Storage | null {
  try {
    const { localStorage } = window;
    localStorage.setItem('jolly-fork', '');
    localStorage.removeItem('jolly-fork');
    return localStorage;
  } catch {
    return null;
  }
}
