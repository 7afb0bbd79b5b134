/** Bodies of requests: counted as they come, and refused in words. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import * as v from 'valibot';
import { readBody, readBytes } from './respond';

function sent(pieces: Iterable<string>, taken = { pieces: 0 }): Request {
  const each = pieces[Symbol.iterator]();
  const body = new ReadableStream<Uint8Array>({
    pull(controller) {
      const next = each.next();
      if (next.done === true) controller.close();
      else {
        taken.pieces += 1;
        controller.enqueue(new TextEncoder().encode(next.value));
      }
    },
  });
  return new Request('http://127.0.0.1/', { method: 'POST', body, duplex: 'half' } as RequestInit);
}

function* endless() {
  for (;;) yield 'x'.repeat(1000);
}

async function refusalOf(body: string): Promise<[number, string]> {
  const read = await readBody(sent([body]), v.looseObject({ a: v.number('a number is needed') }));
  if (read.ok) return [200, ''];
  return [read.response.status, ((await read.response.json()) as { problem: string }).problem];
}

describe('the body of a request', () => {
  it('is put together of its pieces', async () => {
    const read = await readBytes(sent(['half', ' and half']), 100, 'It holds');
    assert.ok(read.ok);
    assert.equal(new TextDecoder().decode(read.bytes), 'half and half');
    // Just as much as is taken, and one byte more.
    assert.ok((await readBytes(sent(['half', ' and half']), 13, 'It holds')).ok);
    assert.ok(!(await readBytes(sent(['half', ' and half']), 12, 'It holds')).ok);
  });

  it('is not taken beyond the limit, however much is sent', async () => {
    const taken = { pieces: 0 };
    const read = await readBytes(sent(endless(), taken), 10_000, 'It holds');
    assert.ok(!read.ok);
    assert.equal(read.response.status, 413);
    assert.ok(taken.pieces < 20, `${taken.pieces} pieces were taken`);
  });

  it('is refused in words where it is no JSON, of another shape, or nested without end', async () => {
    assert.deepEqual(await refusalOf('{"a": 1}'), [200, '']);
    assert.deepEqual(await refusalOf('{"a": '), [400, 'The request is not JSON.']);
    assert.deepEqual(await refusalOf('{"a": "x"}'), [
      400,
      'The request cannot be used: a: a number is needed',
    ]);
    for (const open of ['[', '{"a":'])
      assert.match((await refusalOf(`{"a": 1, "b": ${open.repeat(1_000_000)}`))[1], /nested too deeply/);
    assert.deepEqual(await refusalOf(`{"a": 1, "b": "${'[{'.repeat(500)}\\"[["}`), [200, '']);
  });
});
