/** Versions of a study: the list, and keeping or freezing the study as it is. */
import { keepVersion } from '../../../../../server/keep-version';
import { withStudy } from '../../../../../server/with-study';
import { listVersions } from '../../../../../store/versions';
import { VersionToKeep } from '../../../../../wire/versions';

export const GET = withStudy(({ db, id }) => listVersions(db, id));

export const POST = withStudy(VersionToKeep, ({ db, id, body, now, named }) =>
  keepVersion(db, id, { ...body, author: named(body.author), at: now }),
);
