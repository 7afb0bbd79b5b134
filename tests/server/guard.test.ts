/** The server over HTTP, with a handler that tells what came through to it. */
import assert from 'node:assert/strict';
import { once } from 'node:events';
import http from 'node:http';
import net, { type AddressInfo } from 'node:net';
import { after, before, describe, it } from 'node:test';
import { createServer } from '../../server/main.mjs';

const TOKEN = 'the-token-of-this-test';

describe('the server', () => {
  let port = 0;
  const server = createServer({
    hosts: ['Forks.Example.org:8080'],
    token: TOKEN,
    bodyMilliseconds: 300,
    handler: (request, response) => {
      request.resume().on('end', () => response.end('came through'));
    },
  });

  before(async () => {
    server.listen(0, '127.0.0.1');
    await once(server, 'listening');
    ({ port } = server.address() as AddressInfo);
  });
  after(() => {
    server.close();
    server.closeAllConnections();
  });

  async function ask(
    method: string,
    headers: Record<string, string>,
    path = '/api/studies',
  ): Promise<http.IncomingMessage> {
    const request = http.request({ port, method, path, headers: { host: `127.0.0.1:${port}`, ...headers } });
    request.end();
    const [response] = (await once(request, 'response')) as [http.IncomingMessage];
    response.resume();
    return response;
  }
  const status = async (...asked: Parameters<typeof ask>) => (await ask(...asked)).statusCode;

  it('keeps a connection that is idle for longer than those in front of it do', async () => {
    const { headers } = await ask('GET', {});
    assert.match(String(headers['keep-alive']), /^timeout=(?:6[1-9]|[7-9]\d)$/);
  });

  it('answers under loopback and the names that it was given, whatever is asked', async () => {
    for (const host of ['127.0.0.1', '127.8.9.1:80', 'localhost:4321', '[::1]:4321', 'forks.example.org'])
      assert.equal(await status('GET', { host }), 200, host);
    for (const host of ['elsewhere.example', '127.0.0.1.elsewhere.example', 'localhost.example', 'a b'])
      for (const method of ['GET', 'HEAD', 'OPTIONS', 'DELETE'])
        for (const path of ['/', '/api/studies', '/fork.svg'])
          assert.notEqual(
            await status(method, { host, origin: `http://${host}` }, path),
            200,
            `${method} ${host}`,
          );
  });

  it('carries out what its own pages ask, and nothing that another page does', async () => {
    const here = `http://127.0.0.1:${port}`;
    assert.equal(await status('POST', { origin: here }), 200);
    assert.equal(await status('DELETE', { origin: here, 'sec-fetch-site': 'same-origin' }), 200);
    assert.equal(await status('POST', { origin: here, 'sec-fetch-site': 'cross-site' }), 403);
    assert.equal(await status('POST', { origin: 'http://127.0.0.1:1' }), 403);
    assert.equal(await status('POST', { origin: 'null' }), 403);
    assert.equal(await status('PATCH', { origin: 'https://elsewhere.example' }), 403);
    assert.equal(await status('PUT', { 'sec-fetch-site': 'same-site' }), 403);
  });

  it('lets a program write that shows the token, and no other', async () => {
    assert.equal(await status('POST', {}), 403);
    assert.equal(await status('POST', { 'x-jolly-fork-token': 'the-token-of-another' }), 403);
    assert.equal(await status('POST', { 'x-jolly-fork-token': TOKEN }), 200);
    // A browser says where it comes from, so there the token is of no use.
    assert.equal(
      await status('POST', { origin: 'https://elsewhere.example', 'x-jolly-fork-token': TOKEN }),
      403,
    );
  });

  it('refuses a body that is too large by what it says of itself', async () => {
    const refused = await ask('POST', { origin: `http://127.0.0.1:${port}`, 'content-length': '600000000' });
    assert.equal(refused.statusCode, 413);
  });

  it('says with every answer what a browser may make of it', async () => {
    for (const host of ['127.0.0.1', 'elsewhere.example']) {
      const { headers } = await ask('GET', { host });
      assert.match(
        String(headers['content-security-policy']),
        /^default-src 'self';.* frame-ancestors 'none'$/,
      );
      assert.doesNotMatch(String(headers['content-security-policy']), /unsafe/);
      assert.equal(headers['x-content-type-options'], 'nosniff');
      assert.equal(headers['referrer-policy'], 'same-origin');
      assert.equal(headers['cross-origin-opener-policy'], 'same-origin');
    }
  });

  it('gives up on a body that is never sent to its end', async () => {
    const socket = net.connect(port, '127.0.0.1');
    socket.write(
      `POST / HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\nOrigin: http://127.0.0.1:${port}\r\nContent-Length: 9\r\n\r\nhalf`,
    );
    let answer = '';
    socket.on('data', (text) => (answer += String(text)));
    await once(socket, 'close');
    assert.match(answer, /^HTTP\/1\.1 408 /);
  });
});
