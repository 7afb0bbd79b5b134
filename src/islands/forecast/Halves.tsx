/** Fewer are asked: an item, or the block it stands in, of a random half; or the block cut in two. Written into the script. */
import { useMemo, useState } from 'react';
import type { Expected } from '../../core/forecast/forecast';
import { askInHalves, askOfHalf, cutOf } from '../../core/editing/split-sample';
import type { Change } from '../../core/editing/change';
import { secondsOf } from '../../core/routing/burden';
import { paceOf } from '../../core/routing/pace';
import { useStudy } from '../state/store';
import { plural } from '../ui/format';
import primitives from '../ui/primitives.module.css';
import { countOf, hoursText } from './figures';
import classes from './selected.module.css';

interface Props {
  readonly name: string;
  readonly row: Expected;
}

export function Halves({ name, row }: Props) {
  const document = useStudy((state) => state.document);
  const plan = useStudy((state) => state.plan);
  const commit = useStudy((state) => state.commit);
  const [told, setTold] = useState<string | null>(null);
  const at = plan.sections.findIndex(({ items }) => items.some(({ item }) => item.name === name));
  const section = plan.sections[at];
  const item = section?.items.find((each) => each.item.name === name)?.item;
  const cut = useMemo(() => cutOf(plan, at), [plan, at]);
  if (section === undefined || item === undefined) return null;
  const isTopic = section.section.kind === 'topic';
  const before = typeof cut === 'string' ? 0 : section.items.filter(({ place }) => place < cut.at).length;
  const hours = (row.expected * secondsOf(item, paceOf(document))) / 3600 / 2;
  const write = (change: Change & { readonly arm: string }) => {
    const refused = commit(change);
    setTold(refused ?? `Written into the script, with the random arm ${change.arm}. Undo takes it back.`);
  };
  return (
    <>
      <h2>Ask fewer</h2>
      <div className={`${primitives.card} ${classes.halves}`}>
        <p>
          Of a random half its base is {countOf(row.expected / 2)}, and {hoursText(hours)} of everybody’s time
          are saved.
        </p>
        {isTopic ? (
          <span className={primitives.smallButtons}>
            <button type="button" onClick={() => write(askOfHalf(document, [name], name))}>
              Ask {name} of a random half
            </button>
            <button
              type="button"
              onClick={() =>
                write(
                  askOfHalf(
                    document,
                    section.items.map((each) => each.item.name),
                    section.section.id,
                  ),
                )
              }
            >
              Ask all of “{section.section.title}” of a random half
            </button>
            {typeof cut !== 'string' && (
              <button type="button" onClick={() => write(askInHalves(document, cut))}>
                Split “{section.section.title}” at random in halves
              </button>
            )}
          </span>
        ) : (
          <p className={classes.note}>Everybody has to go through a section of this kind.</p>
        )}
        {typeof cut !== 'string' ? (
          <p className={classes.note}>
            In halves, the first {plural(before, 'item')} of the block go to one half of the sample, the
            others to the other one.
          </p>
        ) : (
          isTopic && <p className={classes.note}>It is not split in halves: {lower(cut)}</p>
        )}
        {told !== null && <p role="status">{told}</p>}
      </div>
    </>
  );
}

function lower(sentence: string): string {
  return `${sentence[0]?.toLowerCase() ?? ''}${sentence.slice(1)}`;
}
