/** Where an ending leads on to: nowhere, another questionnaire with answers carried along, or an address. */
import type { Draft } from 'immer';
import { useState } from 'react';
import { fieldId } from '../../../core/document/addresses';
import type { Ending } from '../../../core/document/types';
import { editEnding } from '../../../core/editing/structure';
import { carriable, givenLike, namedStudy, studyName, type OtherStudy } from '../../../core/snags/hand-off';
import { OtherStudiesSchema } from '../../../wire/other-studies';
import { useStudy } from '../../state/store';
import { call } from '../../ui/api';
import { CheckedField } from '../../fields/Fields';
import answersClasses from '../item/answers.module.css';
import detailsClasses from '../item/details.module.css';
import limitsClasses from '../item/limits.module.css';

const NONE: readonly OtherStudy[] = [];

type Kind = 'nowhere' | 'questionnaire' | 'address';

export function EndingNext({ ending, at }: { readonly ending: Ending; readonly at: number }) {
  const commit = useStudy((state) => state.commit);
  const plan = useStudy((state) => state.plan);
  const others = useStudy((state) => state.others) ?? NONE;
  const setOthers = useStudy((state) => state.setOthers);
  const api = useStudy((state) => state.api);
  const [problem, setProblem] = useState<string | null>(null);
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
          : handOnTo(others[0] ?? null),
    );
  /** Another study, with what it takes of the same name and codes. */
  const handOnTo = (study: OtherStudy | null) =>
    study === null
      ? { questionnaire: 'follow-up', carry: [] }
      : { questionnaire: studyName(others, study), carry: carriable(plan, study) };
  const carried = next !== undefined && 'questionnaire' in next ? (next.carry ?? []) : [];
  const named = next !== undefined && 'questionnaire' in next ? next.questionnaire : '';
  const to = namedStudy(others, named);
  const untaken = to === null ? [] : carried.filter((name) => !to.given.some((each) => each.name === name));
  const takeThere = async (name: string) => {
    const given = givenLike(plan, name);
    if (given === null || to === null) {
      setProblem(`${name} is no answer that can be carried: derived values and grids as a whole are not.`);
      return;
    }
    const reply = await call(OtherStudiesSchema, 'POST', `${api}/others`, { study: to.id, given });
    setProblem(reply.ok ? null : reply.problem);
    if (reply.ok) setOthers(reply.body);
  };
  const carry = (names: readonly string[]) =>
    next !== undefined && 'questionnaire' in next && set({ ...next, carry: names });
  const free = [...plan.variables.values()].filter(
    ({ name, kind: of }) => of !== 'whole-grid' && !carried.includes(name),
  );
  return (
    <div className={limitsClasses.limits}>
      <label>
        then on to{' '}
        <select
          className={limitsClasses.limit}
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
          className={limitsClasses.limit}
          value={next.url}
          size={34}
          take={(url) => set({ url: url.trim() })}
        />
      )}
      {next !== undefined && 'questionnaire' in next && (
        <>
          {others.length > 0 && (
            <select
              className={limitsClasses.limit}
              aria-label="Study to hand on to"
              value={to?.id ?? ''}
              onChange={(event) => {
                const study = others.find((each) => each.id === event.target.value);
                if (study !== undefined) set(handOnTo(study));
              }}
            >
              <option value="" disabled>
                choose a study
              </option>
              {others.map((study) => (
                <option key={study.id} value={study.id}>
                  {study.title}
                </option>
              ))}
            </select>
          )}
          <CheckedField
            field={fieldId('@ending', id, 'questionnaire')}
            label="File or name of the questionnaire"
            className={limitsClasses.limit}
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
                className={answersClasses.takeOut}
                aria-label={`Do not carry ${name}`}
                onClick={() => carry(carried.filter((other) => other !== name))}
              >
                ×
              </button>
            </span>
          ))}
          <select
            className={limitsClasses.limit}
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
          {untaken.map((name) => (
            <button key={name} type="button" onClick={() => void takeThere(name)}>
              Have “{to?.title}” take {name}
            </button>
          ))}
          {problem !== null && (
            <span role="alert" className={detailsClasses.wrong}>
              {problem}
            </span>
          )}
        </>
      )}
    </div>
  );
}
