/** Paper forms keyed in: the list, keeping one as it stands, taking one away. */
import type { APIRoute } from 'astro';
import * as v from 'valibot';
import { AnswersSchema } from '../../../../core/document/walked';
import { inNameOf } from '../../../../server/judging';
import { json, noSuchStudy, readBody } from '../../../../server/respond';
import { findCase, listCases, putCase, removeCase } from '../../../../store/cases';
import { store } from '../../../../store/open';
import { findStudy } from '../../../../store/studies';

const CaseId = v.pipe(
  v.string(),
  v.trim(),
  v.minLength(1, 'a case has a number or name of its own'),
  v.maxLength(60, 'the name of a case has at most 60 characters'),
);
const Person = v.pipe(
  v.string(),
  v.trim(),
  v.minLength(1, 'say who keys the form'),
  v.maxLength(100, 'the name has at most 100 characters'),
);
const Entry = v.picklist([1, 2], 'a case is keyed once or twice');
const CaseSchema = v.strictObject({
  caseId: CaseId,
  entry: Entry,
  keyedBy: Person,
  answers: AnswersSchema,
  settledBy: v.nullable(Person),
});

export const GET: APIRoute = ({ params }) => {
  const id = params.id ?? '';
  return findStudy(store(), id) === null ? noSuchStudy(id) : json(listCases(store(), id));
};

export const PUT: APIRoute = async ({ params, request, locals }) => {
  const id = params.id ?? '';
  const read = await readBody(request, CaseSchema);
  if (!read.ok) return read.response;
  if (findStudy(store(), id) === null) return noSuchStudy(id);
  const before = findCase(store(), id, read.body.caseId, read.body.entry);
  const keyed = {
    ...read.body,
    // Whoever mends what another has keyed does not become the one who keyed it.
    keyedBy: before?.keyedBy ?? inNameOf(locals, read.body.keyedBy),
    settledBy:
      read.body.settledBy === null || read.body.settledBy === before?.settledBy
        ? read.body.settledBy
        : inNameOf(locals, read.body.settledBy),
    at: Date.now(),
  };
  putCase(store(), id, keyed);
  return json({ at: keyed.at });
};

export const DELETE: APIRoute = async ({ params, request }) => {
  const id = params.id ?? '';
  const read = await readBody(request, v.strictObject({ caseId: CaseId, entry: Entry }));
  if (!read.ok) return read.response;
  if (findStudy(store(), id) === null) return noSuchStudy(id);
  removeCase(store(), id, read.body.caseId, read.body.entry);
  return json({});
};
