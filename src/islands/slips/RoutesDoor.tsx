/** A number of routes that opens just these routes. */
import { useGoTo } from '../state/going';
import classes from './routes-door.module.css';

interface Props {
  /** The address of the ledger's choices, as `shownSearch` makes it. */
  readonly search: string;
  readonly title?: string | undefined;
  readonly children: string;
}

export function RoutesDoor({ search, title, children }: Props) {
  const goTo = useGoTo();
  return (
    <button
      type="button"
      className={classes.door}
      title={`${title === undefined ? '' : `${title}. `}Show these routes`}
      onClick={() => goTo('routes', search)}
    >
      {children}
    </button>
  );
}
