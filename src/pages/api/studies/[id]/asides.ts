/** Snags of a study that were set aside. */
import { created, withStudy } from '../../../../server/with-study';
import { listAsides, putAside, removeAside } from '../../../../store/asides';
import { AsideToPut, AsideToTakeBack, type Aside } from '../../../../wire/asides';

export const GET = withStudy(({ db, id }): Aside[] => listAsides(db, id));

export const POST = withStudy(AsideToPut, ({ db, id, body, now, named }) => {
  const aside = { ...body, reviewer: named(body.reviewer), at: now };
  putAside(db, id, aside);
  return created(aside);
});

export const DELETE = withStudy(AsideToTakeBack, ({ db, id, body }) => {
  removeAside(db, id, body.snag);
  return {};
});
