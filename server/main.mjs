/** The HTTP server: the built app behind security headers, on 127.0.0.1 unless told otherwise. */
import http from 'node:http';
import process from 'node:process';

const HEADERS = {
  'X-Content-Type-Options': 'nosniff',
  'Referrer-Policy': 'same-origin',
  'X-Frame-Options': 'DENY',
};

/** Serves until SIGINT or SIGTERM. Ends the process with a clear word where the port cannot be had. */
export async function serve() {
  const host = process.env.HOST || '127.0.0.1';
  const port = Number(process.env.PORT || 4321);
  if (!Number.isInteger(port) || port < 0 || port > 65535) {
    console.error(`PORT is "${process.env.PORT}": give a number from 1 to 65535, like PORT=4400 npm start.`);
    process.exit(1);
  }
  process.env.ASTRO_NODE_AUTOSTART = 'disabled';
  const { handler } = await import('../dist/server/entry.mjs');
  const server = http.createServer((request, response) => {
    for (const [name, value] of Object.entries(HEADERS)) response.setHeader(name, value);
    handler(request, response);
  });
  server.on('error', (error) => {
    console.error(
      error.code === 'EADDRINUSE'
        ? `Port ${port} is taken: choose another, like PORT=${port + 1} npm start.`
        : `The server cannot listen on ${host}:${port}: ${error.message}`,
    );
    process.exit(1);
  });
  server.listen(port, host, () => {
    console.log(
      `Jolly Fork is ready: http://${host.includes(':') ? `[${host}]` : host}:${server.address().port}/`,
    );
  });
  for (const signal of ['SIGINT', 'SIGTERM']) {
    process.on(signal, () => {
      server.close(() => process.exit(0));
      server.closeAllConnections();
    });
  }
}
