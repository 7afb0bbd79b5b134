/** Keeps pages out of caches, and what fails inside the house. Who may ask at all is decided in `server/guard.mjs`. */
import { defineMiddleware } from 'astro:middleware';
import { faultOf } from './server/faults';
import { refuse } from './server/respond';

export const onRequest = defineMiddleware(async ({ request, url }, next) => {
  const response = await answered(request, url.pathname, next);
  // A page holds the study as it was saved; on the way back an older copy would show older work.
  if (response.headers.get('content-type')?.startsWith('text/html'))
    response.headers.set('Cache-Control', 'no-store');
  return response;
});

/** A fault of a door is told by the door, with the details in the log. */
async function answered({ method }: Request, path: string, next: () => Promise<Response>): Promise<Response> {
  if (!path.startsWith('/api/')) return next();
  try {
    return await next();
  } catch (error) {
    console.error(`${method} ${path} failed:`, error);
    const { status, problem } = faultOf(error);
    return refuse(status, problem);
  }
}
