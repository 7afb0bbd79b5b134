/** The studies that one can hand on to, with what each takes of others; and having one take a value more. */
import type { APIRoute } from 'astro';
import * as v from 'valibot';
import { problemText, readDocument } from '../../../../core/document/read';
import type { Given } from '../../../../core/document/types';
import { json, noSuchStudy, readBody, refuse } from '../../../../server/respond';
import { otherStudies, takeGiven } from '../../../../store/follow-up';
import { store } from '../../../../store/open';
import { findStudy } from '../../../../store/studies';

const TakeSchema = v.strictObject({ study: v.string(), given: v.unknown() });

export const GET: APIRoute = ({ params }) => {
  const id = params.id ?? '';
  return findStudy(store(), id) === null ? noSuchStudy(id) : json(otherStudies(store(), id));
};

export const POST: APIRoute = async ({ params, request }) => {
  const id = params.id ?? '';
  const read = await readBody(request, TakeSchema);
  if (!read.ok) return read.response;
  const other = findStudy(store(), read.body.study);
  if (findStudy(store(), id) === null || other === null) return noSuchStudy(read.body.study);
  // It is checked as a part of the questionnaire that is to take it.
  const known = other.document.given ?? [];
  const checked = readDocument({ ...other.document, given: [...known, read.body.given] });
  if (!checked.ok) return refuse(422, `Not added: ${checked.problems.map(problemText)[0] ?? ''}`);
  const given = checked.document.given?.at(-1) as Given;
  const taken = takeGiven(store(), other.id, given, Date.now());
  if (taken === null) return noSuchStudy(other.id);
  if (!taken.saved) return refuse(409, 'Not added: that study was changed at the same moment. Try again.');
  return json(otherStudies(store(), id));
};
