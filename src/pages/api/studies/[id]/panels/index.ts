/** Making up a panel: a link with a sample, whose members answer by themselves. */
import { makePanel } from '../../../../../server/panels';
import { withStudy } from '../../../../../server/with-study';
import { PanelToMake } from '../../../../../wire/panels';

export const POST = withStudy(PanelToMake, ({ db, id, body, now }) => makePanel(db, id, body, now));
