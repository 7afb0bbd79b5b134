/** The river as a picture by itself: with a heading that says what it is of, its colours and its ground. */
import { element, type Element } from '../exchange/element';
import { xmlText } from '../exchange/xml';
import { denseWords, type River } from './river';
import { DESK, resolving, SOFT } from './river-colours';
import { boundsOf, drawRiver, type Marked } from './river-drawing';

export interface PictureOf {
  readonly title: string;
  /** Which version it is of. */
  readonly version: string;
}

export interface Picture {
  /** SVG, in pixels of its size. */
  readonly svg: string;
  readonly width: number;
  readonly height: number;
}

const MARGIN = 10;
/** Of the heading: size of its signs, how wide one is at most on average, and from line to line. */
const LARGE = { size: 16, sign: 9, line: 21 };
const SMALL = { size: 11.5, sign: 6.2, line: 16 };

/** `tokens`: the stylesheet in which the colours are; `style`: more that goes into the file, as its fonts. */
export function riverPicture(
  river: River,
  marked: Marked,
  { title, version }: PictureOf,
  tokens: string,
  style?: string,
): Picture {
  const bounds = boundsOf(river.layout);
  const measure = river.measure === 'share' ? 'share of the sample' : 'part of all routes';
  const about = `${version} · map of forks · ribbons as wide as the ${measure} that goes along them`;
  const small = [about, denseWords(river) ?? ''].flatMap((words) =>
    linesOf(words, bounds.width / SMALL.sign),
  );
  const large = linesOf(title, bounds.width / LARGE.sign);
  const head = MARGIN + large.length * LARGE.line + small.length * SMALL.line + MARGIN;
  const [x, y] = [Math.floor(bounds.x - MARGIN), Math.floor(bounds.y - head)];
  const [width, height] = [Math.ceil(bounds.width + 2 * MARGIN), Math.ceil(bounds.height + head)];
  const drawing = drawRiver(river, marked);
  const family = { 'font-family': drawing.attributes['font-family'] };
  let line = y + MARGIN;
  const written = (
    words: string,
    { size, line: room }: typeof LARGE,
    look: Readonly<Record<string, string>>,
  ) => {
    line += room;
    return element('text', { x: bounds.x, y: line, 'font-size': size, ...family, ...look }, words);
  };
  const root = element(
    'svg',
    { xmlns: 'http://www.w3.org/2000/svg', viewBox: `${x} ${y} ${width} ${height}`, width, height },
    element('title', {}, `${title}: map of forks`),
    style !== undefined && element('style', {}, style),
    element('rect', { x, y, width, height, fill: DESK }),
    large.map((words) => written(words, LARGE, { 'font-weight': '700' })),
    small.map((words) => written(words, SMALL, { fill: SOFT })),
    drawing,
  );
  return { svg: xmlText(coloured(root, resolving(tokens))), width, height };
}

/** Lines of at most so many signs, broken between words; none of no words. */
function linesOf(words: string, most: number): string[] {
  const lines: string[] = [];
  for (const word of words.split(/\s+/)) {
    const last = lines.at(-1);
    if (word === '') continue;
    if (last !== undefined && last.length + 1 + word.length <= most)
      lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines;
}

/** In attributes alone: words are the author's. */
function coloured({ name, attributes, children }: Element, resolved: (colour: string) => string): Element {
  return {
    name,
    attributes: Object.fromEntries(
      Object.entries(attributes).map(([attribute, value]) => [attribute, resolved(value)]),
    ),
    children: children.map((child) => (typeof child === 'string' ? child : coloured(child, resolved))),
  };
}
