/** The list of studies, and adding one. */
import type { APIRoute } from 'astro';
import { problemText, readDocument } from '../../../core/document/read';
import { json, readBody, refuse } from '../../../server/respond';
import { studyCards } from '../../../server/study-cards';
import { store } from '../../../store/open';
import { addStudy } from '../../../store/studies';
import { StudyToAdd } from '../../../wire/studies';

/** The list, each with what is known of it by now. */
export const GET: APIRoute = () => json(studyCards(store()));

export const POST: APIRoute = async ({ request }) => {
  const read = await readBody(request, StudyToAdd);
  if (!read.ok) return read.response;
  const result = readDocument(read.body.document);
  if (!result.ok) {
    const problems = result.problems.map(problemText);
    return refuse(422, `This is not a questionnaire that can be used. ${problems[0] ?? ''}`, { problems });
  }
  const { id, revision, changedAt } = addStudy(store(), result.document, Date.now());
  return json({ id, revision, changedAt }, 201);
};
