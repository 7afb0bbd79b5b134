/** The fork map: drawn by graphviz, reckoned with by igraph, and its pictures opened; against made-up respondents' walks. */
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { address } from '../src/core/document/addresses';
import { madeUpRespondents } from '../src/core/simulate/respondents';
import { called, fileOf, type Unpacked } from './package';
import { lackingWords, type Verdict } from './verdict';

const IGRAPH = `
suppressPackageStartupMessages(library(igraph))
g <- read_graph(commandArgs(TRUE)[1], format = "graphml")
first <- which(V(g)$name == commandArgs(TRUE)[2])
reached <- subcomponent(g, first, mode = "out")
cat(vcount(g), ecount(g), is_dag(g), vcount(g) - length(reached), "\\n")
cat(sprintf("%.9f\\n", sum(V(g)$share[V(g)$kind == "ending"])))
cat(paste(tail_of(g, E(g))$id, head_of(g, E(g))$id), sep = "\\n")
`;

const PICTURE = `
library(png)
p <- readPNG(commandArgs(TRUE)[1])
ground <- p[1, 1, ]
other <- abs(p[, , 1] - ground[1]) + abs(p[, , 2] - ground[2]) + abs(p[, , 3] - ground[3]) > 0.05
cat(dim(p)[2], dim(p)[1], round(100 * mean(other)))
`;

export function byMapReaders(study: Unpacked): Verdict[] {
  const { document } = study;
  const items = document.sections.flatMap(({ items: all }) =>
    all.flatMap((item) => (item.kind === 'page_break' ? [] : [item.name])),
  );
  const places = [
    ...items.map((name) => address('item', name)),
    ...document.endings.map(({ id }) => address('ending', id)),
  ];
  const ways = waysTaken(study, items);
  return [byGraphviz(study, places, ways), byIgraph(study, places, ways, items[0] ?? ''), byPng(study)];
}

/** Straight from one item to the next, or to an ending: what a thousand people did, as \`from to\`. Not into a later pass. */
function waysTaken({ plan }: Unpacked, items: readonly string[]): ReadonlySet<string> {
  const ways = new Set<string>();
  const nameOf = (key: string) => key.split('#')[0] ?? '';
  for (const { presented, ending } of madeUpRespondents(plan, 1000, 2)) {
    const names = presented.map(nameOf);
    names.forEach((name, n) => {
      const next = names[n + 1];
      const end = plan.endings[ending ?? -1]?.ending.id ?? '';
      if (next !== undefined && items.indexOf(next) <= items.indexOf(name)) return;
      const to = next === undefined ? address('ending', end) : address('item', next);
      ways.add(`${address('item', name)} ${to}`);
    });
  }
  return ways;
}

function byGraphviz(study: Unpacked, places: readonly string[], ways: ReadonlySet<string>): Verdict {
  const lines = called('dot', ['-Tplain', fileOf(study, 'map.dot')]).split('\n');
  const words = (line: string) =>
    [...line.matchAll(/"((?:[^"\\]|\\.)*)"|(\S+)/g)].map(([, quoted, plain]) => quoted ?? plain ?? '');
  const drawn = lines.map(words);
  const nodes = drawn.flatMap(([kind, name = '']) => (kind === 'node' ? [name] : []));
  const edges = drawn.flatMap(([kind, from, to]) => (kind === 'edge' ? [`${from} ${to}`] : []));
  const lacking = [
    ...places.filter((place) => !nodes.includes(place)),
    ...[...ways].filter((way) => !edges.includes(way)),
  ];
  return {
    file: 'map.dot',
    reader: 'graphviz',
    saw: `${nodes.length} nodes and ${edges.length} lines drawn, among them the ${ways.size} ways of made-up respondents; ${lackingWords(lacking)}`,
    ok: lacking.length === 0 && nodes.length === places.length,
  };
}

function byIgraph(
  study: Unpacked,
  places: readonly string[],
  ways: ReadonlySet<string>,
  first: string,
): Verdict {
  const script = path.join(study.folder, 'map.R');
  writeFileSync(script, IGRAPH);
  const [head = '', ends = '', ...edges] = called('Rscript', [
    '--vanilla',
    script,
    fileOf(study, 'map.graphml'),
    first,
  ])
    .trim()
    .split('\n');
  const [nodes, lines, isDag, unreached] = head.trim().split(' ');
  const lacking = [...ways].filter((way) => !edges.includes(way));
  return {
    file: 'map.graphml',
    reader: 'R, igraph',
    saw: `${nodes} nodes and ${lines} lines, ${isDag === 'TRUE' ? 'none in a circle' : 'in circles'}, ${unreached} not reached from the first; endings add up to ${Number(ends)}; ${lackingWords(lacking)}`,
    ok:
      Number(nodes) === places.length &&
      isDag === 'TRUE' &&
      unreached === '0' &&
      Math.abs(Number(ends) - 1) < 1e-6 &&
      lacking.length === 0,
  };
}

function byPng(study: Unpacked): Verdict {
  const script = path.join(study.folder, 'png.R');
  writeFileSync(script, PICTURE);
  const [width, height, drawn] = called('Rscript', ['--vanilla', script, fileOf(study, 'map.png')])
    .trim()
    .split(' ')
    .map(Number);
  return {
    file: 'map.png',
    reader: 'R, png',
    saw: `${width} by ${height} pixels, ${drawn}% of them drawn on`,
    ok: (width ?? 0) > 1000 && (height ?? 0) > 1000 && (drawn ?? 0) > 10,
  };
}
