/** A colour of the stylesheets where no stylesheet reaches: on a canvas, in a saved picture, in a field for colours. */

/** As long as the page stands they stay as they are, and a canvas asks for them with every row it draws. */
const known = new Map<string, string>();

/** The value of a token (`--ink`), with tokens it is made of resolved; the page must stand. */
export function token(name: `--${string}`): string {
  const found = known.get(name) ?? getComputedStyle(document.documentElement).getPropertyValue(name).trim();
  // Nothing is found before the stylesheets are there.
  if (found !== '') known.set(name, found);
  return found;
}
