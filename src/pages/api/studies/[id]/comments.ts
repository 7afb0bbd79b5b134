/** Comments on places of a study. */
import { refuse } from '../../../../server/respond';
import { created, withStudy } from '../../../../server/with-study';
import { addComment, listComments, moveComments, settleComment } from '../../../../store/comments';
import { CommentChange, CommentToAdd, type Comment } from '../../../../wire/comments';

export const GET = withStudy(({ db, id }): Comment[] => listComments(db, id));

export const POST = withStudy(CommentToAdd, ({ db, id, body, now, named }) =>
  created(addComment(db, id, { ...body, author: named(body.author), at: now })),
);

export const PATCH = withStudy(CommentChange, ({ db, id, body, now, named }) => {
  if (body.what === 'move') {
    moveComments(db, id, body.from, body.to);
    return {};
  }
  const settled = body.by === null ? null : { by: named(body.by), at: now };
  return settleComment(db, id, body.id, settled) ?? refuse(404, 'This comment is gone.');
});
