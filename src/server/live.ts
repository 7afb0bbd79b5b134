/** What changes while somebody looks, as a stream of server-sent events (WHATWG HTML, 9.2). */
import type { Store } from '../store/open';
import { panelCard } from './panels';

/** How often something is looked at that may have changed, and after how long a line goes out so that nobody hangs up; in ms. */
const EVERY = 400;
const ALIVE = 15_000;

/** Sends what `look` gives, whenever it is other than before, until nobody listens any more. */
export function live(look: () => object | null, signal: AbortSignal): Response {
  const encoder = new TextEncoder();
  let timer: ReturnType<typeof setInterval> | undefined;
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
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
        if (found === 'null') end();
      };
      signal.addEventListener('abort', end);
      say();
      timer = setInterval(() => {
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

/** How a made-up panel stands. */
export const livePanel = (db: Store, token: string, signal: AbortSignal): Response =>
  live(() => panelCard(db, token), signal);
