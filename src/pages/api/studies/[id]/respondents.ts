/** Test respondents of a study: walks that are kept. */
import { created, withStudy } from '../../../../server/with-study';
import { listRespondents, putRespondent, removeRespondent } from '../../../../store/respondents';
import { RespondentToKeep, RespondentToRemove, type KeptRespondent } from '../../../../wire/respondents';

export const GET = withStudy(({ db, id }): KeptRespondent[] => listRespondents(db, id));

export const POST = withStudy(RespondentToKeep, ({ db, id, body, now }) => {
  const respondent = { ...body, at: now };
  putRespondent(db, id, respondent);
  return created(respondent);
});

export const DELETE = withStudy(RespondentToRemove, ({ db, id, body }) => {
  removeRespondent(db, id, body.name);
  return {};
});
