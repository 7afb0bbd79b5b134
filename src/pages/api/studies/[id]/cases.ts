/** Paper forms keyed in: the list, keeping one as it stands, taking one away. */
import { withStudy } from '../../../../server/with-study';
import { findCase, listCases, putCase, removeCase } from '../../../../store/cases';
import { CaseToKeep, CaseToRemove, type KeyedCase } from '../../../../wire/cases';

export const GET = withStudy(({ db, id }): KeyedCase[] => listCases(db, id));

export const PUT = withStudy(CaseToKeep, ({ db, id, body, now, named }) => {
  const before = findCase(db, id, body.caseId, body.entry);
  const isSettledAnew = body.settledBy !== null && body.settledBy !== before?.settledBy;
  putCase(db, id, {
    ...body,
    // Whoever mends what another has keyed does not become the one who keyed it.
    keyedBy: before?.keyedBy ?? named(body.keyedBy),
    settledBy: isSettledAnew ? named(body.settledBy) : body.settledBy,
    at: now,
  });
  return { at: now };
});

export const DELETE = withStudy(CaseToRemove, ({ db, id, body }) => {
  removeCase(db, id, body.caseId, body.entry);
  return {};
});
