/** What changes while somebody looks, as a stream of server-sent events (WHATWG HTML, 9.2). */
import type { Store } from '../store/open';
import { revisionOf } from '../store/studies';
import { listTrials } from '../store/trials';
import type { Panel } from '../wire/panels';
import { panelCard, panelMark } from './panels';

/** How often something is looked at that may have changed, and after how long a line goes out so that nobody hangs up; in ms. */
const EVERY = 400;
const ALIVE = 15_000;
/** Then whoever listens asks anew, and has to be signed in still. */
const LONGEST = 10 * 60_000;

/** Sends what `look` gives, whenever it is other than before, until nobody listens any more: until `request` is given up. */
export function live(look: () => object | null, request: Request): Response {
  const encoder = new TextEncoder();
  let timer: ReturnType<typeof setInterval> | undefined;
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      const until = Date.now() + LONGEST;
      let [before, quiet] = ['', 0];
      const end = () => {
        clearInterval(timer);
        try {
          controller.close();
        } catch {
          // Whoever listened has gone first.
        }
      };
      const say = () => {
        const found = JSON.stringify(look());
        quiet += EVERY;
        if (found === before && quiet < ALIVE) return;
        controller.enqueue(encoder.encode(found === before ? ': here\n\n' : `data: ${found}\n\n`));
        [before, quiet] = [found, 0];
        if (found === 'null' || Date.now() > until) end();
      };
      request.signal.addEventListener('abort', end);
      say();
      timer = setInterval(() => {
        // Asked of the request itself: Node tells its signal of nothing once nobody holds the request any more.
        if (request.signal.aborted) {
          end();
          return;
        }
        try {
          say();
        } catch (error) {
          console.error('What was being watched could not be looked at:', error);
          end();
        }
      }, EVERY);
    },
    cancel() {
      clearInterval(timer);
    },
  });
  return new Response(body, {
    headers: { 'Content-Type': 'text/event-stream; charset=utf-8', 'Cache-Control': 'no-store' },
  });
}

/** How the made-up panels of a study stand, by link. */
export function livePanels(db: Store, studyId: string, request: Request): Response {
  /** Piles of letters are counted again only where something has moved. */
  const known = new Map<string, { readonly mark: string; readonly card: Panel }>();
  const look = () => {
    if (revisionOf(db, studyId) === null) return null;
    const cards = listTrials(db, studyId).flatMap(({ token }): [string, Panel][] => {
      const mark = panelMark(db, token);
      if (mark === null) return [];
      const before = known.get(token);
      const card = before?.mark === mark ? before.card : panelCard(db, token);
      if (card === null) return [];
      known.set(token, { mark, card });
      return [[token, card]];
    });
    return Object.fromEntries(cards);
  };
  return live(look, request);
}
