/** The routes of a study that were drawn at random to be walked. */
import { withStudy } from '../../../../server/with-study';
import { findDraw, putDraw } from '../../../../store/draws';
import { DrawToMake, type Draw } from '../../../../wire/draw';

export const GET = withStudy(({ db, id }): Draw | null => findDraw(db, id));

export const PUT = withStudy(DrawToMake, ({ db, id, body, now }) => {
  const draw = { ...body, at: now };
  putDraw(db, id, draw);
  return draw;
});
