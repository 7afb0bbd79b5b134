/**
 * The river drawn: bands, ribbons, nodes, early endings. Everything about its looks is in attributes, so that the
 * picture that is saved looks the same; tokens in them are resolved as it is saved.
 */
import { memo } from 'react';
import { address, nameAt, readAddress, type Address } from '../../core/document/addresses';
import type { EndingKind } from '../../core/document/types';
import { ENDINGS } from '../../core/document/vocabularies';
import { nodeLabel, type ForksBand, type ForksNode, type ForksRibbon } from '../../core/views/forks';
import { exitPath, nodeWidth as widthOf, ribbonPath, ribbonWidth, type Point } from '../../core/views/river';
import { endingLabel } from '../../core/wording/targets';
import { endingColour } from '../ui/EndingMark';
import { percentText } from '../ui/format';
import { EXIT_AT, LABELS } from './bounds';
import type { River } from './use-forks';

export const SANS = "'Instrument Sans Variable', 'Instrument Sans', sans-serif";
export const MONO = "'JetBrains Mono Variable', 'JetBrains Mono', monospace";
const INK = 'var(--ink)';
const SOFT = 'var(--ink-soft)';
const PINE = 'var(--pine)';
const PINE_MID = 'var(--pine-mid)';
const MARIGOLD = 'var(--marigold)';
const RIBBON = 'var(--ribbon-pine-mid)';
/** Those who leave by an ending, in the faint shade of its colour. */
function exitColour(kind: EndingKind): string {
  return `var(--ribbon-${ENDINGS[kind].colour})`;
}

export interface Chosen {
  /** Id of a node, or of a ribbon. */
  readonly node: Address | null;
  readonly ribbon: string | null;
}

interface Props {
  readonly river: River;
  readonly chosen: Chosen;
  /** Nodes on some route with the chosen one; null: all. */
  readonly lit: ReadonlySet<string> | null;
  /** How many snags there are, by node. */
  readonly snags: ReadonlyMap<string, number>;
  readonly chooseNode: (id: Address) => void;
  readonly chooseRibbon: (id: string) => void;
  readonly openNode: (id: Address) => void;
}

export const RiverDrawing = memo(function RiverDrawing(props: Props) {
  const { river, chosen, lit, snags, chooseNode, chooseRibbon, openNode } = props;
  const { model, layout, sizes, weights, plan } = river;
  const order = new Map(model.nodes.map(({ id }, n) => [id, n]));
  const at = (chosen.node === null ? undefined : order.get(chosen.node)) ?? -1;
  const isLit = ({ from, to }: ForksRibbon): boolean => {
    if (lit === null) return true;
    const [above, below] = [order.get(from) ?? -1, order.get(to) ?? Infinity];
    const around = above < at && below > at;
    return !around && lit.has(from) && (lit.has(to) || !order.has(to)) && (order.has(to) || above >= at);
  };
  return (
    <g fontFamily={SANS} fontSize="13" fill={INK}>
      {model.bands.map((band) => (
        <Band key={band.id} band={band} river={river} openNode={openNode} />
      ))}
      {model.ribbons.map((ribbon) => {
        const points = layout.ribbons[ribbon.id];
        if (points === undefined) return null;
        const here = ribbon.id === chosen.ribbon;
        const to = model.nodes.find(({ id }) => id === ribbon.to);
        return (
          <path
            key={ribbon.id}
            d={ribbonPath(points, ribbonWidth(weights.get(ribbon.id), sizes))}
            fill={here ? MARIGOLD : to?.ending ? exitColour(to.ending) : RIBBON}
            opacity={isLit(ribbon) ? 1 : 0.25}
            stroke={here ? INK : 'none'}
            strokeWidth="0.6"
            style={{ cursor: 'pointer' }}
            onClick={() => chooseRibbon(ribbon.id)}
          >
            <title>{titleOf(river, ribbon)}</title>
          </path>
        );
      })}
      {exitsPlaced(river).map(({ exit, from, to, thick }) => {
        const kind = plan.document.endings.find(({ id }) => id === endingOf(exit))?.kind ?? 'complete';
        const here = exit.id === chosen.ribbon;
        return (
          <g
            key={exit.id}
            opacity={isLit(exit) ? 1 : 0.25}
            style={{ cursor: 'pointer' }}
            onClick={() => chooseRibbon(exit.id)}
          >
            <path
              d={exitPath(from, to, ribbonWidth(weights.get(exit.id), sizes), thick)}
              fillOpacity="0.9"
              fill={here ? MARIGOLD : exitColour(kind)}
              stroke={here ? INK : 'none'}
              strokeWidth="0.6"
            />
            <rect x={to.x} y={to.y - 7} width="4" height="14" fill={endingColour(kind)} />
            <text x={to.x + 10} y={to.y + 4} fontSize="12" fontWeight="600">
              {endingLabel(plan.document, endingOf(exit))}
              <tspan fontWeight="400" fill={SOFT} dx="6">
                {weightText(river, exit)}
              </tspan>
            </text>
          </g>
        );
      })}
      {model.nodes.map((node) => {
        const point = layout.nodes[node.id];
        return point === undefined ? null : (
          <Node
            key={node.id}
            node={node}
            band={model.bands.find(({ section }) => section === node.section) ?? null}
            point={point}
            river={river}
            here={node.id === chosen.node}
            faint={lit !== null && !lit.has(node.id)}
            snags={snags.get(node.id) ?? 0}
            choose={chooseNode}
            open={openNode}
          />
        );
      })}
    </g>
  );
});

interface NodeProps {
  readonly node: ForksNode;
  readonly band: ForksBand | null;
  readonly point: Point;
  readonly river: River;
  readonly here: boolean;
  readonly faint: boolean;
  readonly snags: number;
  readonly choose: (id: Address) => void;
  readonly open: (id: Address) => void;
}

function Node({ node, band, point, river, here, faint, snags, choose, open }: NodeProps) {
  const { x, y } = point;
  const width = nodeWidth(river, node.id);
  const { height } = river.sizes;
  const middle = y + height / 2 + 4;
  const isSection = nameAt(node.id, 'section') !== null;
  const unreached = node.share === 0;
  const note = noteOf(band, isSection);
  const figure = shareText(node);
  const text = [figure, note].filter((part) => part !== '').join(' · ');
  const inside = height >= 14 && width > text.length * 6.4 + 16;
  const dots = isSection ? node.items.length : 0;
  const dotRoom = dots * 9 + 12;
  const dotsInside = inside && width > text.length * 6.4 + 24 + dotRoom;
  const dotsX = dotsInside ? x + width - dotRoom + 6 : x + width + (inside ? 10 : text.length * 6.4 + 20);
  return (
    <g
      data-node={node.id}
      opacity={faint ? 0.3 : 1}
      style={{ cursor: 'pointer' }}
      onClick={() => choose(node.id)}
      onDoubleClick={() => open(node.id)}
    >
      <title>{`${node.label}${unreached ? ': no respondent comes here' : ''}`}</title>
      <rect x={-LABELS + 6} y={y - 3} width={LABELS - 18} height={height + 6} fill="transparent" />
      {isSection ? (
        <>
          <text x={-LABELS + 30} y={middle} fontFamily={MONO} fontSize="14" fontWeight="700" fill={PINE_MID}>
            {node.mark}
          </text>
          <text x={-20} y={middle} textAnchor="end" fontWeight="600">
            {shortened(node.label, 20)}
          </text>
        </>
      ) : (
        <text
          x={-20}
          y={middle}
          textAnchor="end"
          fontFamily={node.ending === null ? MONO : SANS}
          fontSize={node.ending === null ? 12 : 13}
          fontWeight="600"
        >
          {shortened(node.ending === null ? node.mark : node.label, 22)}
        </text>
      )}
      {snags > 0 && (
        <g fill="var(--coral)">
          <path d={`M${-LABELS + 4} ${middle + 1} l5 -10 l5 10 z`} />
          <text x={-LABELS + 16} y={middle} fontSize="11" fontWeight="700">
            {snags}
          </text>
        </g>
      )}
      <rect
        x={x}
        y={y}
        width={width}
        height={height}
        rx="3"
        fill={
          node.ending !== null ? endingColour(node.ending) : here ? 'var(--marigold-wash)' : 'var(--sheet)'
        }
        stroke={here ? MARIGOLD : node.ending !== null ? 'none' : PINE}
        strokeWidth={here ? 2.5 : 1.5}
        strokeDasharray={unreached ? '3 3' : undefined}
      />
      <text
        x={inside ? x + 9 : x + width + 8}
        y={middle}
        fontSize="11.5"
        fontWeight="600"
        fill={inside && node.ending !== null ? 'var(--sheet)' : INK}
      >
        {text}
      </text>
      {dots > 0 &&
        dots <= 40 &&
        Array.from({ length: dots }, (_, n) => (
          <circle key={n} cx={dotsX + n * 9} cy={y + height / 2} r="2.8" fill={PINE_MID} />
        ))}
    </g>
  );
}

/** The ground of an unfolded section, with its title. */
function Band({ band, river, openNode }: { band: ForksBand; river: River; openNode: (id: Address) => void }) {
  if (!band.unfolded) return null;
  const { layout, sizes } = river;
  const [first, last] = [layout.nodes[band.nodes[0] ?? ''], layout.nodes[band.nodes.at(-1) ?? '']];
  if (first === undefined || last === undefined) return null;
  const [top, bottom] = [first.y - sizes.gap / 2 + 1, last.y + sizes.height + sizes.gap / 2 - 1];
  const marks = [
    ...(band.repeat === null ? [] : [`up to ${band.repeat} times`]),
    ...(band.draw === null ? [] : [`${band.draw[0]} of ${band.draw[1]} drawn`]),
  ];
  return (
    <g style={{ cursor: 'pointer' }} onDoubleClick={() => openNode(address('section', band.id))}>
      <rect
        x={-LABELS + 2}
        y={top}
        width={layout.width + LABELS + 30}
        height={bottom - top}
        rx="6"
        fill="var(--tint)"
        stroke="var(--line)"
      />
      {band.repeat !== null && (
        <path
          d={`M${layout.width + 22} ${top + 8} V${bottom - 8} M${layout.width + 26} ${top + 8} V${bottom - 8}`}
          stroke={PINE_MID}
          fill="none"
        />
      )}
      <text x={-LABELS + 12} y={top + 15} fontSize="12" fontWeight="700" fill={PINE_MID} fontFamily={MONO}>
        {band.letter}
      </text>
      <text
        transform={`translate(${layout.width + 18} ${top + 12}) rotate(90)`}
        fontSize="11"
        fill={SOFT}
        fontWeight="600"
      >
        {bottom - top < 90 ? '' : [shortened(band.title, 24), ...marks].join(' · ')}
      </text>
    </g>
  );
}

interface PlacedExit {
  readonly exit: ForksRibbon;
  readonly from: Point;
  readonly to: Point;
  /** At its end, where it is written what it is. */
  readonly thick: number;
}

/** Early endings leave at the right end of their node, one below the other. */
function exitsPlaced({ model, layout, sizes, weights }: River): PlacedExit[] {
  return model.nodes.flatMap((node) => {
    const point = layout.nodes[node.id];
    const exits = model.exits.filter(({ from }) => from === node.id);
    if (point === undefined || exits.length === 0) return [];
    let right = point.x + nodeWidth({ model, sizes, weights }, node.id);
    const below = point.y + sizes.height;
    let line = below + 2;
    return exits.map((exit) => {
      const width = ribbonWidth(weights.get(exit.id), sizes);
      const thick = Math.min(width, sizes.gap * 0.7);
      const from = { x: right - width / 2, y: below };
      right -= width;
      const room = Math.max(15, thick + 3);
      line += room;
      return { exit, from, to: { x: layout.width + EXIT_AT, y: line - room / 2 }, thick };
    });
  });
}

export function nodeWidth(
  { model, sizes, weights }: Pick<River, 'model' | 'sizes' | 'weights'>,
  id: string,
): number {
  return widthOf(model, id, (ribbon) => ribbonWidth(weights.get(ribbon.id), sizes));
}

function noteOf(band: ForksBand | null, isSection: boolean): string {
  if (band === null || !isSection) return '';
  if (band.repeat !== null) return `up to ${band.repeat} times`;
  return band.draw === null ? '' : `${band.draw[0]} of ${band.draw[1]} drawn`;
}

function shareText({ share }: ForksNode): string {
  return share === null ? '' : percentText(Math.min(1, share));
}

function weightText({ weights, measure }: River, { id }: ForksRibbon): string {
  const weight = weights.get(id);
  return weight === null || weight === undefined
    ? ''
    : `${percentText(weight)}${measure === 'routes' ? ' of routes' : ''}`;
}

function endingOf({ to }: ForksRibbon): string {
  return readAddress(to).name;
}

function titleOf(river: River, ribbon: ForksRibbon): string {
  const label = (id: Address) => nodeLabel(river.model, id);
  return `${label(ribbon.from)} → ${label(ribbon.to)} ${weightText(river, ribbon)}`;
}

function shortened(text: string, most: number): string {
  return text.length <= most ? text : `${text.slice(0, most - 1)}…`;
}
