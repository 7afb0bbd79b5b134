/** Text on its way to phones: in the smallest form that a browser takes, and once compressed kept where it is the same every time. */
import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { it } from 'node:test';
import { brotliDecompressSync, gunzipSync } from 'node:zlib';
import { compressed } from './compressed';

const text = 'The same words again and again. '.repeat(200);
const asking = (accepted?: string) =>
  new Request('http://localhost/', {
    headers: accepted === undefined ? {} : { 'accept-encoding': accepted },
  });
const bytesOf = async (reply: Response) => Buffer.from(await reply.arrayBuffer());
const headers = { 'Content-Type': 'text/plain' };

it('takes the best that the browser names, and leaves the rest of the answer as it is', async () => {
  const cases = [
    ['gzip, deflate, br', 'br', brotliDecompressSync],
    ['gzip', 'gzip', gunzipSync],
    ['deflate', null, (bytes: Buffer) => bytes],
    [undefined, null, (bytes: Buffer) => bytes],
    // Part of a longer word is another encoding.
    ['brx, xgzip', null, (bytes: Buffer) => bytes],
  ] as const;
  for (const [accepted, encoding, read] of cases)
    for (const keepAs of [null, `kept for ${accepted}`]) {
      const reply = compressed(asking(accepted), text, { status: 201, headers }, keepAs);
      assert.deepEqual(
        [reply.status, reply.headers.get('content-encoding'), reply.headers.get('vary')],
        [201, encoding, 'Accept-Encoding'],
      );
      assert.equal(reply.headers.get('content-type'), 'text/plain');
      const bytes = await bytesOf(reply);
      assert.equal(read(bytes).toString(), text);
      assert.equal(bytes.length < text.length / 10, encoding !== null);
    }
});

it('keeps what has a name, by encoding, and nothing else', async () => {
  const read = async (accepted: string, of: string, keepAs: string | null) => {
    const bytes = await bytesOf(compressed(asking(accepted), of, { headers }, keepAs));
    return (accepted === 'br' ? brotliDecompressSync : gunzipSync)(bytes).toString();
  };
  assert.equal(await read('br', 'first', 'page'), 'first');
  assert.equal(await read('br', 'second', 'page'), 'first');
  assert.equal(await read('br', 'second', 'another page'), 'second');
  assert.equal(await read('gzip', 'third', 'page'), 'third');
  assert.equal(await read('br', 'fourth', null), 'fourth');
});

it('is smaller where it is kept', async () => {
  const words = readFileSync('demo/tern-valley-home-heating.fork.json', 'utf8');
  for (const encoding of ['br', 'gzip']) {
    const [soon, small] = await Promise.all(
      [null, `small ${encoding}`].map(
        async (keepAs) => (await bytesOf(compressed(asking(encoding), words, { headers }, keepAs))).length,
      ),
    );
    assert.ok((small ?? 0) < (soon ?? 0), `${encoding}: ${small} of ${soon}`);
  }
});
