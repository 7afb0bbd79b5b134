/** Links for respondents: the list, making one, and opening, pausing, closing or extending one. */
import { makeTrial, settleTrial, trialCards } from '../../../../../server/trials';
import { withStudy } from '../../../../../server/with-study';
import { TrialToChange, TrialToMake } from '../../../../../wire/trials';

export const GET = withStudy(({ db, id, now }) => trialCards(db, id, now));

export const POST = withStudy(TrialToMake, ({ db, id, body, now }) => makeTrial(db, id, body, now));

export const PATCH = withStudy(TrialToChange, ({ db, id, body, now }) => settleTrial(db, id, body, now));
