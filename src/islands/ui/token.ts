/** A colour of the stylesheets where no stylesheet reaches: on a canvas, in a saved picture, in a field for colours. */

/** The value of a token (`--ink`), with tokens it is made of resolved; the page must stand. */
export function token(name: `--${string}`): string {
  return getComputedStyle(document.documentElement).getPropertyValue(name).trim();
}
