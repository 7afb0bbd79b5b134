/** The bar on top for a reviewer: the study, the stops, and that nothing can be changed. */
import { Mark } from '../ui/Mark';
import { StopLinks } from './StopLinks';
import { useStudy } from '../state/store';
import { REVIEW_STOPS, type Stop } from '../state/stops';
import classes from './study.module.css';

interface Props {
  readonly stop: Stop;
  readonly goTo: (stop: Stop) => void;
}

export function ReviewStrip({ stop, goTo }: Props) {
  const title = useStudy((state) => state.document.title);
  const reviewer = useStudy((state) => state.reviewer);
  return (
    <header className={classes.bar}>
      <span className={classes.mark}>
        <Mark /> Jolly Fork
      </span>
      <div className={classes.study}>
        <b>{title}</b>
        <small>For review by {reviewer}: read, walk, comment and judge</small>
      </div>
      <StopLinks stops={REVIEW_STOPS} stop={stop} goTo={goTo} />
    </header>
  );
}
