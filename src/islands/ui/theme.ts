/** The look of the respondent's pages: an accent colour that can be read, and one of the fonts that ship with the app. */
import { colord, extend } from 'colord';
import a11y from 'colord/plugins/a11y';
import type { CSSProperties } from 'react';
import type { Settings } from '../../core/document/types';

extend([a11y]);

/** The first is used where none is chosen. */
export const FONTS = ['Instrument Sans', 'JetBrains Mono'] as const;

/** Of a page on which answers are given. */
const WHITE = { r: 255, g: 255, b: 255 };
/** WCAG 2.2 AA for text of ordinary size. */
const LEAST_CONTRAST = 4.5;

/** What is wrong with an accent colour on white, as a sentence; null where it can be read. */
export function accentProblem(accent: string): string | null {
  const contrast = colord(accent).contrast(WHITE);
  if (contrast >= LEAST_CONTRAST) return null;
  const rounded = Math.floor(contrast * 10) / 10;
  return `Too pale to be read on white: its contrast is ${rounded} to 1, and ${LEAST_CONTRAST} is needed. Pages use the darkest shade of it that can be read.`;
}

/** The accent, or a darker shade of it that can be read on white. */
export function readableAccent(accent: string): string {
  let shade = colord(accent);
  for (let step = 0; step < 40 && shade.contrast(WHITE) < LEAST_CONTRAST; step += 1)
    shade = shade.darken(0.02);
  return shade.toHex();
}

/** What a page sets for its theme. */
export function themeStyle({ accent, font }: NonNullable<Settings['theme']>): CSSProperties {
  return {
    // Within the page, all that is pine elsewhere.
    ...(accent === undefined
      ? {}
      : { '--pine': readableAccent(accent), '--pine-mid': readableAccent(accent) }),
    ...(font === undefined ? {} : { fontFamily: `'${font} Variable', '${font}', sans-serif` }),
  } as CSSProperties;
}
