/** People who are each sent a link of their own: added from a CSV file, and listed with the keys of their links. */
import { noSuchTrial, takePeople, trialOf } from '../../../../../../server/trials';
import { withStudy } from '../../../../../../server/with-study';
import { listPeople } from '../../../../../../store/people';
import { PeopleToAdd } from '../../../../../../wire/trials';

export const POST = withStudy(PeopleToAdd, ({ db, id, params, body, now }) => {
  const trial = trialOf(db, id, params.token);
  return trial === null ? noSuchTrial() : takePeople(db, trial, body, now);
});

/** Who they are, and the keys of their links. */
export const GET = withStudy(({ db, id, params }) => {
  const trial = trialOf(db, id, params.token);
  return trial === null ? noSuchTrial() : listPeople(db, trial.token).map(({ name, key }) => ({ name, key }));
});
