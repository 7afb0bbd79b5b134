/** The responses behind a figure of the monitor; or one, by its id, to be walked again. */
import * as v from 'valibot';
import { responsesBehind, trailOf } from '../../../../../../server/monitor';
import { refuse } from '../../../../../../server/respond';
import { noSuchTrial, trialOf } from '../../../../../../server/trials';
import { withStudy } from '../../../../../../server/with-study';
import { BehindWantedSchema } from '../../../../../../wire/monitor';

export const GET = withStudy(async ({ db, id, params, url }) => {
  const trial = trialOf(db, id, params.token);
  if (trial === null) return noSuchTrial();
  const wanted = v.safeParse(BehindWantedSchema, Object.fromEntries(url.searchParams));
  if (!wanted.success)
    return refuse(
      400,
      'Ask for one response as ?id=, or for those behind a figure with ?picked= and &zone=.',
    );
  if ('id' in wanted.output)
    return trailOf(db, trial, wanted.output.id) ?? refuse(404, 'There is no such response under this link.');
  const { picked, ...watched } = wanted.output;
  return (
    (await responsesBehind(db, trial, watched, picked)) ??
    refuse(404, 'The link has no questionnaire of that number.')
  );
});
