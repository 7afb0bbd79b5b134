/** The river as a picture by itself: with a heading that says what it is of, its colours and its ground. */
import { element } from '../exchange/element';
import { xmlText } from '../exchange/xml';
import { denseWords, type River } from './river';
import { DESK, resolved, SOFT } from './river-colours';
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

const HEADING = 52;
const LINE = 15;
const MARGIN = 10;

/** `tokens`: the stylesheet in which the colours are; `style`: more that goes into the file, as its fonts. */
export function riverPicture(
  river: River,
  marked: Marked,
  { title, version }: PictureOf,
  tokens: string,
  style?: string,
): Picture {
  const bounds = boundsOf(river.layout);
  const dense = denseWords(river);
  const head = HEADING + (dense === null ? 0 : LINE);
  const [x, y] = [Math.floor(bounds.x - MARGIN), Math.floor(bounds.y - head)];
  const [width, height] = [Math.ceil(bounds.width + 2 * MARGIN), Math.ceil(bounds.height + head)];
  const measure = river.measure === 'share' ? 'share of the sample' : 'part of all routes';
  const about = `${version} · map of forks · ribbons as wide as the ${measure} that goes along them`;
  const drawing = drawRiver(river, marked);
  const heading = { x: bounds.x, 'font-family': drawing.attributes['font-family'] };
  const root = element(
    'svg',
    { xmlns: 'http://www.w3.org/2000/svg', viewBox: `${x} ${y} ${width} ${height}`, width, height },
    element('title', {}, `${title}: map of forks`),
    style !== undefined && element('style', {}, style),
    element('rect', { x, y, width, height, fill: DESK }),
    element('text', { ...heading, y: y + 24, 'font-size': 16, 'font-weight': 700 }, title),
    element('text', { ...heading, y: y + 42, 'font-size': 11.5, fill: SOFT }, about),
    dense !== null && element('text', { ...heading, y: y + 57, 'font-size': 11.5, fill: SOFT }, dense),
    drawing,
  );
  return { svg: resolved(xmlText(root), tokens), width, height };
}
