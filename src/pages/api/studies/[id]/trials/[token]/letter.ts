/** A letter of the outbox of a made-up panel, as its member got it. */
import * as v from 'valibot';
import { refuse } from '../../../../../../server/respond';
import { noSuchTrial, trialOf } from '../../../../../../server/trials';
import { withStudy } from '../../../../../../server/with-study';
import { letterOf } from '../../../../../../store/panels';
import { LetterWanted } from '../../../../../../wire/panels';

export const GET = withStudy(({ db, id, params, url }) => {
  const trial = trialOf(db, id, params.token);
  if (trial === null) return noSuchTrial();
  const wanted = v.safeParse(LetterWanted, Object.fromEntries(url.searchParams));
  if (!wanted.success)
    return refuse(400, 'Ask for a letter by ?kind=invitation&at=MOMENT and &place=0, or &name=NAME.');
  const found = letterOf(db, trial.token, wanted.output, wanted.output);
  if (found === null) return refuse(404, 'Nobody of that name got this letter.');
  const { kind, at, name: to, place, subject, text, person } = found;
  return { kind, at, to, place, subject, text, link: `/answer/${trial.token}/${person}` };
});
