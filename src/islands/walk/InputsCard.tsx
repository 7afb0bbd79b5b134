/** What a walk is given besides answers: values known beforehand, full quotas, and the seed of its draws. */
import type { Plan } from '../../core/routing/plan';
import type { Session, WalkInputs } from '../../core/responding/session';
import { GivenField } from '../answering/GivenField';
import classes from './cards.module.css';

interface Props {
  readonly plan: Plan;
  readonly session: Session;
  /** A followed route brings its own. */
  readonly free: boolean;
}

export function InputsCard({ plan, session, free }: Props) {
  const { inputs, setInputs } = session;
  const given = plan.document.given ?? [];
  const quotas = plan.document.quotas ?? [];
  const draws =
    plan.sections.some(
      ({ section, items }) =>
        section.draw !== undefined ||
        section.shuffle === true ||
        items.some(
          ({ item }) =>
            item.kind === 'question' &&
            'shuffleOptions' in item.answer &&
            item.answer.shuffleOptions === true,
        ),
    ) || given.some(({ random }) => random);
  if (!free || (given.length === 0 && quotas.length === 0 && !draws)) return null;
  const set = (part: Partial<WalkInputs>) => setInputs({ ...inputs, ...part });
  const full = inputs.full ?? [];
  return (
    <>
      <h2>Before the start</h2>
      <div className={classes.card}>
        {given.map((entry) => (
          <label key={entry.name} className={classes.input}>
            {entry.label}
            <GivenField
              given={entry}
              value={inputs.given?.[entry.name] ?? null}
              change={(value) => set({ given: { ...inputs.given, [entry.name]: value } })}
            />
          </label>
        ))}
        {quotas.map(({ id, label }) => (
          <label key={id} className={classes.input}>
            {label} is full
            <input
              type="checkbox"
              checked={full.includes(id)}
              onChange={(event) =>
                set({ full: event.target.checked ? [...full, id] : full.filter((other) => other !== id) })
              }
            />
          </label>
        ))}
        {quotas.length > 0 && (
          <p className={classes.input}>
            <button
              type="button"
              onClick={() => set({ full: quotas.map(({ id }) => id).filter(() => Math.random() < 0.5) })}
            >
              Fill quotas at random
            </button>
          </p>
        )}
        {draws && (
          <p className={classes.input}>
            <label>
              Chance by seed{' '}
              <input
                type="text"
                inputMode="numeric"
                size={7}
                value={inputs.seed}
                onChange={(event) => {
                  const seed = Number(event.target.value.replace(/\D/g, '').slice(0, 7));
                  set({ seed: Math.max(1, seed) });
                }}
              />
            </label>
            <button type="button" onClick={() => set({ seed: inputs.seed + 1 })}>
              Draw again
            </button>
          </p>
        )}
      </div>
    </>
  );
}
