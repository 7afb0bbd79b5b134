/**
 * Lays the river out by the Eclipse Layout Kernel's layered algorithm: every node on a layer of its own in the order of the
 * questionnaire, ribbons side by side without crossing more than they must.
 */
import type { ElkNode } from 'elkjs/lib/elk.bundled.js';
import { compacted, type LayoutTask, type Point, type RiverLayout } from './river';

/** More nodes than this are laid out with less trying. */
const MANY = 120;
const MANY_RIBBONS = 200;

/** Takes seconds for hundreds of nodes: to be called where nobody waits for the thread. */
export async function layOut(task: LayoutTask): Promise<RiverLayout> {
  const { default: ELK } = await import('elkjs/lib/elk.bundled.js');
  const laid = await new ELK().layout(graphOf(task));
  const nodes = Object.fromEntries((laid.children ?? []).map(({ id, x = 0, y = 0 }) => [id, { x, y }]));
  const ribbons = Object.fromEntries(
    (laid.edges ?? []).map(({ id, sections = [] }) => [
      id,
      sections.flatMap(({ startPoint, bendPoints = [], endPoint }): Point[] => [
        startPoint,
        ...bendPoints,
        endPoint,
      ]),
    ]),
  );
  return compacted({ nodes, ribbons, width: laid.width ?? 0, height: laid.height ?? 0 }, task);
}

function graphOf({ nodes, ribbons, height, gap }: LayoutTask): ElkNode {
  const many = nodes.length > MANY || ribbons.length > MANY_RIBBONS;
  const port = (id: string, side: 'NORTH' | 'SOUTH', width: number) => ({
    id,
    width,
    height: 0.01,
    layoutOptions: { 'elk.port.side': side },
  });
  return {
    id: 'river',
    layoutOptions: {
      'elk.algorithm': 'layered',
      'elk.direction': 'DOWN',
      'elk.partitioning.activate': 'true',
      'elk.separateConnectedComponents': 'false',
      'elk.edgeRouting': 'POLYLINE',
      'elk.layered.considerModelOrder.strategy': 'NODES_AND_EDGES',
      'elk.layered.nodePlacement.strategy': many ? 'LINEAR_SEGMENTS' : 'NETWORK_SIMPLEX',
      'elk.layered.thoroughness': many ? '1' : '5',
      // Switching neighbours afterwards found nothing to better in 39 questionnaires, and takes a quarter of the time.
      'elk.layered.crossingMinimization.greedySwitch.type': 'OFF',
      'elk.spacing.portPort': '0',
      'elk.spacing.portsSurrounding': '[top=0,left=0,bottom=0,right=0]',
      'elk.spacing.edgeNode': '16',
      'elk.spacing.edgeEdge': '6',
      'elk.layered.spacing.edgeNodeBetweenLayers': String(Math.min(18, gap / 3)),
      'elk.layered.spacing.nodeNodeBetweenLayers': String(gap),
    },
    children: nodes.map(({ id, width }, at) => ({
      id,
      width,
      height,
      layoutOptions: {
        'elk.partitioning.partition': String(at),
        'elk.portConstraints': 'FIXED_SIDE',
        'elk.portAlignment.default': 'BEGIN',
      },
      ports: [
        ...ribbons.filter(({ to }) => to === id).map((each) => port(`${each.id} in`, 'NORTH', each.width)),
        ...ribbons
          .filter(({ from }) => from === id)
          .map((each) => port(`${each.id} out`, 'SOUTH', each.width)),
      ],
    })),
    edges: ribbons.map(({ id, width }) => ({
      id,
      sources: [`${id} out`],
      targets: [`${id} in`],
      layoutOptions: {
        'elk.edge.thickness': String(width),
        // Wide ribbons run straight, narrow ones give way.
        'elk.layered.priority.straightness': String(1 + Math.round(width / 20)),
      },
    })),
  };
}
