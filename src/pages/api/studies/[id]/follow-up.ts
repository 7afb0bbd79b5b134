/** The questionnaire that an ending of a study hands on to, to be walked in the same sitting. */
import { followUpOf } from '../../../../server/follow-up';
import { withStudy } from '../../../../server/with-study';

export const GET = withStudy(({ db, id, url }) => followUpOf(db, id, url.searchParams.get('ending')));
