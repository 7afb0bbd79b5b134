/** Comments on places of a study. */
import { AddressSchema } from '../../../../core/document/addresses';
import type { APIRoute } from 'astro';
import * as v from 'valibot';
import { AddCommentSchema, inNameOf, Person } from '../../../../server/judging';
import { json, noSuchStudy, readBody, refuse } from '../../../../server/respond';
import { addComment, listComments, moveComments, settleComment } from '../../../../store/comments';
import { store } from '../../../../store/open';
import { findStudy } from '../../../../store/studies';

const ChangeSchema = v.variant('what', [
  v.strictObject({ what: v.literal('settle'), id: v.number(), by: v.nullable(Person) }),
  v.strictObject({ what: v.literal('move'), from: AddressSchema, to: AddressSchema }),
]);

export const GET: APIRoute = ({ params }) => {
  const id = params.id ?? '';
  return findStudy(store(), id) === null ? noSuchStudy(id) : json(listComments(store(), id));
};

export const POST: APIRoute = async ({ params, request, locals }) => {
  const id = params.id ?? '';
  const read = await readBody(request, AddCommentSchema);
  if (!read.ok) return read.response;
  if (findStudy(store(), id) === null) return noSuchStudy(id);
  const author = inNameOf(locals, read.body.author);
  return json(addComment(store(), id, { ...read.body, author, at: Date.now() }), 201);
};

export const PATCH: APIRoute = async ({ params, request, locals }) => {
  const id = params.id ?? '';
  const read = await readBody(request, ChangeSchema);
  if (!read.ok) return read.response;
  if (findStudy(store(), id) === null) return noSuchStudy(id);
  const { body } = read;
  if (body.what === 'move') {
    moveComments(store(), id, body.from, body.to);
    return json({});
  }
  const settled = body.by === null ? null : { by: inNameOf(locals, body.by), at: Date.now() };
  const comment = settleComment(store(), id, body.id, settled);
  return comment === null ? refuse(404, 'This comment is gone.') : json(comment);
};
