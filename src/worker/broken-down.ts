/** What a page is told of a worker that breaks down, or whose program never came. */

const NOT_LOADED =
  'A part of the program could not be loaded: see that the server runs, and reload the page.';

/** Rejects once the worker has broken down, after which no call to it comes back; open until then. */
export function brokenDown(worker: Worker): Promise<never> {
  return new Promise<never>((_, fail) => {
    // A program that does not come is told of by a bare event.
    worker.addEventListener('error', ({ message }) => fail(new Error(message || NOT_LOADED)), { once: true });
  });
}
