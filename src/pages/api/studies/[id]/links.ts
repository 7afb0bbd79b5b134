/** Reviewers' links to a study: made and withdrawn by its authors. */
import type { APIRoute } from 'astro';
import * as v from 'valibot';
import { json, noSuchStudy, readBody, refuse } from '../../../../server/respond';
import { addLink, listLinks, withdrawLink } from '../../../../store/links';
import { store } from '../../../../store/open';
import { findStudy } from '../../../../store/studies';

const AddSchema = v.strictObject({
  name: v.pipe(v.string(), v.trim(), v.minLength(1, 'say whom the link is for'), v.maxLength(100)),
});
const WithdrawSchema = v.strictObject({ token: v.string() });

export const GET: APIRoute = ({ params }) => {
  const id = params.id ?? '';
  return findStudy(store(), id) === null ? noSuchStudy(id) : json(listLinks(store(), id));
};

export const POST: APIRoute = async ({ params, request }) => {
  const id = params.id ?? '';
  const read = await readBody(request, AddSchema);
  if (!read.ok) return read.response;
  if (findStudy(store(), id) === null) return noSuchStudy(id);
  return json(addLink(store(), id, read.body.name, Date.now()), 201);
};

export const DELETE: APIRoute = async ({ params, request }) => {
  const id = params.id ?? '';
  const read = await readBody(request, WithdrawSchema);
  if (!read.ok) return read.response;
  return withdrawLink(store(), id, read.body.token, Date.now())
    ? json({})
    : refuse(404, 'There is no such link, or it has been withdrawn already.');
};
