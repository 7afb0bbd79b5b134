/** The bar on top for a reviewer: the study, the stops, and that nothing can be changed. */
import { Mark } from '../ui/Mark';
import { useFigures } from '../study/StopStrip';
import { useStudy } from '../study/store';
import { REVIEW_STOPS, STOP_NAMES, type Stop } from '../study/stops';
import classes from '../study/study.module.css';

interface Props {
  readonly stop: Stop;
  readonly goTo: (stop: Stop) => void;
}

export function ReviewStrip({ stop, goTo }: Props) {
  const title = useStudy((state) => state.document.title);
  const home = useStudy((state) => state.home);
  const figures = useFigures();
  return (
    <header className={classes.bar}>
      <span className={classes.mark}>
        <Mark /> Jolly Fork
      </span>
      <div className={classes.study}>
        <b>{title}</b>
        <small>For review: read, walk, comment and judge</small>
      </div>
      <nav className={classes.stops} aria-label="Stops">
        {REVIEW_STOPS.map((name) => (
          <a
            key={name}
            href={`${home}/${name}`}
            className={name === stop ? classes.current : undefined}
            aria-current={name === stop ? 'page' : undefined}
            onClick={(event) => {
              if (event.ctrlKey || event.metaKey || event.shiftKey) return;
              event.preventDefault();
              goTo(name);
            }}
          >
            {STOP_NAMES[name]}
            <small>{figures[name]}</small>
          </a>
        ))}
      </nav>
    </header>
  );
}
