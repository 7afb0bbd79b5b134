/** The river on the screen: as it is drawn for a file, with what presses on it do. */
import { createElement, memo, type MouseEvent, type ReactNode } from 'react';
import { parseAddress, type Address } from '../../core/document/addresses';
import type { Element } from '../../core/exchange/element';
import type { River } from '../../core/views/river';
import { drawRiver, type Marked } from '../../core/views/river-drawing';
import classes from './forks.module.css';

interface Props extends Marked {
  readonly river: River;
  readonly chooseNode: (id: Address) => void;
  readonly chooseRibbon: (id: string) => void;
  readonly openNode: (id: Address) => void;
}

export const RiverDrawing = memo(function RiverDrawing(props: Props) {
  const { river, chosen, lit, snags, chooseNode, chooseRibbon, openNode } = props;
  const choose = ({ target }: MouseEvent) => {
    const node = parseAddress(markOf(target, 'node') ?? '');
    const ribbon = markOf(target, 'ribbon');
    if (node !== null) chooseNode(node);
    else if (ribbon !== null) chooseRibbon(ribbon);
  };
  const open = ({ target }: MouseEvent) => {
    const place = parseAddress(markOf(target, 'node') ?? markOf(target, 'band') ?? '');
    if (place !== null) openNode(place);
  };
  return (
    <g className={classes.drawing} onClick={choose} onDoubleClick={open}>
      {shown(drawRiver(river, { chosen, lit, snags }), 0)}
    </g>
  );
});

function markOf(target: EventTarget, mark: 'node' | 'ribbon' | 'band'): string | null {
  if (!(target instanceof window.Element)) return null;
  return target.closest(`[data-${mark}]`)?.getAttribute(`data-${mark}`) ?? null;
}

/** What is pressed keeps its place in the page, wherever it moves. */
function shown({ name, attributes, children }: Element, at: number): ReactNode {
  const key = attributes['data-node'] ?? attributes['data-ribbon'] ?? attributes['data-band'] ?? at;
  const props = Object.fromEntries(
    Object.entries(attributes).map(([attribute, value]) => [propOf(attribute), value]),
  );
  return createElement(
    name,
    { key, ...props },
    ...children.map((child, n) => (typeof child === 'string' ? child : shown(child, n))),
  );
}

/** `stroke-width` is `strokeWidth` to React, but what is data keeps its name. */
function propOf(attribute: string): string {
  return attribute.startsWith('data-')
    ? attribute
    : attribute.replace(/-([a-z])/g, (_, letter: string) => letter.toUpperCase());
}
