/** Adds a study from a `.zip` that holds the work done on it too. The body is the file. */
import type { APIRoute } from 'astro';
import { readWork } from '../../../core/exchange/work-file';
import { json, readBytes, refuse } from '../../../server/respond';
import { store } from '../../../store/open';
import { addWork } from '../../../store/work';

/** In bytes, packed. */
const MOST_BYTES = 20_000_000;

export const POST: APIRoute = async ({ request }) => {
  const body = await readBytes(request, MOST_BYTES, 'The file holds');
  if (!body.ok) return body.response;
  const read = readWork(body.bytes);
  if (!read.ok) return refuse(422, read.problem);
  const { id, revision, changedAt } = addWork(store(), read.document, read.work, Date.now());
  return json({ id, revision, changedAt }, 201);
};
