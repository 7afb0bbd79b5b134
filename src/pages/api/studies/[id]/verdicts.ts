/** Verdicts on a study's routes. */
import { fingerprint } from '../../../../core/routing/route-content';
import { refuse } from '../../../../server/respond';
import { created, withStudy } from '../../../../server/with-study';
import { listVerdicts, putVerdict, removeVerdict } from '../../../../store/verdicts';
import { VerdictToGive, VerdictToTakeBack, type Verdict } from '../../../../wire/verdicts';

export const GET = withStudy(({ db, id }): Verdict[] => listVerdicts(db, id));

export const POST = withStudy(VerdictToGive, ({ db, id, body, now, named }) => {
  if (fingerprint(body.marks) !== body.route)
    return refuse(400, 'The fingerprint is not that of the marks sent with it.');
  const verdict = { ...body, reviewer: named(body.reviewer), at: now };
  return created(putVerdict(db, id, verdict));
});

export const DELETE = withStudy(VerdictToTakeBack, ({ db, id, body }) => {
  removeVerdict(db, id, body.route);
  return {};
});
