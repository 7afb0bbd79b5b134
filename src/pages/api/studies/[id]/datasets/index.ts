/** Coded rows of a study that are kept: the list, adding some, taking some away. */
import type { APIRoute } from 'astro';
import * as v from 'valibot';
import { json, noSuchStudy, readBody, readBytes, refuse } from '../../../../../server/respond';
import { listDatasets, putDataset, removeDataset } from '../../../../../store/datasets';
import { store } from '../../../../../store/open';
import { packedProblem } from '../../../../../store/packed';
import { findStudy, revisionOf } from '../../../../../store/studies';

/** Packed. */
const MOST_BYTES = 50_000_000;

const AboutSchema = v.object({
  name: v.pipe(
    v.string('rows that are kept have a name'),
    v.trim(),
    v.minLength(1, 'rows that are kept have a name'),
    v.maxLength(200, 'the name has at most 200 characters'),
  ),
  rows: v.pipe(v.string('the number of rows is needed'), v.regex(/^\d{1,9}$/, 'the number of rows is needed'), v.transform(Number)), // prettier-ignore
});

export const GET: APIRoute = ({ params }) => {
  const id = params.id ?? '';
  return findStudy(store(), id) === null ? noSuchStudy(id) : json(listDatasets(store(), id));
};

/** The body is CSV packed by gzip; what it is called and how many rows it has stands in the address. */
export const POST: APIRoute = async ({ params, request, url }) => {
  const id = params.id ?? '';
  const about = v.safeParse(AboutSchema, Object.fromEntries(url.searchParams));
  if (!about.success) return refuse(400, `These rows cannot be kept: ${about.issues[0].message}.`);
  if (revisionOf(store(), id) === null) return noSuchStudy(id);
  const read = await readBytes(request, MOST_BYTES, 'Packed, these rows come to');
  if (!read.ok) return read.response;
  const body = Buffer.from(read.bytes);
  const problem = await packedProblem(body);
  if (problem !== null) return refuse(422, problem);
  putDataset(store(), id, { ...about.output, body, at: Date.now() });
  return json(listDatasets(store(), id), 201);
};

export const DELETE: APIRoute = async ({ params, request }) => {
  const id = params.id ?? '';
  const read = await readBody(request, v.strictObject({ id: v.string() }));
  if (!read.ok) return read.response;
  if (findStudy(store(), id) === null) return noSuchStudy(id);
  removeDataset(store(), id, read.body.id);
  return json(listDatasets(store(), id));
};
