/**
 * An example of what takes cases from stand-alone instruments: `node receiver.mjs FILE [PORT]`. Every case becomes a line of
 * FILE, once, however often it is sent. The contract is in instrument.md. Put it behind HTTPS before cases come from outside.
 */
import { appendFileSync, existsSync, fsyncSync, openSync, readFileSync } from 'node:fs';
import { createServer } from 'node:http';

const [file = 'cases.jsonl', port = '4600'] = process.argv.slice(2);
const MOST_LETTERS = 2_000_000;
/** A page that was opened from a disk has no origin, so any may post. */
const HEADERS = {
  'Access-Control-Allow-Origin': '*',
  'Access-Control-Allow-Headers': 'Content-Type, Idempotency-Key',
  'Content-Type': 'text/plain',
};

const parsed = (text) => {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
};

const before = existsSync(file) ? readFileSync(file, 'utf8') : '';
/** Lines taken, by the key of their case. One that was cut off was never answered: its case comes again. */
const taken = new Map(before.split('\n').map((line) => [parsed(line)?.key, line]));
const lines = openSync(file, 'a');
if (before !== '' && !before.endsWith('\n')) appendFileSync(lines, '\n');

/** The status and the words of the answer to a posted text. */
function answerTo(text, key) {
  const body = parsed(text);
  if (body?.contract !== 'jolly-fork-case/1' || typeof body.key !== 'string') return [422, 'not a case'];
  if (body.key !== key) return [422, 'the key is not that of the case'];
  const line = JSON.stringify(body);
  const known = taken.get(key);
  if (known !== undefined) return known === line ? [200, 'taken before'] : [409, 'taken, and other'];
  // Answered only once it is on the disk: whoever sends it then forgets it.
  appendFileSync(lines, `${line}\n`);
  fsyncSync(lines);
  taken.set(key, line);
  return [201, 'taken'];
}

const server = createServer((request, response) => {
  const answer = ([status, words]) => response.writeHead(status, HEADERS).end(words);
  if (request.method === 'OPTIONS') return answer([204]);
  if (request.method !== 'POST') return answer([405, 'post a case here']);
  let text = '';
  request.setEncoding('utf8').on('data', (piece) => (text += text.length > MOST_LETTERS ? '' : piece));
  request.on('end', () =>
    answer(
      text.length > MOST_LETTERS ? [413, 'too large'] : answerTo(text, request.headers['idempotency-key']),
    ),
  );
});
server.listen(Number(port), '127.0.0.1', () =>
  console.log(`cases go to ${file}, from port ${server.address().port}`),
);
