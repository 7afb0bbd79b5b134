/**
 * An example of what takes cases from stand-alone instruments: `node receiver.mjs FILE [PORT]`. Every case becomes a line of
 * FILE, once, however often it is sent. The contract is in instrument.md. Put it behind HTTPS before cases come from outside.
 */
import { appendFileSync, closeSync, existsSync, fsyncSync, openSync, readFileSync } from 'node:fs';
import { createServer } from 'node:http';

const [file = 'cases.jsonl', port = '4600'] = process.argv.slice(2);
const MOST_BYTES = 2_000_000;

/** Bodies taken, by the key of their case: a case that comes again is not written again. */
const taken = new Map();
const before = existsSync(file) ? readFileSync(file, 'utf8') : '';
// A line that was cut off was never answered: it comes again.
if (before !== '' && !before.endsWith('\n')) appendFileSync(file, '\n');
for (const line of before.split('\n')) {
  try {
    taken.set(JSON.parse(line).key, line);
  } catch {
    // Empty, or cut off.
  }
}

/** A page that was opened from a disk has no origin, so any may post. */
const HEADERS = {
  'Access-Control-Allow-Origin': '*',
  'Access-Control-Allow-Methods': 'POST',
  'Access-Control-Allow-Headers': 'Content-Type, Idempotency-Key',
  'Access-Control-Max-Age': '86400',
};

const server = createServer((request, response) => {
  const answer = (status, words = '') =>
    response.writeHead(status, { ...HEADERS, 'Content-Type': 'text/plain' }).end(words);
  if (request.method === 'OPTIONS') return answer(204);
  if (request.method !== 'POST') return answer(405, 'post a case here');
  const pieces = [];
  let bytes = 0;
  request.on('data', (piece) => {
    bytes += piece.length;
    if (bytes <= MOST_BYTES) pieces.push(piece);
  });
  request.on('end', () => {
    if (bytes > MOST_BYTES) return answer(413, 'too large for a case');
    let body;
    try {
      body = JSON.parse(Buffer.concat(pieces).toString('utf8'));
    } catch {
      return answer(400, 'not JSON');
    }
    if (body?.contract !== 'jolly-fork-case/1' || typeof body.key !== 'string')
      return answer(422, 'not a case');
    if (request.headers['idempotency-key'] !== body.key)
      return answer(422, 'the key is not that of the case');
    const line = JSON.stringify(body);
    const known = taken.get(body.key);
    if (known !== undefined)
      return known === line ? answer(200, 'taken before') : answer(409, 'taken, and other');
    // Answered only once it is on the disk: whoever sends it then forgets it.
    const open = openSync(file, 'a');
    appendFileSync(open, `${line}\n`);
    fsyncSync(open);
    closeSync(open);
    taken.set(body.key, line);
    answer(201, 'taken');
  });
});
server.listen(Number(port), '127.0.0.1', () =>
  console.log(`cases go to ${file}, from port ${server.address().port}`),
);
