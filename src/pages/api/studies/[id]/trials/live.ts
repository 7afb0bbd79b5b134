/** Tells as it goes (server-sent events) how the made-up panels of a study stand. */
import { livePanels } from '../../../../../server/live';
import { withStudy } from '../../../../../server/with-study';

export const GET = withStudy(({ db, id, request }) => livePanels(db, id, request));
