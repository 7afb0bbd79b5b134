/** The map as GraphML (http://graphml.graphdrawing.org), with what is known of nodes and lines as typed data. */
import { element, type Element } from '../../exchange/element';
import { xmlText } from '../../exchange/xml';
import type { ForkGraph, GraphEdge, GraphNode } from './graph';

interface Key<Of> {
  readonly id: string;
  readonly type: 'string' | 'double';
  readonly value: (of: Of) => string | number | null | undefined;
}

const OF_NODES: readonly Key<GraphNode>[] = [
  { id: 'kind', type: 'string', value: ({ kind }) => kind },
  { id: 'name', type: 'string', value: ({ name }) => name },
  { id: 'text', type: 'string', value: ({ text }) => text },
  { id: 'section', type: 'string', value: ({ section }) => section },
  { id: 'ending', type: 'string', value: ({ ending }) => ending },
  { id: 'share', type: 'double', value: ({ share }) => share },
];
const OF_EDGES: readonly Key<GraphEdge>[] = [
  { id: 'condition', type: 'string', value: ({ condition }) => condition },
  { id: 'who', type: 'string', value: ({ who }) => who },
  { id: 'flow', type: 'double', value: ({ share }) => share },
];

/** `version`: which version it is of. */
export function graphml(graph: ForkGraph, version: string): string {
  const nodes = [...graph.sections.flatMap((section) => section.nodes), ...graph.endings];
  return xmlText(
    element(
      'graphml',
      {
        xmlns: 'http://graphml.graphdrawing.org/xmlns',
        'xmlns:xsi': 'http://www.w3.org/2001/XMLSchema-instance',
        'xsi:schemaLocation':
          'http://graphml.graphdrawing.org/xmlns http://graphml.graphdrawing.org/xmlns/1.0/graphml.xsd',
      },
      keyElement('title', 'string', 'graph'),
      keyElement('version', 'string', 'graph'),
      OF_NODES.map(({ id, type }) => keyElement(id, type, 'node')),
      OF_EDGES.map(({ id, type }) => keyElement(id, type, 'edge')),
      element(
        'graph',
        { id: 'forks', edgedefault: 'directed' },
        element('data', { key: 'title' }, graph.title),
        element('data', { key: 'version' }, version),
        nodes.map((node) => element('node', { id: node.id }, dataOf(OF_NODES, node))),
        graph.edges.map((edge) =>
          element('edge', { source: edge.from, target: edge.to }, dataOf(OF_EDGES, edge)),
        ),
      ),
    ),
  );
}

function keyElement(id: string, type: string, of: 'graph' | 'node' | 'edge'): Element {
  return element('key', { id, for: of, 'attr.name': id, 'attr.type': type });
}

function dataOf<Of>(keys: readonly Key<Of>[], of: Of): Element[] {
  return keys.flatMap(({ id, value }) => {
    const known = value(of);
    return known === null || known === undefined ? [] : [element('data', { key: id }, String(known))];
  });
}
