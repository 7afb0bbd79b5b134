/** The bar on top where the responses under a link are walked again: what is asked there, and the way back to what was watched. */
import { useStudy } from '../state/store';
import type { LinkOpened } from '../state/study-state';
import { Mark } from '../ui/Mark';
import classes from './study.module.css';

interface Props {
  readonly link: LinkOpened;
}

export function LinkStrip({ link: { token, name, version, questionnaire } }: Props) {
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
          As asked under “{name}”, {version === null ? 'a draft' : `version ${version}`}
        </small>
      </div>
      <span className={classes.room} />
      <a
        className={classes.pill}
        href={`/studies/${id}/release?leaf=trial&link=${token}${questionnaire === 0 ? '' : `&asked=${questionnaire}`}`}
      >
        Back to the monitor
      </a>
    </header>
  );
}
