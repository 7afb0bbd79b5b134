/** How the columns of collected files were matched last. */
import type { APIRoute } from 'astro';
import * as v from 'valibot';
import { json, noSuchStudy, readBody } from '../../../../server/respond';
import { findMatches, putMatches } from '../../../../store/matches';
import { store } from '../../../../store/open';
import { findStudy } from '../../../../store/studies';

const SaidSchema = v.strictObject({ said: v.record(v.string(), v.nullable(v.string())) });

export const GET: APIRoute = ({ params }) => {
  const id = params.id ?? '';
  return findStudy(store(), id) === null ? noSuchStudy(id) : json({ said: findMatches(store(), id) });
};

export const PUT: APIRoute = async ({ params, request }) => {
  const id = params.id ?? '';
  const read = await readBody(request, SaidSchema);
  if (!read.ok) return read.response;
  if (findStudy(store(), id) === null) return noSuchStudy(id);
  putMatches(store(), id, read.body.said);
  return json({});
};
