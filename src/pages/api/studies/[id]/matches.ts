/** How the columns of collected files were matched last. */
import { withStudy } from '../../../../server/with-study';
import { findMatches, putMatches } from '../../../../store/matches';
import { SaidMatchesSchema } from '../../../../wire/matches';

export const GET = withStudy(({ db, id }) => ({ said: findMatches(db, id) }));

export const PUT = withStudy(SaidMatchesSchema, ({ db, id, body }) => {
  putMatches(db, id, body.said);
  return {};
});
