/** Another questionnaire that an ending hands on to: which it is, and the answers that are carried along. */
import { useState } from 'react';
import { fieldId } from '../../../core/document/addresses';
import type { Ending } from '../../../core/document/types';
import { givenLike, namedStudy, type OtherStudy } from '../../../core/snags/hand-off';
import { OtherStudiesSchema } from '../../../wire/other-studies';
import { CheckedField } from '../../fields/Fields';
import { useStudy } from '../../state/store';
import { call } from '../../ui/api';
import { ChoiceField } from '../../fields/ChoiceField';
import { Problem } from '../../ui/Problem';
import answersClasses from '../item/answers.module.css';
import detailsClasses from '../item/details.module.css';
import limitsClasses from '../item/limits.module.css';

export type HandedOn = Extract<NonNullable<Ending['next']>, { readonly questionnaire: string }>;

interface Props {
  /** Of the ending. */
  readonly id: string;
  readonly next: HandedOn;
  readonly others: readonly OtherStudy[];
  readonly handOnTo: (study: OtherStudy | undefined) => HandedOn;
  /** Why it is refused, as a sentence; null where it is taken. */
  readonly set: (next: HandedOn) => string | null;
}

export function HandOn({ id, next, others, handOnTo, set }: Props) {
  const to = namedStudy(others, next.questionnaire);
  return (
    <>
      {others.length > 0 && (
        <ChoiceField
          className={limitsClasses.limit}
          label="Study to hand on to"
          value={to?.id ?? ''}
          none="choose a study"
          choices={others.map((study) => [study.id, study.title] as const)}
          choose={(id) => set(handOnTo(others.find((each) => each.id === id)))}
        />
      )}
      <CheckedField
        field={fieldId('@ending', id, 'questionnaire')}
        label="File or name of the questionnaire"
        className={limitsClasses.limit}
        value={next.questionnaire}
        size={22}
        take={(questionnaire) => set({ ...next, questionnaire: questionnaire.trim() })}
      />
      <Carried next={next} to={to} carry={(names) => set({ ...next, carry: names })} />
    </>
  );
}

interface CarriedProps {
  readonly next: HandedOn;
  readonly to: OtherStudy | null;
  readonly carry: (names: readonly string[]) => void;
}

function Carried({ next, to, carry }: CarriedProps) {
  const plan = useStudy((state) => state.plan);
  const setOthers = useStudy((state) => state.setOthers);
  const api = useStudy((state) => state.api);
  const [problem, setProblem] = useState<string | null>(null);
  const carried = next.carry ?? [];
  const untaken = to === null ? [] : carried.filter((name) => !to.given.some((each) => each.name === name));
  const free = [...plan.variables.values()].filter(
    ({ name, kind }) => kind !== 'whole-grid' && !carried.includes(name),
  );
  /** Has the other study know it beforehand. */
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
  return (
    <>
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
      <ChoiceField
        className={limitsClasses.limit}
        label="Carry an answer along"
        value=""
        none={carried.length === 0 ? 'nothing' : 'and …'}
        choices={free.map(({ name }) => [name, name] as const)}
        choose={(name) => carry([...carried, name])}
      />
      {untaken.map((name) => (
        <button key={name} type="button" onClick={() => void takeThere(name)}>
          Have “{to?.title}” take {name}
        </button>
      ))}
      <Problem of={problem} as="span" className={detailsClasses.wrong} />
    </>
  );
}
