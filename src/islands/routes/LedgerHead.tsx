/** The head of the ledger: how many routes, how far they are walked, and ways to one of them. */
import { Maximize2, ZoomIn, ZoomOut } from 'lucide-react';
import type { Analysed } from '../../worker/client';
import { CheckedField } from '../fields/Fields';
import { useNextToWalk } from '../state/ledger';
import { useStudy } from '../state/store';
import { countText, grouped, plural, routeText } from '../ui/format';
import { IconButton } from '../ui/IconButton';
import classes from './routes.module.css';
import { takesAll, type CoverShown } from './use-cover';
import type { ListedRoutes } from './use-list';

interface Props {
  readonly cover: CoverShown | null;
  readonly list: ListedRoutes | null;
  /** Whether not all routes are listed. */
  readonly filtered: boolean;
  readonly everyForkFirst: boolean;
  readonly setEveryForkFirst: (first: boolean) => void;
  readonly showAll: () => void;
  readonly goTo: (number: string) => void;
  readonly walk: (number: string) => void;
  /** A route that was gone to and is not among those listed. */
  readonly missed: string | null;
  readonly zoom: number;
  readonly setZoom: (zoom: number) => void;
}

export function LedgerHead(props: Props) {
  const { everyForkFirst, setEveryForkFirst, goTo, walk, missed } = props;
  const analysis = useStudy((state) => state.analysis);
  const next = useNextToWalk(null);
  if (analysis === null) return null;
  return (
    <header className={classes.head}>
      <HowMany {...props} analysis={analysis} />
      <div className={classes.tools}>
        <span className={classes.lengths}>
          {analysis.shortest !== null && (
            <button type="button" onClick={() => goTo(analysis.shortest?.number ?? '1')}>
              shortest {plural(analysis.shortest.items, 'item')}
            </button>
          )}
          {analysis.longest !== null && (
            <button type="button" onClick={() => goTo(analysis.longest?.number ?? '1')}>
              longest {plural(analysis.longest.items, 'item')}
            </button>
          )}
        </span>
        <GoToRoute total={analysis.routes} goTo={goTo} />
        {missed !== null && (
          <span role="alert" className={classes.missed}>
            Route {routeText(missed)} is not among those listed.
          </span>
        )}
        <ColumnWidth zoom={props.zoom} setZoom={props.setZoom} />
        <button
          type="button"
          aria-pressed={everyForkFirst}
          onClick={() => setEveryForkFirst(!everyForkFirst)}
        >
          Every fork first
        </button>
        {next !== null && (
          <button
            type="button"
            className={classes.dark}
            title={`Walk route ${grouped(next)}, the next of this list that is not passed`}
            onClick={() => walk(next)}
          >
            Next to walk
          </button>
        )}
      </div>
    </header>
  );
}

interface HowManyProps extends Pick<Props, 'cover' | 'list' | 'filtered' | 'showAll'> {
  readonly analysis: Analysed;
}

/** Routes listed, and of how many; how many of them take every fork. */
function HowMany({ cover, list, filtered, showAll, analysis }: HowManyProps) {
  const total = analysis.routes;
  return (
    <>
      <p className={classes.big}>
        {!analysis.exact && <small>at least</small>}{' '}
        {filtered && list !== null ? (
          <>
            <b title={grouped(list.summary.total)}>{countText(list.summary.total)}</b>
            <small>
              {list.query.folded ? 'rows listed; in all ' : 'listed of '}
              {countText(total)} routes
            </small>
          </>
        ) : (
          <>
            <b title={grouped(total)}>{countText(total)}</b>
            <small>
              {total === '1' ? 'route' : 'routes'}
              {analysis.exact && ', counted exactly'}
            </small>
          </>
        )}
      </p>
      {filtered ? (
        <button type="button" className={classes.all} onClick={showAll}>
          Show all
        </button>
      ) : (
        total !== '1' &&
        takesAll(cover) && (
          <p className={classes.big}>
            <b>{cover.routes.length}</b>
            <small>of them {cover.routes.length === 1 ? 'takes' : 'take'} every fork</small>
          </p>
        )
      )}
    </>
  );
}

interface GoToProps {
  /** Number of routes. */
  readonly total: string;
  readonly goTo: (number: string) => void;
}

function GoToRoute({ total, goTo }: GoToProps) {
  return (
    <label>
      Go to route{' '}
      <CheckedField
        field="go-to-route"
        label="Go to route"
        value=""
        size={8}
        placeholder="number"
        className={classes.number}
        take={(text) => {
          const digits = text.replace(/[,\s]/g, '');
          if (!/^\d+$/.test(digits) || BigInt(digits) < 1n || BigInt(digits) > BigInt(total))
            return `There are routes from 1 to ${grouped(total)}.`;
          goTo(String(BigInt(digits)));
          return null;
        }}
      />
    </label>
  );
}

function ColumnWidth({ zoom, setZoom }: Pick<Props, 'zoom' | 'setZoom'>) {
  return (
    <span className={classes.zoom} role="group" aria-label="Width of the columns">
      <IconButton words="Wider columns" does={() => setZoom(Math.min(64, zoom * 2))}>
        <ZoomIn size={15} />
      </IconButton>
      <IconButton words="Narrower columns" disabled={zoom <= 1} does={() => setZoom(Math.max(1, zoom / 2))}>
        <ZoomOut size={15} />
      </IconButton>
      <IconButton words="Fit all columns" disabled={zoom === 1} does={() => setZoom(1)}>
        <Maximize2 size={14} />
      </IconButton>
    </span>
  );
}
