/**
 * Who may ask the server for anything, by what a request says of itself: the host that it was sent to and the page that
 * it comes from. Asked before every answer, of pages, doors and files alike.
 */
import { timingSafeEqual } from 'node:crypto';
import { isLoopback } from './inner.mjs';

const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);

/** The header by which a program that is no browser shows that it may write. */
const TOKEN_HEADER = 'x-jolly-fork-token';

/**
 * `hosts`: names besides loopback under which the app may be reached, on any port. `token`: what a program shows to
 * write. The guard gives null where a request may pass, else the status and the sentence to refuse it with.
 *
 * @param {{ hosts: readonly string[], token: string }} allowed
 */
export function guard({ hosts, token }) {
  const known = new Set(hosts.map(hostName));
  return ({ method, headers }) => {
    const name = hostName(headers.host);
    // A page elsewhere whose name is made to point here would otherwise count as this site.
    if (name === null || !(isLoopback(name) || known.has(name)))
      return {
        status: 421,
        problem: `Jolly Fork does not answer under the name “${headers.host ?? ''}”: open it under 127.0.0.1, or start it with JOLLY_FORK_HOSTS set to the names it may have.`,
      };
    if (SAFE.has(method ?? 'GET')) return null;
    if (isFromHere(headers)) return null;
    if (isNoBrowser(headers))
      return isProgram(headers, token)
        ? null
        : {
            status: 403,
            problem: `A program that changes something shows the token of this installation in the header ${TOKEN_HEADER}; it stands in the file “token” of the data folder.`,
          };
    return { status: 403, problem: 'This request comes from another site, so it was not carried out.' };
  };
}

/** Without the port; null where it is none. */
function hostName(host) {
  if (host === undefined || !/^[a-z0-9.:[\]_-]{1,255}$/i.test(host)) return null;
  return (host.startsWith('[') ? host.replace(/\]:\d+$/, ']') : host.replace(/:\d+$/, '')).toLowerCase();
}

/** Browsers say where a request comes from. */
function isFromHere(headers) {
  const site = headers['sec-fetch-site'];
  if (site !== undefined && site !== 'same-origin' && site !== 'none') return false;
  const { origin } = headers;
  if (origin === undefined) return site !== undefined;
  return URL.canParse(origin) && new URL(origin).host === headers.host;
}

function isNoBrowser({ origin, 'sec-fetch-site': site }) {
  return origin === undefined && site === undefined;
}

/** Whether a program asks that has read the token in the data folder, and so may do everything. */
export function isProgram(headers, token) {
  return isNoBrowser(headers) && isSame(headers[TOKEN_HEADER], token);
}

function isSame(shown, token) {
  const [a, b] = [Buffer.from(String(shown ?? '')), Buffer.from(token)];
  return a.length === b.length && timingSafeEqual(a, b);
}
