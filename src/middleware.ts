/** Refuses writes that another site's page sends through the visitor's browser; keeps pages out of caches. */
import { defineMiddleware } from 'astro:middleware';
import { refuse } from './server/respond';

const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);

export const onRequest = defineMiddleware(async ({ request }, next) => {
  if (!SAFE.has(request.method) && !isOwn(request.headers))
    return refuse(403, 'This request comes from another site, so it was not carried out.');
  const response = await next();
  // A page holds the study as it was saved; on the way back an older copy would show older work.
  if (response.headers.get('content-type')?.startsWith('text/html'))
    response.headers.set('Cache-Control', 'no-store');
  return response;
});

/** Browsers say where a request comes from; a client that says nothing is not a browser. */
function isOwn(headers: Headers): boolean {
  const site = headers.get('sec-fetch-site');
  if (site !== null) return site === 'same-origin' || site === 'none';
  const origin = headers.get('origin');
  if (origin === null) return true;
  return URL.canParse(origin) && new URL(origin).host === headers.get('host');
}
