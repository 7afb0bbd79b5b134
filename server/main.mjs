/** The HTTP server: the built app behind the guard and security headers, on 127.0.0.1 unless told otherwise. */
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import http from 'node:http';
import os from 'node:os';
import path from 'node:path';
import process from 'node:process';
import { guard, isProgram } from './guard.mjs';
import { FROM_HEADER, PROGRAM_HEADER } from './inner.mjs';

/** What is no page runs and loads nothing but the app's own files; pages say more exactly what is theirs. */
const POLICY =
  "default-src 'self'; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'";
const HEADERS = {
  'Content-Security-Policy': POLICY,
  'X-Content-Type-Options': 'nosniff',
  'Referrer-Policy': 'same-origin',
  'X-Frame-Options': 'DENY',
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Resource-Policy': 'same-origin',
  'Permissions-Policy': 'camera=(), geolocation=(), microphone=(), payment=(), usb=()',
};

/** The workers that make files draw pixels with WebAssembly of the app’s own: they may compile that, still not run text. */
const MAKES_FILES = /^\/_astro\/(release|beside)\.worker[\w.-]*\.js$/;
const POLICY_OF_FILES = `${POLICY}; script-src 'self' 'wasm-unsafe-eval'`;

/** A respondent's page says by its own policy whose page may show it inside. */
const SAYS_WHO_FRAMES = /^\/answer\//;

/** Largest body of a request, in bytes: doors have smaller limits of their own. */
const MOST_BYTES = 60_000_000;

/**
 * The server, not listening yet. `handler` gives all answers that the guard lets through.
 *
 * @param {{ handler: import('node:http').RequestListener, hosts: readonly string[], token: string, bodyMilliseconds?: number }} of
 */
export function createServer({ handler, hosts, token, bodyMilliseconds = 120_000 }) {
  const refusalOf = guard({ hosts, token });
  const server = http.createServer(
    // A request that is sent in part, and never the rest, holds nothing for ever.
    {
      requestTimeout: bodyMilliseconds,
      headersTimeout: Math.min(15_000, bodyMilliseconds),
      connectionsCheckingInterval: 1_000,
      // Longer than proxies and browsers keep a connection that is idle (60 s as a rule): whoever asks over one that is just being
      // closed gets no answer, and not everybody asks again.
      keepAliveTimeout: 75_000,
    },
    (request, response) => {
      for (const [name, value] of Object.entries(HEADERS)) response.setHeader(name, value);
      if (SAYS_WHO_FRAMES.test(request.url ?? '')) response.removeHeader('X-Frame-Options');
      if (MAKES_FILES.test(request.url ?? '')) response.setHeader('Content-Security-Policy', POLICY_OF_FILES);
      const refusal = refusalOf(request) ?? tooLarge(request);
      if (refusal === null) {
        // What the app believes of a connection, whatever came with the request.
        request.headers[FROM_HEADER] = request.socket.remoteAddress ?? '';
        delete request.headers[PROGRAM_HEADER];
        if (isProgram(request.headers, token)) request.headers[PROGRAM_HEADER] = 'yes';
        handler(request, response);
        return;
      }
      response.statusCode = refusal.status;
      response.setHeader('Content-Type', 'application/json; charset=utf-8');
      response.setHeader('Content-Disposition', 'attachment; filename="api.json"');
      response.setHeader('Cache-Control', 'no-store');
      // What is still to come of the body is not waited for.
      response.setHeader('Connection', 'close');
      response.end(JSON.stringify({ problem: refusal.problem }));
    },
  );
  server.maxHeadersCount = 100;
  return server;
}

function tooLarge({ headers }) {
  return Number(headers['content-length'] ?? 0) > MOST_BYTES
    ? { status: 413, problem: `The request holds more than ${MOST_BYTES / 1e6} MB.` }
    : null;
}

/** The token of this installation, made on the first start. */
function tokenIn(folder) {
  const file = path.join(folder, 'token');
  if (existsSync(file)) return readFileSync(file, 'utf8').trim();
  mkdirSync(folder, { recursive: true });
  const token = randomBytes(24).toString('base64url');
  writeFileSync(file, `${token}\n`, { mode: 0o600 });
  return token;
}

/** Opens the data folder, or ends the process with what is wrong with it. */
async function doorOf(folder) {
  const { openDoor, DatabaseProblem } = await import('../dist/door/door.mjs');
  const keep = Number(process.env.JOLLY_FORK_COPIES ?? 7);
  if (!Number.isInteger(keep) || keep < 0) {
    console.error(
      `JOLLY_FORK_COPIES is "${process.env.JOLLY_FORK_COPIES}": give how many copies of days are kept, like 7, or 0 for none.`,
    );
    process.exit(1);
  }
  try {
    const door = openDoor(folder, keep, (text) => console.error(text));
    if (door.copied !== null)
      console.log(`The tables were brought up to date; as they were, they are in ${door.copied}.`);
    return door;
  } catch (error) {
    if (!(error instanceof DatabaseProblem)) throw error;
    console.error(error.message);
    process.exit(1);
  }
}

/** Those of this machine; not the ones that hold on one cable alone. */
function ownAddresses() {
  return Object.values(os.networkInterfaces())
    .flat()
    .filter(({ scopeid = 0 }) => scopeid === 0)
    .map(({ address }) => address);
}

/** Serves until SIGINT or SIGTERM. Ends the process with a clear word where the port cannot be had. */
export async function serve() {
  const { hostsOf, readReach, whoCanReach } = await import('../dist/door/reach.mjs');
  const read = readReach(process.env);
  if (!read.ok) {
    console.error(read.problem);
    process.exit(1);
  }
  const { reach } = read;
  const { host, port } = reach;
  const own = ownAddresses();
  const folder = process.env.JOLLY_FORK_DATA ?? 'data';
  const door = await doorOf(folder);
  process.env.ASTRO_NODE_AUTOSTART = 'disabled';
  const { handler } = await import('../dist/server/entry.mjs');
  const server = createServer({ handler, hosts: hostsOf(reach, own), token: tokenIn(folder) });
  server.on('error', (error) => {
    console.error(
      error.code === 'EADDRINUSE'
        ? `Port ${port} is taken: choose another, like PORT=${port + 1} npm start.`
        : `The server cannot listen on ${host}:${port}: ${error.message}`,
    );
    process.exit(1);
  });
  server.listen(port, host, () => {
    const { port: taken } = server.address();
    console.log(whoCanReach({ ...reach, port: taken }, own));
    const at = host === '0.0.0.0' || host === '::' ? '127.0.0.1' : host;
    const address = `http://${at.includes(':') ? `[${at}]` : at}:${taken}`;
    // A made-up panel answers through the same doors as everybody else.
    process.env.JOLLY_FORK_OWN_ADDRESS = address;
    console.log(`Jolly Fork is ready: ${address}/`);
  });
  for (const signal of ['SIGINT', 'SIGTERM']) {
    process.on(signal, () => {
      server.close(() => {
        door.close();
        // The app closes its database as the process ends, which takes all writes into the file.
        process.exit(0);
      });
      server.closeAllConnections();
    });
  }
}
