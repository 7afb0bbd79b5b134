/** The colours of the map, as values of CSS: tokens, which a picture by itself has resolved. */
import type { EndingKind } from '../document/types';
import { ENDINGS } from '../document/vocabularies';

export const INK = 'var(--ink)';
export const SOFT = 'var(--ink-soft)';
export const SHEET = 'var(--sheet)';
export const DESK = 'var(--desk)';
export const PINE = 'var(--pine)';
export const PINE_MID = 'var(--pine-mid)';
export const CORAL = 'var(--coral)';
export const MARIGOLD = 'var(--marigold)';
export const MARIGOLD_WASH = 'var(--marigold-wash)';
export const TINT = 'var(--tint)';
export const LINE = 'var(--line)';
export const RIBBON = 'var(--ribbon-pine-mid)';

export function endingColour(kind: EndingKind): string {
  return `var(--${ENDINGS[kind].colour})`;
}

/** Those who leave by an ending, in the faint shade of its colour. */
export function exitColour(kind: EndingKind): string {
  return `var(--ribbon-${ENDINGS[kind].colour})`;
}

/** What gives a colour with its tokens replaced by their values. `stylesheet`: that of the tokens. */
export function resolving(stylesheet: string): (colour: string) => string {
  const values = new Map(
    [...stylesheet.matchAll(/(--[a-z0-9-]+):\s*([^;]+);/g)].map(([, name = '', value = '']) => [name, value]),
  );
  const resolved = (colour: string): string =>
    colour.replaceAll(/var\((--[a-z0-9-]+)\)/g, (_, name: string) =>
      resolved(values.get(name) ?? 'currentColor'),
    );
  return resolved;
}
