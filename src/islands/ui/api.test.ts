/** What a call of the server gives, whatever comes back: the body, or why not in words that can be shown. */
import assert from 'node:assert/strict';
import { afterEach, describe, it, mock } from 'node:test';
import * as v from 'valibot';
import { call, sendOff } from './api';
import { isSignedOut } from './signed-out';

/** Before anything was asked. */
const atFirst = isSignedOut();

const Schema = v.object({ count: v.number() });
/** The requests that were made, while the server answers with `reply`. */
function answering(reply: () => Response): { path: string; init: RequestInit }[] {
  const made: { path: string; init: RequestInit }[] = [];
  mock.method(globalThis, 'fetch', (path: string, init: RequestInit = {}) => {
    made.push({ path, init });
    try {
      return Promise.resolve(reply());
    } catch (error) {
      return Promise.reject(error as Error);
    }
  });
  return made;
}
const json =
  (body: unknown, status = 200) =>
  () =>
    Response.json(body, { status });

afterEach(() => mock.restoreAll());

describe('a call', () => {
  const cases: readonly (readonly [string, () => Response, object])[] = [
    ['gives the body it asked for', json({ count: 3, more: true }), { ok: true, body: { count: 3 } }],
    [
      'gives a refusal in the words of the server, with all it said',
      json({ problem: 'Somebody saved before.', revision: 7 }, 409),
      {
        ok: false,
        status: 409,
        problem: 'Somebody saved before.',
        body: { problem: 'Somebody saved before.', revision: 7 },
      },
    ],
    [
      'says by its number what is refused without words',
      json({ error: 'x' }, 502),
      { ok: false, status: 502, problem: 'The server refused (502).', body: { error: 'x' } },
    ],
    [
      'does not take another body for the one it asked for',
      json({ count: 'three' }),
      {
        ok: false,
        status: 200,
        problem: 'The server answered something unexpected: reload the page.',
        body: { count: 'three' },
      },
    ],
    [
      'says that no server answers',
      () => {
        throw new TypeError('fetch failed');
      },
      {
        ok: false,
        status: 0,
        problem: 'The server does not answer. Your work is kept here and saved once it does.',
        body: null,
      },
    ],
    [
      'takes what is no JSON for no answer',
      () => new Response('<html>'),
      {
        ok: false,
        status: 0,
        problem: 'The server does not answer. Your work is kept here and saved once it does.',
        body: null,
      },
    ],
  ];
  for (const [what, reply, expected] of cases)
    it(what, async () => {
      answering(reply);
      assert.deepEqual(await call(Schema, 'GET', '/api/x'), expected);
    });

  it('sends a file as it is, and everything else as JSON, which outlives the page while it is short', async () => {
    const made = answering(json({ count: 1 }));
    await call(Schema, 'POST', '/api/x', new Blob(['file']));
    await call(Schema, 'POST', '/api/x', { a: 1 });
    await call(Schema, 'POST', '/api/x', 'x'.repeat(60_001));
    await call(Schema, 'GET', '/api/x');
    const types = made.map(
      ({ init }) => (init.headers as Record<string, string> | undefined)?.['Content-Type'],
    );
    assert.deepEqual(types, ['application/octet-stream', 'application/json', 'application/json', undefined]);
    assert.deepEqual(
      made.map(({ init }) => init.keepalive),
      [undefined, true, false, undefined],
    );
    assert.equal(made[1]?.init.body, '{"a":1}');
  });

  it('tells with every answer whether anybody is signed in', async () => {
    assert.equal(atFirst, false);
    let status = 401;
    answering(() => Response.json({ problem: 'Sign in.' }, { status }));
    await call(Schema, 'GET', '/api/x');
    assert.equal(isSignedOut(), true);
    status = 500;
    await call(Schema, 'GET', '/api/x');
    assert.equal(isSignedOut(), false);
  });

  it('while the page goes sends what a browser then still sends, and nothing of more', () => {
    const made = answering(json({}));
    sendOff('PATCH', '/api/x', 'short');
    // With the marks round it, just what is sent, and a byte more.
    sendOff('PATCH', '/api/x', 'x'.repeat(59_998));
    sendOff('PATCH', '/api/x', 'x'.repeat(59_999));
    assert.equal(made.length, 2);
  });
});
