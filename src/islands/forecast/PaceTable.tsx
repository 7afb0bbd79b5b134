/** How fast respondents are taken to be: the study's own reading speed and seconds an act, or the usual ones. */
import { hasOwnPace, paceOf, USUAL_PACE, USUAL_SOURCE, type Pace } from '../../core/routing/pace';
import { editSettings } from '../../core/editing/structure';
import { useStudy } from '../state/store';
import fields from './fields.module.css';
import classes from './minutes.module.css';
import { NumberField } from './NumberField';
import { WordField } from './WordField';

const WORDS: Readonly<Record<keyof Pace, string>> = {
  words: 'words read a minute',
  single: 'seconds to choose one answer',
  pick: 'seconds for each of several picks',
  scale: 'seconds on a scale',
  number: 'seconds for a number or date',
  shortText: 'seconds for a short text',
  longText: 'seconds for a long text',
  gridRow: 'seconds for a row of a grid',
  rankPlace: 'seconds for a place of a rank',
};

export function PaceTable({ readOnly }: { readonly readOnly: boolean }) {
  const document = useStudy((state) => state.document);
  const commit = useStudy((state) => state.commit);
  const pace = paceOf(document);
  const isOwn = hasOwnPace(document);
  const source = document.settings?.pace?.source ?? '';
  const change = (edit: (own: Partial<Record<keyof Pace, number>> & { source?: string }) => void) =>
    commit(
      editSettings('Change how fast respondents are', (draft) => {
        const own = { ...draft.pace };
        edit(own);
        if (Object.keys(own).length === 0) delete draft.pace;
        else draft.pace = own;
      }),
    );
  return (
    <section aria-label="How fast respondents are">
      <h3>How fast respondents are</h3>
      <p className={classes.source}>
        {isOwn ? 'This study’s own. ' : `${USUAL_SOURCE}. `}
        {(isOwn || source !== '') && (
          <>
            Known from{' '}
            <WordField
              label="Source of the pace"
              placeholder="a pilot, timed …"
              value={source}
              readOnly={readOnly}
              keep={(text) =>
                change((own) => {
                  if (text === '') delete own.source;
                  else own.source = text;
                })
              }
            />
          </>
        )}
        {isOwn && !readOnly && (
          <button
            type="button"
            className={fields.act}
            onClick={() =>
              commit(
                editSettings('Take the usual pace', (draft) => {
                  delete draft.pace;
                }),
              )
            }
          >
            take the usual ones
          </button>
        )}
      </p>
      <ul className={classes.pace}>
        {(Object.keys(WORDS) as (keyof Pace)[]).map((key) => (
          <li key={key} data-own={pace[key] !== USUAL_PACE[key] || undefined}>
            <span>{WORDS[key]}</span>
            <i aria-hidden="true" />
            {readOnly ? (
              <b>{pace[key]}</b>
            ) : (
              <NumberField
                label={WORDS[key]}
                value={pace[key]}
                least={key === 'words' ? 1 : 0}
                most={key === 'words' ? 2000 : 600}
                decimals
                keep={(value) =>
                  change((own) => {
                    if (value === USUAL_PACE[key]) delete own[key];
                    else own[key] = value;
                  })
                }
              />
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
