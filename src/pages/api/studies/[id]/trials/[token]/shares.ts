/** Shares that were seen under a link, to be taken as assumptions. */
import { noSuchTrial, trialOf, trialShares } from '../../../../../../server/trials';
import { withStudy } from '../../../../../../server/with-study';

export const GET = withStudy(({ db, id, params, now }) => {
  const trial = trialOf(db, id, params.token);
  return trial === null ? noSuchTrial() : trialShares(db, trial, now);
});
