/** The bar on top where a version is looked at: which one it is, the stops, and the way back to the draft. */
import { format } from 'date-fns';
import type { Version } from '../../wire/versions';
import { VERSION_STOPS, type Stop } from '../state/stops';
import { useStudy } from '../state/store';
import { ReadingStrip } from './ReadingStrip';
import { StopLinks } from './StopLinks';

interface Props {
  readonly version: Version;
  readonly stop: Stop;
  readonly goTo: (stop: Stop) => void;
}

export function VersionStrip({ version: { number, frozen, at, author }, stop, goTo }: Props) {
  const id = useStudy((state) => state.id);
  const kept = `${frozen ? 'frozen' : 'kept'} ${format(at, 'd MMM yyyy')} by ${author}`;
  return (
    <ReadingStrip
      reading={`Version ${number}, ${kept}: to be read, not changed`}
      back={{ href: `/studies/${id}/release?of=${number}`, words: 'Back to Release' }}
    >
      <StopLinks stops={VERSION_STOPS} stop={stop} goTo={goTo} />
    </ReadingStrip>
  );
}
