/** Reviewers' links to a study: made and withdrawn by its authors. */
import { refuse } from '../../../../server/respond';
import { created, withStudy } from '../../../../server/with-study';
import { addLink, listLinks, withdrawLink } from '../../../../store/links';
import { LinkToMake, LinkToWithdraw, type Link } from '../../../../wire/links';

export const GET = withStudy(({ db, id }): Link[] => listLinks(db, id));

export const POST = withStudy(LinkToMake, ({ db, id, body, now }) =>
  created(addLink(db, id, body.name, now)),
);

export const DELETE = withStudy(LinkToWithdraw, ({ db, id, body, now }) =>
  withdrawLink(db, id, body.token, now)
    ? {}
    : refuse(404, 'There is no such link, or it has been withdrawn already.'),
);
