/** The files of the map: whole, sound to whoever reads them, and marked with what they are of. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, questionnaire, section } from '../../../../tests/support/questionnaire';
import { parseCondition } from '../../condition/parse';
import { address } from '../../document/addresses';
import type { Questionnaire } from '../../document/types';
import { NO_WORK } from '../../exchange/work-file';
import { allNamed, childrenOf, readXml, type ReadElement } from '../../exchange/xml';
import type { StudyContent, VersionMark } from '../format-types';
import { FORMATS } from '../formats';
import { demo as demoStudy } from '../../../../tests/support/demo';

const demo = demoStudy();
const VERSION: VersionMark = { number: 3, frozen: true, at: Date.UTC(2026, 10, 9) };

async function written(
  document: Questionnaire,
  kind: string,
  version?: VersionMark,
): Promise<string | Uint8Array> {
  const content: StudyContent = { document, work: NO_WORK, ...(version === undefined ? {} : { version }) };
  return FORMATS.map.write(content, kind);
}

function tree(text: string | Uint8Array): ReadElement {
  assert.ok(typeof text === 'string');
  const found = readXml(new TextEncoder().encode(text));
  assert.ok(found.ok);
  return found.root;
}

const dataOf = (of: ReadElement) =>
  Object.fromEntries(childrenOf(of, 'data').map((each) => [each.attributes.key, each.text]));

const everyPlace = (document: Questionnaire) => [
  ...document.sections.flatMap(({ items }) =>
    items.flatMap((item) => (item.kind === 'page_break' ? [] : [address('item', item.name)])),
  ),
  ...document.endings.map(({ id }) => address('ending', id)),
];

it('is a graph of every item and ending, with who goes where and how many', async () => {
  const root = tree(await written(demo, 'map.graphml', VERSION));
  const keys = new Map(childrenOf(root, 'key').map((key) => [key.attributes.id, key.attributes]));
  const [graph] = childrenOf(root, 'graph');
  assert.ok(graph !== undefined);
  assert.deepEqual(dataOf(graph), { title: demo.title, version: 'Version 3, frozen 2026-11-09' });
  const nodes = childrenOf(graph, 'node');
  assert.deepEqual(
    nodes.map(({ attributes }) => attributes.id),
    everyPlace(demo),
  );
  const into = new Map<string, number>();
  const conditions = new Set<string>();
  for (const edge of childrenOf(graph, 'edge')) {
    const { source = '', target = '' } = edge.attributes;
    assert.ok([source, target].every((id) => nodes.some(({ attributes }) => attributes.id === id)));
    const { condition = '', flow = '' } = dataOf(edge);
    assert.ok(parseCondition(condition).ok, condition);
    conditions.add(`${source} ${condition}`);
    into.set(target, (into.get(target) ?? 0) + Number(flow));
  }
  assert.ok(conditions.has('item:heat_main heat_main = 1'));
  for (const node of nodes) {
    const { share = '', section: where = '' } = dataOf(node);
    for (const key of Object.keys(dataOf(node))) assert.equal(keys.get(key)?.for, 'node');
    // A repeated section is entered once, and its items are told for one pass.
    if (node === nodes[0] || where.startsWith('G ')) continue;
    const arriving = into.get(node.attributes.id ?? '') ?? 0;
    assert.ok(Math.abs(arriving - Number(share)) < 1e-9, `${node.attributes.id}: ${arriving} of ${share}`);
  }
});

it('is a picture of every item that says what it is of, with no colour left to a page', async () => {
  const svg = await written(demo, 'map.svg', VERSION);
  assert.ok(typeof svg === 'string');
  assert.doesNotMatch(svg, /var\(|undefined|NaN/);
  const root = tree(svg);
  const drawn = allNamed(root, 'g').flatMap(({ attributes }) => attributes['data-node'] ?? []);
  const early = demo.endings.filter(({ kind }) => kind === 'screened_out' || kind === 'declined');
  const isEarly = (at: string) => early.some(({ id }) => at === address('ending', id));
  assert.deepEqual(
    drawn,
    everyPlace(demo).filter((at) => !isEarly(at)),
  );
  const words = allNamed(root, 'text').map(({ text }) => text);
  assert.equal(words[0], demo.title);
  assert.match(words[1] ?? '', /^Version 3, frozen 2026-11-09 · map of forks · .* share of the sample/);
  const [x = 0, y = 0, width = 0, height = 0] = (root.attributes.viewBox ?? '').split(' ').map(Number);
  for (const { attributes } of allNamed(root, 'rect')) {
    const [left, top] = [Number(attributes.x), Number(attributes.y)];
    const [right, below] = [left + Number(attributes.width), top + Number(attributes.height)];
    assert.ok(left >= x && top >= y && right <= x + width && below <= y + height, JSON.stringify(attributes));
  }
});

it('is a picture in pixels, half as large again, with its words drawn', async () => {
  const png = async (version?: VersionMark) => {
    const bytes = await written(demo, 'map.png', version);
    assert.ok(typeof bytes !== 'string');
    return Buffer.from(bytes);
  };
  const [draft, again, version] = [await png(), await png(), await png(VERSION)];
  const root = tree(await written(demo, 'map.svg'));
  const size = [root.attributes.width, root.attributes.height].map((side) => Math.ceil(1.5 * Number(side)));
  assert.equal(draft.toString('latin1', 1, 4), 'PNG');
  assert.deepEqual([draft.readUInt32BE(16), draft.readUInt32BE(20)], size);
  assert.ok(draft.equals(again));
  assert.ok(!draft.equals(version));
});

it('keeps a section folded where any item may follow any other, and says so', async () => {
  const many = Array.from({ length: 30 }, (_, n) => ask(`q${n}`));
  const title =
    'What people who live beside a canal say about noise, traffic, moorings, the path along it and var(--ink)';
  const document = {
    ...questionnaire([section('a', [ask('first')]), section('b', many, { draw: 15 })]),
    title,
  };
  const root = tree(await written(document, 'map.svg'));
  const drawn = allNamed(root, 'g').flatMap(({ attributes }) => attributes['data-node'] ?? []);
  assert.deepEqual(drawn, ['item:first', 'section:b', 'ending:done']);
  const words = allNamed(root, 'text').map(({ text }) => text);
  // Both go on in further lines, where they are longer than the map is wide.
  assert.ok(words[0] !== title);
  assert.ok(words.join(' ').startsWith(`${title} Draft · map of forks`));
  assert.match(words.join(' '), / B b stays folded: nearly any item may follow any other there/);
  const graph = tree(await written(document, 'map.graphml'));
  // Any of them may be the first or the last that is drawn, but for those that leave too few.
  assert.ok(allNamed(graph, 'edge').length > 200);
});

it('is in the DOT language, whatever words are in it', async () => {
  const document = {
    ...questionnaire([
      section('a', [ask('q1'), { ...ask('q2'), text: 'Is "C:\\new" -> so?\nReally **so**;' }]),
    ]),
    title: '"}] digraph var(--ink) \\',
  };
  const dot = await written(document, 'map.dot');
  assert.ok(typeof dot === 'string');
  const id = '"(?:[^"\\\\\\n]|\\\\.)*"';
  const list = `\\[(?:\\w+=${id}(?:, )?)*\\];`;
  const statements = [`digraph ${id} \\{`, `(?:graph|node|edge|${id}) ${list}`, `${id} -> ${id} ${list}`];
  const sound = new RegExp(`^ *(?:${[...statements, `subgraph ${id} \\{`, '\\}'].join('|')})$`);
  const lines = dot.trimEnd().split('\n');
  for (const line of lines) assert.match(line, sound);
  assert.ok(lines[0]?.includes('var(--ink)'));
  assert.doesNotMatch(lines.slice(2).join('\n'), /var\(/);
  assert.ok(
    lines.some((line) => line.includes('tooltip="Is \\"C:\\\\new\\" -> so? Really so;"')),
    dot,
  );
});
