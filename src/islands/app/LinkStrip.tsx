/** The bar on top where the responses under a link are walked again: what is asked there, and the way back to what was watched. */
import { useStudy } from '../state/store';
import type { LinkOpened } from '../state/study-state';
import { ReadingStrip } from './ReadingStrip';
import classes from './study.module.css';

interface Props {
  readonly link: LinkOpened;
}

export function LinkStrip({ link: { token, name, version, questionnaire } }: Props) {
  const id = useStudy((state) => state.id);
  const asked = questionnaire === 0 ? '' : `&asked=${questionnaire}`;
  return (
    <ReadingStrip
      reading={`As asked under “${name}”, ${version === null ? 'a draft' : `version ${version}`}`}
      back={{ href: `/studies/${id}/release?leaf=trial&link=${token}${asked}`, words: 'Back to the monitor' }}
    >
      <span className={classes.room} />
    </ReadingStrip>
  );
}
