/**
 * Lets in who is signed in, where that is asked for; keeps pages out of caches, and what fails inside the house. Which
 * hosts and other pages may ask at all is decided before, in `server/guard.mjs`.
 */
import { randomBytes } from 'node:crypto';
import { defineMiddleware } from 'astro:middleware';
import { entrance, isOpenToAll } from './server/entrance';
import { faultOf } from './server/faults';
import { refuse } from './server/respond';
import { store } from './store/open';
import { removeAllStopped } from './store/responses';

const HOUR = 3_600_000;
// What people answered who stopped goes at the hour that they were told, whether anybody looks or not.
setInterval(() => removeAllStopped(store(), Date.now()), HOUR).unref();

export const onRequest = defineMiddleware(async ({ request, url, locals, routePattern, redirect }, next) => {
  // The editor of conditions makes a style of its own; it is let through by what this very page was told.
  locals.styleNonce = randomBytes(16).toString('base64');
  locals.asker = await entrance().asker(request.headers, Date.now());
  if (locals.asker === null && !isOpenToAll(routePattern))
    return url.pathname.startsWith('/api/')
      ? refuse(401, 'You are not signed in, or no longer: sign in and try again.')
      : redirect(`/sign-in?to=${encodeURIComponent(url.pathname + url.search)}`, 303);
  const response = await answered(request, url.pathname, next);
  // A page holds the study as it was saved; on the way back an older copy would show older work.
  if (response.headers.get('content-type')?.startsWith('text/html'))
    response.headers.set('Cache-Control', 'no-store');
  const policy = response.headers.get('content-security-policy');
  // A respondent's page has no editor, and a policy of its own.
  if (policy !== null && !routePattern.startsWith('/answer/'))
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
