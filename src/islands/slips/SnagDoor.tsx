/** The place of a snag, as a door to it. */
import { capital } from '../../core/document/words';
import { partAt, type DocumentPlace } from '../../core/routing/problems';
import { placeWords } from '../../core/wording/places';
import { useGoTo } from '../state/going';
import { useStudy } from '../state/store';
import classes from './snags.module.css';

interface Props {
  readonly at: DocumentPlace;
  /** Told when it was gone through, so that what covers the view can go. */
  readonly left?: () => void;
}

export function SnagDoor({ at, left }: Props) {
  const document = useStudy((state) => state.document);
  const select = useStudy((state) => state.select);
  const goTo = useGoTo();
  const words = placeWords(document, at);
  const selection = partAt(at);
  if (selection === null)
    return <strong>{Object.keys(at).length === 0 ? 'The whole study' : capital(words)}</strong>;
  return (
    <button
      type="button"
      className={classes.place}
      onClick={() => {
        select(selection);
        goTo('script');
        left?.();
      }}
    >
      {capital(words)}
    </button>
  );
}
