/** The studies that one can hand on to, with what each takes of others; and having one take a value more. */
import { problemText, readDocument } from '../../../../core/document/read';
import type { Given } from '../../../../core/document/types';
import { noSuchStudy, refuse } from '../../../../server/respond';
import { withStudy } from '../../../../server/with-study';
import { otherStudies, takeGiven } from '../../../../store/follow-up';
import { findStudy } from '../../../../store/studies';
import { GivenToTake } from '../../../../wire/other-studies';

export const GET = withStudy(({ db, id }) => otherStudies(db, id));

export const POST = withStudy(GivenToTake, ({ db, id, body, now }) => {
  const other = findStudy(db, body.study);
  if (other === null) return noSuchStudy(body.study);
  // It is checked as a part of the questionnaire that is to take it.
  const known = other.document.given ?? [];
  const checked = readDocument({ ...other.document, given: [...known, body.given] });
  if (!checked.ok) return refuse(422, `Not added: ${checked.problems.map(problemText)[0] ?? ''}`);
  const given = checked.document.given?.at(-1) as Given;
  const taken = takeGiven(db, other.id, given, now);
  if (taken === null) return noSuchStudy(other.id);
  if (!taken.saved) return refuse(409, 'Not added: that study was changed at the same moment. Try again.');
  return otherStudies(db, id);
});
