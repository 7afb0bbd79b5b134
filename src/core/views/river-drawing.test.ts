/** The river as it is drawn: what is lit around what is chosen, what stands beside its nodes, and where early endings leave. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { address, type Address } from '../document/addresses';
import type { Element } from '../exchange/element';
import type { ForksBand, ForksModel, ForksNode, ForksRibbon } from './forks';
import { boundsOf, drawRiver, UNMARKED, type Marked } from './river-drawing';
import { askedRoutes, denseWords, ribbonWidth, routeWeights, shareWeights, type River } from './river';
import * as colours from './river-colours';

const plan = planFor(
  questionnaire([section('a', [ask('one')]), section('b', [ask('two')]), section('c', [ask('three')])]),
);
const [a, b, c, done, out] = [
  ...['a', 'b', 'c'].map((id) => address('section', id)),
  ...['done', 'out'].map((id) => address('ending', id)),
] as [Address, Address, Address, Address, Address];

const node = (id: Address, rest: Partial<ForksNode> = {}): ForksNode => ({
  ...{ id, mark: 'A', label: 'Heat', section: 0, items: ['one'], share: 1, ending: null },
  ...rest,
});
const ribbon = (from: Address, to: Address, share: number | null = 0.5): ForksRibbon => ({
  id: `${from}>${to}`,
  from,
  to,
  share,
});
const MODEL: ForksModel = {
  nodes: [
    node(a),
    node(b, { mark: 'B', share: 0 }),
    node(c, { mark: 'C' }),
    node(done, { section: null, ending: 'complete', label: 'complete' }),
  ],
  bands: [],
  ribbons: [ribbon(a, b), ribbon(b, c), ribbon(a, c), ribbon(c, done), ribbon(a, done)],
  exits: [ribbon(a, out, 0.2), ribbon(c, out, 0.1)],
};

function river(change: Partial<ForksModel> = {}, rest: Partial<River> = {}): River {
  const model = { ...MODEL, ...change };
  return {
    plan,
    model,
    tooDense: [],
    sizes: { full: 440, height: 20, gap: 30 },
    weights: shareWeights(model),
    measure: 'share',
    layout: {
      width: 500,
      height: 200,
      nodes: Object.fromEntries(model.nodes.map(({ id }, n) => [id, { x: 10, y: 50 * n }])),
      ribbons: Object.fromEntries(
        model.ribbons.map(({ id }) => [
          id,
          [
            { x: 20, y: 0 },
            { x: 20, y: 30 },
          ],
        ]),
      ),
    },
    ...rest,
  };
}

const isElement = (of: Element | string): of is Element => typeof of !== 'string';
const all = (of: Element): Element[] => [of, ...of.children.filter(isElement).flatMap(all)];
const wordsOf = (of: Element): string =>
  of.children.map((child) => (isElement(child) ? wordsOf(child) : child)).join('');
const drawn = (of = river(), marked: Marked = UNMARKED) => all(drawRiver(of, marked));
const marked = (id: string, of = drawn()) =>
  of.find(({ attributes }) =>
    [attributes['data-node'], attributes['data-ribbon'], attributes['data-band']].includes(id),
  ) ?? assert.fail(id);
const textsIn = (of: Element) =>
  all(of)
    .filter(({ name }) => name === 'text')
    .map(wordsOf);

describe('what is lit', () => {
  const lit = (chosen: Address, ids: readonly Address[]) =>
    drawn(river(), { ...UNMARKED, chosen: { node: chosen, ribbon: null }, lit: new Set(ids) })
      .filter(({ attributes }) => attributes['data-ribbon'] !== undefined && attributes.opacity === '1')
      .map(({ attributes }) => attributes['data-ribbon']);

  it('is everything where nothing is chosen', () => {
    const dimmed = drawn().filter(({ attributes }) => ['0.25', '0.3'].includes(attributes.opacity ?? ''));
    assert.deepEqual(dimmed, []);
  });

  it('is every way through what is chosen, and none around it or out before it', () => {
    const ids = [a, b, c, done];
    const [ab, bc, ac, cd, ad] = MODEL.ribbons.map(({ id }) => id);
    const [early, late] = MODEL.exits.map(({ id }) => id);
    assert.deepEqual(lit(b, ids), [ab, bc, cd, late]);
    assert.deepEqual(lit(a, ids), [ab, bc, ac, cd, ad, early, late]);
    assert.deepEqual(lit(c, [a, c, done]), [ac, cd, late]);
  });

  it('leaves nodes dim that are on no route with it', () => {
    const shown = drawn(river(), { ...UNMARKED, chosen: { node: b, ribbon: null }, lit: new Set([a, b]) });
    assert.deepEqual(
      [a, b, c].map((id) => marked(id, shown).attributes.opacity),
      ['1', '1', '0.3'],
    );
  });
});

describe('a node', () => {
  const rect = (of: Element) => all(of).filter(({ name }) => name === 'rect')[1]?.attributes ?? {};

  it('is as wide as what comes in or goes out, outlined where it is chosen, broken where nobody comes', () => {
    const shown = drawn(river(), { ...UNMARKED, chosen: { node: a, ribbon: null } });
    // Half go to each of three, and a fifth leaves.
    assert.equal(rect(marked(a, shown)).width, String(440 * (0.5 * 3 + 0.2)));
    assert.deepEqual(
      [a, b].map((id) => [
        rect(marked(id, shown))['stroke-width'],
        rect(marked(id, shown)).fill,
        rect(marked(id, shown))['stroke-dasharray'],
      ]),
      [
        ['2.5', colours.MARIGOLD_WASH, undefined],
        ['1.5', colours.SHEET, '3 3'],
      ],
    );
    assert.equal(rect(marked(done, shown)).fill, colours.endingColour('complete'));
    assert.match(wordsOf(marked(b, shown)), /no respondent comes here/);
  });

  it('has beside it what it is called, how many come, and how many snags there are', () => {
    const item = node(address('item', 'one'), { mark: 'one', label: 'One?' });
    const long = node(b, { mark: 'B', label: 'A section of a very long name', share: 0.256 });
    const shown = drawn(river({ nodes: [item, long] }), { ...UNMARKED, snags: new Map([[b, 3]]) });
    assert.deepEqual(textsIn(marked(item.id, shown)), ['one', '100%']);
    assert.deepEqual(textsIn(marked(b, shown)), ['B', 'A section of a very…', '3', '26%']);
    assert.deepEqual(textsIn(marked(a, drawn(river({ nodes: [node(a, { share: null })] })))), [
      'A',
      'Heat',
      '',
    ]);
  });

  it('has a dot for each item of a section, of many none, inside where there is room', () => {
    const dots = (count: number, share = 1) =>
      all(
        marked(
          a,
          drawn(
            river({
              nodes: [node(a, { items: Array.from({ length: count }, String) })],
              ribbons: [ribbon(a, b, share)],
              exits: [],
            }),
          ),
        ),
      ).filter(({ name }) => name === 'circle');
    assert.deepEqual(
      [1, 40, 41].map((count) => dots(count).length),
      [1, 40, 0],
    );
    const at = (list: readonly Element[]) => list.map(({ attributes }) => Number(attributes.cx));
    // Wide: from the right end inwards; narrow: beside its figures, which stand beside it.
    assert.deepEqual(at(dots(2)), [10 + 440 - 30 + 6, 10 + 440 - 30 + 15]);
    assert.deepEqual(at(dots(1, 0.01)), [10 + 8 + 4 * 6.4 + 20]);
  });

  it('tells of its section how often it runs and what is drawn of it', () => {
    const band: ForksBand = {
      ...{ section: 0, id: 'a', letter: 'A', title: 'Heat', unfolded: false, nodes: [a] },
      repeat: null,
      draw: null,
    };
    const figures = (of: Partial<ForksBand>) =>
      textsIn(marked(a, drawn(river({ bands: [{ ...band, ...of }] })))).at(-1);
    assert.deepEqual(
      [figures({}), figures({ repeat: 4 }), figures({ draw: [2, 5] })],
      ['100%', '100% · up to 4 times', '100% · 2 of 5 drawn'],
    );
  });
});

describe('a section that is unfolded', () => {
  it('has its ground from its first node to its last, its title at the side where it is high enough', () => {
    const band = {
      ...{ section: 0, id: 'a', letter: 'A', title: 'How the homes are heated', unfolded: true },
      repeat: 3,
      draw: null,
    };
    const shown = (nodes: Address[]) =>
      marked(address('section', 'a'), drawn(river({ bands: [{ ...band, nodes }] })).slice(0, 20));
    const ground = all(shown([a, c])).find(({ name }) => name === 'rect')?.attributes;
    assert.deepEqual([ground?.y, ground?.height], ['-14', String(100 + 20 + 14 + 14)]);
    assert.deepEqual(textsIn(shown([a, c])), ['A', 'How the homes are heated · up to 3 times']);
    assert.deepEqual(textsIn(shown([a])), ['A']);
    assert.ok(all(shown([a])).some(({ name }) => name === 'path'));
  });
});

describe('early endings', () => {
  it('leave from the right end of their node, one below the other, with their words and weight', () => {
    const two = [ribbon(a, out, 0.2), { ...ribbon(a, done, null), id: 'second' }];
    const shown = drawn(river({ exits: two }, { measure: 'routes' }));
    const [first, second] = two.map(({ id }) => marked(id, shown));
    assert.deepEqual(textsIn(first as Element), ['Screened out20% of routes']);
    assert.deepEqual(textsIn(second as Element), ['Complete']);
    const heights = [first, second].map((of) =>
      Number(all(of as Element).find(({ name }) => name === 'rect')?.attributes.y),
    );
    // The first as thick as the gap lets it be, and room of its own for the other.
    assert.deepEqual(heights, [20 + 2 + 24 / 2 - 7, 20 + 2 + 24 + 15 / 2 - 7]);
  });
});

it('leaves room at the left for names and at the right for endings', () => {
  assert.deepEqual(boundsOf(river().layout), { x: -208, y: -14, width: 208 + 500 + 46 + 150, height: 230 });
});

it('is as wide as the routes that go along, and never too narrow to see', () => {
  const of = [
    { id: 'x', along: {} },
    { id: 'y', along: null },
    { id: 'z', along: {} },
  ] as ReturnType<typeof askedRoutes>;
  assert.deepEqual(
    [...routeWeights(of, [1n, 3n], 4n)],
    [
      ['x', 0.25],
      ['y', null],
      ['z', 0.75],
    ],
  );
  const sizes = { full: 400, height: 20, gap: 10 };
  assert.deepEqual(
    [0.5, 0, null, undefined].map((weight) => ribbonWidth(weight, sizes)),
    [200, 1.5, 1.5, 1.5],
  );
});

it('says which sections stay folded', () => {
  const words = (tooDense: string[]) => denseWords({ plan, tooDense });
  assert.equal(words([]), null);
  assert.match(words(['a']) ?? '', /^A a stays folded: /);
  assert.match(words(['a', 'c']) ?? '', /^A a, C c stay folded: /);
});
