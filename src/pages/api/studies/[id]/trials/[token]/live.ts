/** Tells as it goes (server-sent events) how a made-up panel stands. */
import { livePanel } from '../../../../../../server/live';
import { noSuchTrial, trialOf } from '../../../../../../server/trials';
import { withStudy } from '../../../../../../server/with-study';

export const GET = withStudy(({ db, id, params, request }) => {
  const trial = trialOf(db, id, params.token);
  return trial === null ? noSuchTrial() : livePanel(db, trial.token, request.signal);
});
