/** Forks: the whole questionnaire as a river, folded to sections at first; ways are made and aimed on it. */
import { Maximize2, ZoomIn, ZoomOut } from 'lucide-react';
import { useCallback, useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { address, nameAt, readAddress, type Address, type WrittenWay } from '../../core/document/addresses';
import type { Target } from '../../core/document/types';
import { isEarly } from '../../core/document/vocabularies';
import { addWay, reaimWay, type WaySource } from '../../core/editing/fork-edits';
import { nodeLabel, waysAlong } from '../../core/views/forks';
import { endingLabel } from '../../core/wording/targets';
import type { Selection } from '../state/study-state';
import { Slip } from '../slips/Slip';
import { useGoTo } from '../state/going';
import { useSnags } from '../state/snags';
import { useStudy } from '../state/store';
import { EndingMark } from '../ui/EndingMark';
import { percentText } from '../ui/format';
import { boundsOf } from './bounds';
import classes from './forks.module.css';
import { Grip } from './Grip';
import { step, type Direction } from './keys';
import { Overview } from './Overview';
import { RibbonCard } from './RibbonCard';
import { nodeWidth, RiverDrawing, type Chosen } from './RiverDrawing';
import { SaveButtons } from './SaveButtons';
import { useLit, useRiver, type RibbonMeasure } from './use-forks';
import { useZoom } from './zoom';

const ARROWS: Readonly<Record<string, Direction>> = {
  ArrowDown: 'down',
  ArrowUp: 'up',
  ArrowLeft: 'left',
  ArrowRight: 'right',
};

/** What is being dragged: a new way from somewhere, or one that is aimed anew. */
type Dragged = { readonly from: WaySource } | { readonly way: WrittenWay };

export function ForksView() {
  const plan = useStudy((state) => state.plan);
  const commit = useStudy((state) => state.commit);
  const selection = useStudy((state) => state.selection);
  const select = useStudy((state) => state.select);
  const goTo = useGoTo();
  const [unfolded, setUnfolded] = useState<ReadonlySet<string>>(new Set());
  const [wanted, setWanted] = useState<RibbonMeasure>('share');
  const [ribbon, setRibbon] = useState<string | null>(null);
  const [dragged, setDragged] = useState<Dragged | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const frame = useRef<HTMLDivElement>(null);
  const svg = useRef<SVGSVGElement>(null);
  const [height, setHeight] = useState(640);
  const { river, problem: failed, measure } = useRiver(unfolded, wanted, height);
  const { view, fit, show, center, zoomBy } = useZoom(svg);
  const bounds = useMemo(() => (river === null ? null : boundsOf(river.layout)), [river]);
  const chosen: Chosen = useMemo(
    () => ({ node: ribbon === null ? nodeOf(selection, unfolded, plan) : null, ribbon }),
    [selection, ribbon, unfolded, plan],
  );
  const lit = useLit(river, chosen.node);
  const snags = useNodeSnags(river?.model.nodes ?? []);

  useEffect(() => {
    const node = frame.current;
    if (node === null) return;
    const observer = new ResizeObserver(() => setHeight(Math.max(200, node.clientHeight - 50)));
    observer.observe(node);
    return () => observer.disconnect();
  }, []);
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
  const apply = (next: Chosen) => {
    if (next.ribbon !== null) setRibbon(next.ribbon);
    else if (next.node !== null) chooseNode(next.node);
    const point = next.node === null ? undefined : river?.layout.nodes[next.node];
    if (point !== undefined) show(point.x, point.y);
  };
  const open = () => {
    if (nameAt(chosen.node, 'item') !== null) goTo('script');
    else if (chosen.node !== null) openNode(chosen.node);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const direction = ARROWS[event.key];
    if (direction !== undefined && river !== null) apply(step(river.model, chosen, direction));
    else if (event.key === 'Enter') open();
    else if (event.key === '+' || event.key === '=') zoomBy('in');
    else if (event.key === '-') zoomBy('out');
    else if (event.key === 'f' && bounds !== null && !event.ctrlKey && !event.metaKey) fit(bounds);
    else if (event.key === 'Escape') {
      setRibbon(null);
      select(null);
    } else return;
    event.preventDefault();
  };
  const drop = (to: Target) => {
    if (dragged === null) return;
    const change = 'way' in dragged ? reaimWay(plan, dragged.way, to) : addWay(plan, dragged.from, to);
    setDragged(null);
    const refused = typeof change === 'string' ? change : commit(change);
    setProblem(refused);
    if (refused !== null) return;
    const source = 'way' in dragged ? dragged.way : dragged.from;
    chooseNode('item' in source ? address('item', source.item) : address('section', source.section));
  };
  const sections = plan.sections.filter(({ items }) => items.length > 0).map(({ section }) => section.id);
  const all = sections.length > 0 && sections.every((id) => unfolded.has(id));
  const chosenRibbon =
    river === null
      ? undefined
      : [...river.model.ribbons, ...river.model.exits].find(({ id }) => id === ribbon);
  const early = plan.document.endings.filter(({ kind }) => isEarly(kind));
  return (
    <div className={classes.columns}>
      <div className={classes.left}>
        <div className={classes.tools} role="toolbar" aria-label="The map">
          <button type="button" aria-pressed={measure === 'share'} onClick={() => setWanted('share')}>
            Share of sample
          </button>
          <button type="button" aria-pressed={measure === 'routes'} onClick={() => setWanted('routes')}>
            Number of routes
          </button>
          <button
            type="button"
            onClick={() => {
              toFit.current = true;
              setUnfolded(all ? new Set() : new Set(sections));
            }}
          >
            {all ? 'Fold all' : 'Unfold all'}
          </button>
          <span className={classes.group}>
            <button type="button" aria-label="Zoom in" title="Zoom in (+)" onClick={() => zoomBy('in')}>
              <ZoomIn size={15} />
            </button>
            <button type="button" aria-label="Zoom out" title="Zoom out (-)" onClick={() => zoomBy('out')}>
              <ZoomOut size={15} />
            </button>
            <button
              type="button"
              aria-label="Fit"
              title="Fit (F)"
              onClick={() => bounds !== null && fit(bounds)}
            >
              <Maximize2 size={14} />
            </button>
          </span>
          <FindPlace
            find={(id) => {
              const home = plan.sections.find(({ items }) =>
                items.some(({ item }) => address('item', item.name) === id),
              );
              if (home !== undefined) setUnfolded((now) => new Set([...now, home.section.id]));
              chooseNode(id);
            }}
          />
          <SaveButtons svg={svg} river={river} />
        </div>
        <div className={classes.map} ref={frame}>
          {failed !== null && <p className={classes.message}>{failed}</p>}
          {sections.length === 0 && (
            <p className={classes.message}>
              There is nothing to map yet: write questions in Script, and see here how they branch.
            </p>
          )}
          {failed === null && river === null && <p className={classes.message}>Drawing the map …</p>}
          {problem !== null && (
            <p className={classes.refused} role="alert">
              {problem}{' '}
              <button type="button" onClick={() => setProblem(null)}>
                Understood
              </button>
            </p>
          )}
          <svg
            ref={svg}
            className={classes.river}
            tabIndex={0}
            role="application"
            aria-roledescription="map"
            aria-label="Map of forks. Arrow keys go along the flow and from ribbon to ribbon, Enter unfolds a section or opens an item in the script."
            onKeyDown={onKeyDown}
          >
            <g transform={`translate(${view.x} ${view.y}) scale(${view.k})`}>
              {river !== null && (
                <>
                  <RiverDrawing
                    river={river}
                    chosen={chosen}
                    lit={lit}
                    snags={snags}
                    chooseNode={chooseNode}
                    chooseRibbon={setRibbon}
                    openNode={openNode}
                  />
                  <Grips
                    river={river}
                    chosen={chosen}
                    way={
                      chosenRibbon === undefined
                        ? null
                        : (waysAlong(river.plan, river.model, chosenRibbon)[0] ?? null)
                    }
                    begin={setDragged}
                    drop={drop}
                    stop={() => setDragged(null)}
                    scale={view.k}
                  />
                </>
              )}
            </g>
          </svg>
          {dragged !== null && early.length > 0 && (
            <div className={classes.endings} aria-hidden="true">
              {early.map(({ id, kind }) => (
                <span key={id} data-node={address('ending', id)}>
                  <EndingMark kind={kind} /> {endingLabel(plan.document, id)}
                </span>
              ))}
            </div>
          )}
          {river !== null && bounds !== null && (
            <Overview river={river} bounds={bounds} view={view} frame={frame} center={center} />
          )}
          <p className={classes.told} aria-live="polite">
            {river !== null && toldOf(river, chosen)}
          </p>
        </div>
      </div>
      {chosenRibbon !== undefined && river !== null ? (
        <RibbonCard river={river} ribbon={chosenRibbon} />
      ) : selection === null ? (
        <Help />
      ) : (
        <Slip />
      )}
    </div>
  );
}

interface GripsProps {
  readonly river: NonNullable<ReturnType<typeof useRiver>['river']>;
  readonly chosen: Chosen;
  readonly way: WrittenWay | null;
  readonly begin: (dragged: Dragged) => void;
  readonly drop: (to: Target) => void;
  readonly stop: () => void;
  readonly scale: number;
}

/** What can be taken hold of: at the chosen node for a new way, at the end of the chosen ribbon to aim it anew. */
function Grips({ river, chosen, way, begin, drop, stop, scale }: GripsProps) {
  const { layout, sizes } = river;
  if (chosen.ribbon !== null && way !== null) {
    const end = layout.ribbons[chosen.ribbon]?.at(-1);
    return end === undefined ? null : (
      <Grip
        at={end}
        title="Drag to aim it elsewhere"
        scale={scale}
        begin={() => begin({ way })}
        drop={drop}
        stop={stop}
      />
    );
  }
  const point = chosen.node === null ? undefined : layout.nodes[chosen.node];
  if (point === undefined || chosen.node === null) return null;
  const { kind, name } = readAddress(chosen.node);
  if (kind === 'ending') return null;
  const from = kind === 'item' ? { item: name } : { section: name };
  const at = { x: point.x + nodeWidth(river, chosen.node) / 2, y: point.y + sizes.height + 1 };
  return (
    <Grip
      at={at}
      title={kind === 'item' ? 'Drag to make a skip' : 'Drag to lead on from the end of the section'}
      scale={scale}
      begin={() => begin({ from })}
      drop={drop}
      stop={stop}
    />
  );
}

function FindPlace({ find }: { find: (id: Address) => void }) {
  const plan = useStudy((state) => state.plan);
  const [text, setText] = useState('');
  const names = plan.sections.flatMap(({ items }) => items.map(({ item }) => item.name));
  const take = (typed: string) => {
    setText(typed);
    const name = names.find((each) => each.toLowerCase() === typed.trim().toLowerCase());
    if (name === undefined) return;
    find(address('item', name));
    setText('');
  };
  return (
    <>
      <input
        className={classes.find}
        list="forks-items"
        aria-label="Find an item"
        placeholder="Find an item"
        value={text}
        onChange={(event) => take(event.target.value)}
      />
      <datalist id="forks-items">
        {names.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
    </>
  );
}

function Help() {
  return (
    <aside className={classes.help} aria-label="Slip">
      <h2>Reading the map</h2>
      <p>
        Bars are sections, as wide as the share of the sample that comes to them. Ribbons are those who go
        from one straight to another; early endings leave at the right.
      </p>
      <dl>
        <dt>Click</dt>
        <dd>a section or ribbon: who flows there, and why</dd>
        <dt>Two clicks</dt>
        <dd>on a section unfold it into its items, and fold it again</dd>
        <dt>↓ ↑</dt>
        <dd>along the flow</dd>
        <dt>← →</dt>
        <dd>from ribbon to ribbon</dd>
        <dt>Enter</dt>
        <dd>unfold a section, open an item in Script</dd>
        <dt>F, +, −</dt>
        <dd>fit, zoom; drag the ground to move</dd>
        <dt>Drag the dot</dt>
        <dd>of what is chosen onto a later place to make a skip, or to aim one anew</dd>
      </dl>
    </aside>
  );
}

/** Of what is selected anywhere in the study, the node that shows it. */
function nodeOf(
  selection: Selection,
  unfolded: ReadonlySet<string>,
  plan: {
    readonly sections: readonly {
      readonly section: { readonly id: string };
      readonly items: readonly { readonly item: { readonly name: string } }[];
    }[];
  },
): Address | null {
  if (selection === null || selection === 'comments') return null;
  for (const { section, items } of plan.sections) {
    if (selection === address('section', section.id))
      return unfolded.has(section.id)
        ? items[0] === undefined
          ? null
          : address('item', items[0].item.name)
        : selection;
    if (items.some(({ item }) => selection === address('item', item.name)))
      return unfolded.has(section.id) ? selection : address('section', section.id);
  }
  return nameAt(selection, 'ending') === null ? null : selection;
}

function useNodeSnags(
  nodes: readonly { readonly id: Address; readonly items: readonly string[] }[],
): ReadonlyMap<string, number> {
  const { open } = useSnags();
  return useMemo(() => {
    const counts = new Map<string, number>();
    for (const { at, severity } of open) {
      if (severity === 'note') continue;
      const node = nodes.find(
        ({ id, items }) =>
          (at.item !== undefined && items.includes(at.item)) ||
          (at.item === undefined && at.section !== undefined && id === address('section', at.section)) ||
          (at.ending !== undefined && id === address('ending', at.ending)),
      );
      if (node !== undefined) counts.set(node.id, (counts.get(node.id) ?? 0) + 1);
    }
    return counts;
  }, [open, nodes]);
}

function toldOf({ model }: NonNullable<ReturnType<typeof useRiver>['river']>, chosen: Chosen): string {
  const label = (id: Address) => nodeLabel(model, id);
  const all = [...model.ribbons, ...model.exits];
  const ribbon = all.find(({ id }) => id === chosen.ribbon);
  const share = (of: number | null) => (of === null ? '' : `, ${percentText(Math.min(1, of))} of the sample`);
  if (ribbon !== undefined) return `From ${label(ribbon.from)} to ${label(ribbon.to)}${share(ribbon.share)}`;
  const node = model.nodes.find(({ id }) => id === chosen.node);
  if (node === undefined) return '';
  const leads = all.filter(({ from }) => from === node.id).map(({ to }) => label(to));
  return `${node.label}${share(node.share)}${leads.length === 0 ? '' : `, leads to ${leads.join(', ')}`}`;
}
