/** People who are each sent a link of their own: added from a CSV file, and given back with their links. */
import { csvLines } from '../../../../../../core/exchange/csv';
import { fileStem } from '../../../../../../core/document/names';
import { textToKeep } from '../../../../../../server/respond';
import { noSuchTrial, takePeople, trialOf } from '../../../../../../server/trials';
import { withStudy } from '../../../../../../server/with-study';
import { listPeople } from '../../../../../../store/people';
import { PeopleToAdd } from '../../../../../../wire/trials';

export const POST = withStudy(PeopleToAdd, ({ db, id, params, body, now }) => {
  const trial = trialOf(db, id, params.token);
  return trial === null ? noSuchTrial() : takePeople(db, trial, body, now);
});

/** A line for each: who it is, and the address to send them. */
export const GET = withStudy(({ db, id, params, url }) => {
  const trial = trialOf(db, id, params.token);
  if (trial === null) return noSuchTrial();
  const rows = listPeople(db, trial.token).map(({ name, key }) => [
    name,
    `${url.origin}/answer/${trial.token}/${key}`,
  ]);
  return textToKeep('text/csv', `${fileStem(trial.name)}-links.csv`, csvLines([['person', 'link'], ...rows]));
});
