/** Forks: the whole questionnaire as a river, folded to sections at first; ways are made and aimed on it. */
import { useRef, type RefObject } from 'react';
import { address } from '../../core/document/addresses';
import { isEarly } from '../../core/document/vocabularies';
import { waysAlong } from '../../core/views/forks';
import { denseWords } from '../../core/views/river';
import type { Marked } from '../../core/views/river-drawing';
import { endingLabel } from '../../core/wording/targets';
import { ReadSlip } from '../slips/ReadSlip';
import { Slip } from '../slips/Slip';
import { useStudy } from '../state/store';
import { EndingMark } from '../ui/EndingMark';
import classes from './forks.module.css';
import { Grips } from './Grips';
import { toldOf, useNodeSnags } from './map-nodes';
import { MapHelp } from './MapHelp';
import { MapTools } from './MapTools';
import { Overview } from './Overview';
import { RibbonCard } from './RibbonCard';
import { RiverDrawing } from './RiverDrawing';
import { useDragged } from './use-dragged';
import { useLit } from './use-forks';
import { useMap, type ForksMap } from './use-map';

export function ForksView() {
  const selection = useStudy((state) => state.selection);
  const isReadOnly = useStudy((state) => state.readOnly !== null);
  const frame = useRef<HTMLDivElement>(null);
  const svg = useRef<SVGSVGElement>(null);
  const map = useMap(frame, svg);
  const { river, chosen } = map;
  const lit = useLit(river, chosen.node);
  const snags = useNodeSnags(river?.model.nodes ?? []);
  const marked = { chosen, lit, snags };
  const ribbon =
    river === null
      ? undefined
      : [...river.model.ribbons, ...river.model.exits].find(({ id }) => id === chosen.ribbon);
  return (
    <div className={classes.columns}>
      <div className={classes.left}>
        <MapTools {...map} marked={marked} />
        <MapFrame map={map} marked={marked} frame={frame} svg={svg} ribbon={ribbon} />
      </div>
      {ribbon !== undefined && river !== null ? (
        <RibbonCard river={river} ribbon={ribbon} />
      ) : selection === null ? (
        <MapHelp />
      ) : isReadOnly ? (
        <ReadSlip />
      ) : (
        <Slip />
      )}
    </div>
  );
}

interface FrameProps {
  readonly map: ForksMap;
  readonly marked: Marked;
  readonly frame: RefObject<HTMLDivElement | null>;
  readonly svg: RefObject<SVGSVGElement | null>;
  /** The ribbon that is chosen. */
  readonly ribbon: Parameters<typeof waysAlong>[2] | undefined;
}

function MapFrame({ map, marked, frame, svg, ribbon }: FrameProps) {
  const { river, bounds, view, chosen } = map;
  const isReadOnly = useStudy((state) => state.readOnly !== null);
  const dragging = useDragged(map.chooseNode);
  const way =
    ribbon === undefined || river === null ? null : (waysAlong(river.plan, river.model, ribbon)[0] ?? null);
  return (
    <div className={classes.map} ref={frame}>
      <MapMessages map={map} refused={dragging.problem} understood={dragging.understood} />
      <svg
        ref={svg}
        className={classes.river}
        tabIndex={0}
        role="application"
        aria-roledescription="map"
        aria-label="Map of forks. Arrow keys go along the flow and from ribbon to ribbon, Enter unfolds a section or opens an item in the script."
        onKeyDown={map.onKeyDown}
      >
        <g transform={`translate(${view.x} ${view.y}) scale(${view.k})`}>
          {river !== null && (
            <>
              <RiverDrawing
                river={river}
                {...marked}
                chooseNode={map.chooseNode}
                chooseRibbon={map.chooseRibbon}
                openNode={map.openNode}
              />
              {!isReadOnly && <Grips river={river} chosen={chosen} way={way} scale={view.k} {...dragging} />}
            </>
          )}
        </g>
      </svg>
      {dragging.isDragging && <EarlyEndings />}
      {river !== null && bounds !== null && (
        <Overview river={river} bounds={bounds} view={view} frame={frame} center={map.center} />
      )}
      <p className={classes.told} aria-live="polite">
        {river !== null && toldOf(river, chosen)}
      </p>
    </div>
  );
}

interface MessagesProps {
  readonly map: ForksMap;
  readonly refused: string | null;
  readonly understood: () => void;
}

function MapMessages({ map: { river, problem, sections }, refused, understood }: MessagesProps) {
  const dense = river && denseWords(river);
  return (
    <>
      {problem !== null && <p className={classes.message}>{problem}</p>}
      {sections.length === 0 && (
        <p className={classes.message}>
          There is nothing to map yet: write questions in Script, and see here how they branch.
        </p>
      )}
      {problem === null && river === null && <p className={classes.message}>Drawing the map …</p>}
      {dense !== null && <p className={classes.dense}>{dense}</p>}
      {refused !== null && (
        <p className={classes.refused} role="alert">
          {refused}{' '}
          <button type="button" onClick={understood}>
            Understood
          </button>
        </p>
      )}
    </>
  );
}

/** Where a way can be dropped that leaves early, while one is dragged. */
function EarlyEndings() {
  const document = useStudy((state) => state.document);
  const early = document.endings.filter(({ kind }) => isEarly(kind));
  if (early.length === 0) return null;
  return (
    <div className={classes.endings} aria-hidden="true">
      {early.map(({ id, kind }) => (
        <span key={id} data-node={address('ending', id)}>
          <EndingMark kind={kind} /> {endingLabel(document, id)}
        </span>
      ))}
    </div>
  );
}
