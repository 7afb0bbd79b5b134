/** What was answered under a link: coded rows, or all that is kept, of one of its questionnaires. */
import * as v from 'valibot';
import { fileStem } from '../../../../../../core/document/names';
import { refuse, textToKeep } from '../../../../../../server/respond';
import { noSuchTrial, trialData, trialOf } from '../../../../../../server/trials';
import { withStudy } from '../../../../../../server/with-study';

const Wanted = v.object({
  as: v.picklist(['csv', 'json', 'rows']),
  questionnaire: v.optional(v.pipe(v.string(), v.regex(/^\d{1,3}$/), v.transform(Number)), '0'),
});

export const GET = withStudy(({ db, id, params, url, now }) => {
  const trial = trialOf(db, id, params.token);
  if (trial === null) return noSuchTrial();
  const wanted = v.safeParse(Wanted, Object.fromEntries(url.searchParams));
  const { as, questionnaire: number } = wanted.success ? wanted.output : { as: null, questionnaire: 0 };
  const data = as === null ? null : trialData(db, trial, { as, number }, now);
  if (as === null || data === null)
    return refuse(
      400,
      'Ask for the data as ?as=csv or ?as=json, with &questionnaire=1 for the first follow-up.',
    );
  const [type, ending] = as === 'json' ? ['application/json', 'json'] : ['text/csv', 'csv'];
  return textToKeep(type, `${fileStem(data.title)}-responses.${ending}`, data.text);
});
