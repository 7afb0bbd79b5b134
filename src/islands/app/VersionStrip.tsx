/** The bar on top where a version is looked at: which one it is, the stops, and the way back to the draft. */
import { format } from 'date-fns';
import type { Version } from '../../wire/versions';
import { useStudy } from '../state/store';
import { VERSION_STOPS, type Stop } from '../state/stops';
import { Mark } from '../ui/Mark';
import { StopLinks } from './StopLinks';
import classes from './study.module.css';

interface Props {
  readonly version: Version;
  readonly stop: Stop;
  readonly goTo: (stop: Stop) => void;
}

export function VersionStrip({ version, stop, goTo }: Props) {
  const { number, frozen, at, author } = version;
  const title = useStudy((state) => state.document.title);
  const id = useStudy((state) => state.id);
  return (
    <header className={classes.bar}>
      <a className={classes.mark} href="/" title="All studies">
        <Mark /> <span>Jolly Fork</span>
      </a>
      <div className={classes.study}>
        <b>{title}</b>
        <small>
          Version {number}, {frozen ? 'frozen' : 'kept'} {format(at, 'd MMM yyyy')} by {author}: to be read,
          not changed
        </small>
      </div>
      <StopLinks stops={VERSION_STOPS} stop={stop} goTo={goTo} />
      <a className={classes.pill} href={`/studies/${id}/release?of=${number}`}>
        Back to Release
      </a>
    </header>
  );
}
