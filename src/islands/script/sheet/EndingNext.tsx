/** Where an ending leads on to: nowhere, another questionnaire with answers carried along, or an address. */
import type { Draft } from 'immer';
import { fieldId } from '../../../core/document/addresses';
import type { Ending } from '../../../core/document/types';
import { editEnding } from '../../../core/editing/structure';
import { carriable, studyName, type OtherStudy } from '../../../core/snags/hand-off';
import { CheckedField } from '../../fields/Fields';
import { useStudy } from '../../state/store';
import { ChoiceField } from '../../fields/ChoiceField';
import limitsClasses from '../item/limits.module.css';
import { HandOn, type HandedOn } from './HandOn';

const NONE: readonly OtherStudy[] = [];

const KINDS = [
  ['nowhere', 'nowhere'],
  ['questionnaire', 'another questionnaire'],
  ['address', 'an address'],
] as const;
type Kind = (typeof KINDS)[number][0];

export function EndingNext({ ending, at }: { readonly ending: Ending; readonly at: number }) {
  const commit = useStudy((state) => state.commit);
  const plan = useStudy((state) => state.plan);
  const others = useStudy((state) => state.others) ?? NONE;
  const { id, next } = ending;
  const kind: Kind = next === undefined ? 'nowhere' : 'url' in next ? 'address' : 'questionnaire';
  const set = (value: Ending['next']) =>
    commit(
      editEnding(at, 'next', `Lead on from ${id}`, (draft) => {
        if (value === undefined) delete draft.next;
        else draft.next = value as Draft<NonNullable<Ending['next']>>;
      }),
    );
  /** Another study, with what it takes of the same name and codes. */
  const handOnTo = (study: OtherStudy | undefined): HandedOn =>
    study === undefined
      ? { questionnaire: 'follow-up', carry: [] }
      : { questionnaire: studyName(others, study), carry: carriable(plan, study) };
  const choose = (to: Kind) => {
    if (to === 'nowhere') set(undefined);
    else set(to === 'address' ? { url: 'https://example.org/' } : handOnTo(others[0]));
  };
  return (
    <div className={limitsClasses.limits}>
      <label>
        then on to{' '}
        <ChoiceField
          className={limitsClasses.limit}
          field={fieldId('@ending', id, 'next')}
          label={`Where ending ${id} leads on to`}
          value={kind}
          choices={KINDS}
          choose={choose}
        />
      </label>
      {next !== undefined && 'url' in next && (
        <CheckedField
          field={fieldId('@ending', id, 'url')}
          label="Address to go to"
          className={limitsClasses.limit}
          value={next.url}
          size={34}
          take={(url) => set({ url: url.trim() })}
        />
      )}
      {next !== undefined && 'questionnaire' in next && (
        <HandOn id={id} next={next} others={others} handOnTo={handOnTo} set={set} />
      )}
    </div>
  );
}
