/** A made-up panel: how it stands, letting it run and rest, and settling it anew. */
import { changePanelBy, noSuchPanel, panelCard } from '../../../../../../server/panels';
import { noSuchTrial, trialOf } from '../../../../../../server/trials';
import { withStudy } from '../../../../../../server/with-study';
import { PanelToChange } from '../../../../../../wire/panels';

export const GET = withStudy(({ db, id, params }) => {
  const trial = trialOf(db, id, params.token);
  return trial === null ? noSuchTrial() : (panelCard(db, trial.token) ?? noSuchPanel());
});

export const PATCH = withStudy(PanelToChange, ({ db, id, params, body }) => {
  const trial = trialOf(db, id, params.token);
  return trial === null ? noSuchTrial() : changePanelBy(db, trial, body);
});
