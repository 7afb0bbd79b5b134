/** Verdicts on a study's routes. */
import type { APIRoute } from 'astro';
import * as v from 'valibot';
import { fingerprint } from '../../../../core/routing/route-content';
import { Fingerprint, inNameOf, VerdictSchema } from '../../../../server/judging';
import { json, noSuchStudy, readBody, refuse } from '../../../../server/respond';
import { store } from '../../../../store/open';
import { findStudy } from '../../../../store/studies';
import { listVerdicts, putVerdict, removeVerdict } from '../../../../store/verdicts';

const BackSchema = v.strictObject({ route: Fingerprint });

export const GET: APIRoute = ({ params }) => {
  const id = params.id ?? '';
  return findStudy(store(), id) === null ? noSuchStudy(id) : json(listVerdicts(store(), id));
};

export const POST: APIRoute = async ({ params, request, locals }) => {
  const id = params.id ?? '';
  const read = await readBody(request, VerdictSchema);
  if (!read.ok) return read.response;
  if (findStudy(store(), id) === null) return noSuchStudy(id);
  if (fingerprint(read.body.marks) !== read.body.route)
    return refuse(400, 'The fingerprint is not that of the marks sent with it.');
  const reviewer = inNameOf(locals, read.body.reviewer);
  const verdict = { ...read.body, reviewer, at: Date.now() };
  putVerdict(store(), id, verdict);
  return json(verdict, 201);
};

export const DELETE: APIRoute = async ({ params, request }) => {
  const id = params.id ?? '';
  const read = await readBody(request, BackSchema);
  if (!read.ok) return read.response;
  if (findStudy(store(), id) === null) return noSuchStudy(id);
  removeVerdict(store(), id, read.body.route);
  return json({});
};
