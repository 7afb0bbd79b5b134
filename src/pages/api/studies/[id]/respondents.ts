/** Test respondents of a study: walks that are kept. */
import type { APIRoute } from 'astro';
import * as v from 'valibot';
import { WalkedSchema } from '../../../../core/document/walked';
import { json, noSuchStudy, readBody } from '../../../../server/respond';
import { store } from '../../../../store/open';
import { listRespondents, putRespondent, removeRespondent } from '../../../../store/respondents';
import { findStudy } from '../../../../store/studies';

const Name = v.pipe(
  v.string(),
  v.trim(),
  v.minLength(1, 'a test respondent has a name'),
  v.maxLength(100, 'the name has at most 100 characters'),
);
const RespondentSchema = v.strictObject({
  name: Name,
  walked: WalkedSchema,
  items: v.array(v.string()),
  marks: v.array(v.string()),
  row: v.record(v.string(), v.union([v.number(), v.string()])),
});

export const GET: APIRoute = ({ params }) => {
  const id = params.id ?? '';
  return findStudy(store(), id) === null ? noSuchStudy(id) : json(listRespondents(store(), id));
};

export const POST: APIRoute = async ({ params, request }) => {
  const id = params.id ?? '';
  const read = await readBody(request, RespondentSchema);
  if (!read.ok) return read.response;
  if (findStudy(store(), id) === null) return noSuchStudy(id);
  const respondent = { ...read.body, at: Date.now() };
  putRespondent(store(), id, respondent);
  return json(respondent, 201);
};

export const DELETE: APIRoute = async ({ params, request }) => {
  const id = params.id ?? '';
  const read = await readBody(request, v.strictObject({ name: Name }));
  if (!read.ok) return read.response;
  if (findStudy(store(), id) === null) return noSuchStudy(id);
  removeRespondent(store(), id, read.body.name);
  return json({});
};
