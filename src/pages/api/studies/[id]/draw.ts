/** The routes of a study that were drawn at random to be walked. */
import type { APIRoute } from 'astro';
import * as v from 'valibot';
import { json, noSuchStudy, readBody } from '../../../../server/respond';
import { findDraw, putDraw } from '../../../../store/draws';
import { store } from '../../../../store/open';
import { findStudy } from '../../../../store/studies';

const DrawSchema = v.strictObject({
  seed: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(1_000_000)),
  count: v.pipe(
    v.number(),
    v.integer(),
    v.minValue(1, 'draw at least one'),
    v.maxValue(500, 'draw at most 500'),
  ),
});

export const GET: APIRoute = ({ params }) => {
  const id = params.id ?? '';
  return findStudy(store(), id) === null ? noSuchStudy(id) : json(findDraw(store(), id));
};

export const PUT: APIRoute = async ({ params, request }) => {
  const id = params.id ?? '';
  const read = await readBody(request, DrawSchema);
  if (!read.ok) return read.response;
  if (findStudy(store(), id) === null) return noSuchStudy(id);
  const draw = { ...read.body, at: Date.now() };
  putDraw(store(), id, draw);
  return json(draw);
};
