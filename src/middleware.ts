/** Keeps pages out of caches, and what fails inside the house. Who may ask at all is decided in `server/guard.mjs`. */
import { randomBytes } from 'node:crypto';
import { defineMiddleware } from 'astro:middleware';
import { faultOf } from './server/faults';
import { refuse } from './server/respond';

export const onRequest = defineMiddleware(async ({ request, url, locals }, next) => {
  // The editor of conditions makes a style of its own; it is let through by what this very page was told.
  locals.styleNonce = randomBytes(16).toString('base64');
  const response = await answered(request, url.pathname, next);
  // A page holds the study as it was saved; on the way back an older copy would show older work.
  if (response.headers.get('content-type')?.startsWith('text/html'))
    response.headers.set('Cache-Control', 'no-store');
  const policy = response.headers.get('content-security-policy');
  if (policy !== null)
    response.headers.set(
      'content-security-policy',
      policy.replace('style-src ', `style-src 'nonce-${locals.styleNonce}' `),
    );
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
