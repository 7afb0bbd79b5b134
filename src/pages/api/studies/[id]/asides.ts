/** Snags of a study that were set aside. */
import type { APIRoute } from 'astro';
import * as v from 'valibot';
import { inNameOf } from '../../../../server/judging';
import { json, noSuchStudy, readBody } from '../../../../server/respond';
import { listAsides, putAside, removeAside } from '../../../../store/asides';
import { store } from '../../../../store/open';
import { findStudy } from '../../../../store/studies';

const Snag = v.pipe(v.string(), v.minLength(1), v.maxLength(2000));
const AsideSchema = v.strictObject({
  snag: Snag,
  reason: v.pipe(
    v.string(),
    v.trim(),
    v.minLength(1, 'a reason is needed'),
    v.maxLength(500, 'a reason has at most 500 characters'),
  ),
  reviewer: v.pipe(v.string(), v.trim(), v.minLength(1, 'a name is needed'), v.maxLength(100)),
});
const BackSchema = v.strictObject({ snag: Snag });

export const GET: APIRoute = ({ params }) => {
  const id = params.id ?? '';
  return findStudy(store(), id) === null ? noSuchStudy(id) : json(listAsides(store(), id));
};

export const POST: APIRoute = async ({ params, request, locals }) => {
  const id = params.id ?? '';
  const read = await readBody(request, AsideSchema);
  if (!read.ok) return read.response;
  if (findStudy(store(), id) === null) return noSuchStudy(id);
  const reviewer = inNameOf(locals, read.body.reviewer);
  const aside = { ...read.body, reviewer, at: Date.now() };
  putAside(store(), id, aside);
  return json(aside, 201);
};

export const DELETE: APIRoute = async ({ params, request }) => {
  const id = params.id ?? '';
  const read = await readBody(request, BackSchema);
  if (!read.ok) return read.response;
  if (findStudy(store(), id) === null) return noSuchStudy(id);
  removeAside(store(), id, read.body.snag);
  return json({});
};
