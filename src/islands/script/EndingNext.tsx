/** Where an ending leads on to: nowhere, another questionnaire with answers carried along, or an address. */
import type { Draft } from 'immer';
import type { Ending } from '../../core/document/types';
import { editEnding } from '../../core/editing/structure';
import { useStudy } from '../study/store';
import { CheckedField } from './Fields';
import { fieldId } from './focus';
import classes from './sheet.module.css';

type Kind = 'nowhere' | 'questionnaire' | 'address';

export function EndingNext({ ending, at }: { readonly ending: Ending; readonly at: number }) {
  const commit = useStudy((state) => state.commit);
  const plan = useStudy((state) => state.plan);
  const { id, next } = ending;
  const kind: Kind = next === undefined ? 'nowhere' : 'url' in next ? 'address' : 'questionnaire';
  const set = (value: Ending['next']) =>
    commit(
      editEnding(at, 'next', `Lead on from ${id}`, (draft) => {
        if (value === undefined) delete draft.next;
        else draft.next = value as Draft<NonNullable<Ending['next']>>;
      }),
    );
  const choose = (to: Kind) =>
    set(
      to === 'nowhere'
        ? undefined
        : to === 'address'
          ? { url: 'https://example.org/' }
          : { questionnaire: 'follow-up', carry: [] },
    );
  const carried = next !== undefined && 'questionnaire' in next ? (next.carry ?? []) : [];
  const carry = (names: readonly string[]) =>
    next !== undefined && 'questionnaire' in next && set({ ...next, carry: names });
  const free = [...plan.variables.values()].filter(
    ({ name, kind: of }) => of !== 'whole-grid' && !carried.includes(name),
  );
  return (
    <div className={classes.limits}>
      <label>
        then on to{' '}
        <select
          className={classes.limit}
          data-field={fieldId('@ending', id, 'next')}
          aria-label={`Where ending ${id} leads on to`}
          value={kind}
          onChange={(event) => choose(event.target.value as Kind)}
        >
          <option value="nowhere">nowhere</option>
          <option value="questionnaire">another questionnaire</option>
          <option value="address">an address</option>
        </select>
      </label>
      {next !== undefined && 'url' in next && (
        <CheckedField
          field={fieldId('@ending', id, 'url')}
          label="Address to go to"
          className={classes.limit}
          value={next.url}
          size={34}
          take={(url) => set({ url: url.trim() })}
        />
      )}
      {next !== undefined && 'questionnaire' in next && (
        <>
          <CheckedField
            field={fieldId('@ending', id, 'questionnaire')}
            label="File or name of the questionnaire"
            className={classes.limit}
            value={next.questionnaire}
            size={22}
            take={(questionnaire) => set({ ...next, questionnaire: questionnaire.trim() })}
          />
          <span>carrying</span>
          {carried.map((name) => (
            <span key={name}>
              <code>{name}</code>
              <button
                type="button"
                className={classes.takeOut}
                aria-label={`Do not carry ${name}`}
                onClick={() => carry(carried.filter((other) => other !== name))}
              >
                ×
              </button>
            </span>
          ))}
          <select
            className={classes.limit}
            aria-label="Carry an answer along"
            value=""
            onChange={(event) => carry([...carried, event.target.value])}
          >
            <option value="" disabled>
              {carried.length === 0 ? 'nothing' : 'and …'}
            </option>
            {free.map(({ name }) => (
              <option key={name}>{name}</option>
            ))}
          </select>
        </>
      )}
    </div>
  );
}
