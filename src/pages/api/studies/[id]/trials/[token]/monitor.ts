/** Tells as it goes (server-sent events) how a link stands: who has come to what, and where people leave. */
import * as v from 'valibot';
import { watchTrial } from '../../../../../../server/monitor';
import { refuse } from '../../../../../../server/respond';
import { noSuchTrial, trialOf } from '../../../../../../server/trials';
import { withStudy } from '../../../../../../server/with-study';
import { WatchedSchema } from '../../../../../../wire/monitor';

export const GET = withStudy(({ db, id, params, url, request }) => {
  const trial = trialOf(db, id, params.token);
  if (trial === null) return noSuchTrial();
  const watched = v.safeParse(WatchedSchema, Object.fromEntries(url.searchParams));
  const stream = watched.success ? watchTrial(db, trial, watched.output, request) : null;
  return (
    stream ??
    refuse(400, 'Ask with ?zone=Europe/London for the days, and &questionnaire=1 for the first follow-up.')
  );
});
