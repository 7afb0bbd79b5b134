/**
 * What ships with the app besides code, and is read otherwise in a browser than in the shell. Imported as `#assets`, of which
 * there are two: `browser.ts` and `node.ts`.
 */
export interface Assets {
  /** The stylesheet that names the colours. */
  tokens(): Promise<string>;
  /** The program, as WebAssembly, that makes pixels of SVG. */
  rasteriser(): Promise<Uint8Array>;
}
