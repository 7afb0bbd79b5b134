/** The map in the DOT language, line by line. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { address } from '../../document/addresses';
import { dot } from './dot';
import type { ForkGraph, GraphEdge, GraphNode } from './graph';

const [a, b, done, out] = [
  address('item', 'a'),
  address('item', 'b'),
  address('ending', 'done'),
  address('ending', 'out'),
];
const item = (rest: Partial<GraphNode>): GraphNode => ({
  id: a,
  kind: 'question',
  name: 'a',
  text: 'A?',
  share: 1,
  ...rest,
});
const edge = (rest: Partial<GraphEdge>): GraphEdge => ({
  from: a,
  to: b,
  share: 0.5,
  condition: 'a = 1',
  who: 'who owns',
  ...rest,
});
const GRAPH: ForkGraph = { title: 'Cars', sections: [], endings: [], edges: [] };
const tokens = ':root { --pine: #123456; --sheet: #ffffff; --plum: #654321; }';
const lines = (graph: Partial<ForkGraph>) => dot({ ...GRAPH, ...graph }, 'Draft', tokens).split('\n');
const attributesOf = (line = '') =>
  Object.fromEntries(
    [...line.matchAll(/(\w+)="((?:[^"\\]|\\.)*)"/g)].map(([, name, value]) => [name, value]),
  );

it('has a cluster for each section, its items in it, and the endings beside them', () => {
  const graph = lines({
    sections: [
      { label: 'A Cars', nodes: [item({}), item({ id: b, kind: 'statement', name: 'b', share: null })] },
      { label: 'B', nodes: [] },
    ],
    endings: [
      { id: done, kind: 'ending', name: 'done', text: 'complete', ending: 'complete', share: 0.8 },
      { id: out, kind: 'ending', name: 'out', text: 'screened out', ending: 'screened_out', share: null },
    ],
  });
  assert.deepEqual(
    graph.map((line) => line.replace(/ \[.*/, '')),
    [
      'digraph "Cars" {',
      '  graph',
      '  node',
      '  edge',
      '  subgraph "cluster_1" {',
      '    graph',
      '    "item:a"',
      '    "item:b"',
      '  }',
    ].concat(['  subgraph "cluster_2" {', '    graph', '  }', '  "ending:done"', '  "ending:out"', '}', '']),
  );
  assert.equal(attributesOf(graph[1]).label, 'Cars\\nDraft');
  assert.equal(attributesOf(graph[5]).label, 'A Cars');
  assert.deepEqual(attributesOf(graph[6]), { label: 'a · 100%\\nA?', tooltip: 'A?' });
  assert.deepEqual(attributesOf(graph[7]), { label: 'b\\nA?', tooltip: 'A?', style: 'rounded,dashed' });
  assert.deepEqual(
    [graph[12], graph[13]].map((line) => [attributesOf(line).label, attributesOf(line).shape]),
    [
      ['complete · 80%', 'box'],
      ['screened out', 'cds'],
    ],
  );
});

it('cuts long words, and lets nobody out of a quotation', () => {
  const long = 'x'.repeat(45);
  const of = (text: string) =>
    attributesOf(lines({ sections: [{ label: '', nodes: [item({ text, share: null })] }] })[6]).label;
  assert.equal(of(long.slice(1)), `a\\n${long.slice(1)}`);
  assert.equal(of(long), `a\\n${'x'.repeat(43)}…`);
  assert.equal(of('"];\\ \n --pine'), 'a\\n\\"];\\\\ \\n --pine');
});

it('has a line as thick as its share, named where not all take it', () => {
  const drawn = lines({
    edges: [
      edge({}),
      edge({ share: 1.4 }),
      edge({ share: 0.001 }),
      edge({ share: null }),
      edge({ condition: 'always' }),
      edge({ condition: null }),
    ],
  })
    .slice(4, -2)
    .map(attributesOf);
  assert.deepEqual(drawn, [
    { label: '50%', tooltip: 'who owns', penwidth: '6.00' },
    { label: '100%', tooltip: 'who owns', penwidth: '12.00' },
    { label: '0.10%', tooltip: 'who owns', penwidth: '0.80' },
    { label: '', tooltip: 'who owns' },
    { penwidth: '6.00' },
    { penwidth: '6.00' },
  ]);
  assert.match(lines({ edges: [edge({})] })[4] ?? '', /^ {2}"item:a" -> "item:b" \[/);
});
