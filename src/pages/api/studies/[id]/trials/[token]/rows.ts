/** Keeps the coded rows of a link with the study, for tables and files. */
import { keepRows, noSuchTrial, trialOf } from '../../../../../../server/trials';
import { withStudy } from '../../../../../../server/with-study';

export const POST = withStudy(({ db, id, params, now }) => {
  const trial = trialOf(db, id, params.token);
  return trial === null ? noSuchTrial() : keepRows(db, trial, now);
});
