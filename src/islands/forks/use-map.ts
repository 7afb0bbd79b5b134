/** What is chosen and unfolded on the map, how it is fitted into its frame, and the keys that move over it. */
import { useCallback, useEffect, useMemo, useRef, useState, type KeyboardEvent, type RefObject } from 'react';
import { address, nameAt, type Address } from '../../core/document/addresses';
import type { RibbonMeasure } from '../../core/views/river';
import { boundsOf, type Chosen } from '../../core/views/river-drawing';
import { useGoTo } from '../state/going';
import { useStudy } from '../state/store';
import { step, type Direction } from './keys';
import { nodeOf } from './map-nodes';
import { useRiver } from './use-forks';
import { useZoom } from './zoom';

const ARROWS: Readonly<Record<string, Direction>> = {
  ArrowDown: 'down',
  ArrowUp: 'up',
  ArrowLeft: 'left',
  ArrowRight: 'right',
};
/** Of the frame, taken by what stands under the map, in pixels. */
const BELOW = 50;
const LEAST_HEIGHT = 200;

export type ForksMap = ReturnType<typeof useMap>;

/** `frame` holds the map, which is drawn in `svg`. */
export function useMap(frame: RefObject<HTMLDivElement | null>, svg: RefObject<SVGSVGElement | null>) {
  const plan = useStudy((state) => state.plan);
  const selection = useStudy((state) => state.selection);
  const select = useStudy((state) => state.select);
  const goTo = useGoTo();
  const [unfolded, setUnfolded] = useState<ReadonlySet<string>>(new Set());
  const [wanted, setWanted] = useState<RibbonMeasure>('share');
  const [ribbon, setRibbon] = useState<string | null>(null);
  const height = useHeight(frame);
  const { river, problem, measure } = useRiver(unfolded, wanted, height);
  const { view, fit, show, center, zoomBy } = useZoom(svg);
  const bounds = useMemo(() => (river === null ? null : boundsOf(river.layout)), [river]);
  const dense = river?.tooDense;
  const chosen: Chosen = useMemo(() => {
    const apart = new Set([...unfolded].filter((id) => dense?.includes(id) !== true));
    return { node: ribbon === null ? nodeOf(selection, apart, plan) : null, ribbon };
  }, [selection, ribbon, unfolded, dense, plan]);
  // Fitted when it is first shown or folded as a whole; otherwise it stays where it was put.
  const toFit = useRef(true);
  const shownNodes = river?.model.nodes.length ?? 0;
  useEffect(() => {
    if (bounds === null || !toFit.current) return;
    toFit.current = false;
    fit(bounds);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once the nodes that were asked for are laid out
  }, [shownNodes, fit]);

  const chooseNode = useCallback(
    (id: Address) => {
      setRibbon(null);
      select(id);
    },
    [select],
  );
  const openNode = useCallback((id: Address) => {
    const section = nameAt(id, 'section');
    if (section === null) return;
    setUnfolded((now) => {
      const next = new Set(now);
      if (next.has(section)) next.delete(section);
      else next.add(section);
      return next;
    });
  }, []);
  const sections = plan.sections.filter(({ items }) => items.length > 0).map(({ section }) => section.id);
  const all = sections.length > 0 && sections.every((id) => unfolded.has(id));
  const foldAll = () => {
    toFit.current = true;
    setUnfolded(all ? new Set() : new Set(sections));
  };
  /** Unfolds the section of an item and chooses it there. */
  const find = (id: Address) => {
    const home = plan.sections.find(({ items }) =>
      items.some(({ item }) => address('item', item.name) === id),
    );
    if (home !== undefined) setUnfolded((now) => new Set([...now, home.section.id]));
    chooseNode(id);
  };
  const fitAll = () => {
    if (bounds !== null) fit(bounds);
  };
  const apply = (next: Chosen) => {
    if (next.ribbon !== null) setRibbon(next.ribbon);
    else if (next.node !== null) chooseNode(next.node);
    const point = next.node === null ? undefined : river?.layout.nodes[next.node];
    if (point !== undefined) show(point.x, point.y);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const direction = ARROWS[event.key];
    if (direction !== undefined && river !== null) apply(step(river.model, chosen, direction));
    else if (event.key === 'Enter') {
      if (nameAt(chosen.node, 'item') !== null) goTo('script');
      else if (chosen.node !== null) openNode(chosen.node);
    } else if (event.key === '+' || event.key === '=') zoomBy('in');
    else if (event.key === '-') zoomBy('out');
    else if (event.key === 'f' && bounds !== null && !event.ctrlKey && !event.metaKey) fitAll();
    else if (event.key === 'Escape') {
      setRibbon(null);
      select(null);
    } else return;
    event.preventDefault();
  };
  return {
    ...{ river, problem, bounds, view, chosen, sections },
    ...{ measure, setMeasure: setWanted, chooseNode, chooseRibbon: setRibbon, openNode },
    ...{ all, foldAll, find, fit: fitAll, center, zoomBy, onKeyDown },
  };
}

/** Room for the map in its frame, in pixels. */
function useHeight(frame: RefObject<HTMLDivElement | null>): number {
  const [height, setHeight] = useState(640);
  useEffect(() => {
    const node = frame.current;
    if (node === null) return;
    const observer = new ResizeObserver(() => setHeight(Math.max(LEAST_HEIGHT, node.clientHeight - BELOW)));
    observer.observe(node);
    return () => observer.disconnect();
  }, [frame]);
  return height;
}
