/**
 * What ships with the app besides code, and is read otherwise in a browser than in the shell. Imported as `#assets`, of which
 * there are two: `browser.ts` and `node.ts`.
 */
export interface Assets {
  /** The stylesheet that names the colours. */
  tokens(): Promise<string>;
  /** The program, as WebAssembly, that makes pixels of SVG. */
  rasteriser(): Promise<Uint8Array>;
  /** The program of the stand-alone instrument, and what it looks like. */
  instrument(): Promise<InstrumentProgram>;
  /** Files of a font that ships with the app (WOFF2), for Latin letters: the usual ones, then those with rare marks. */
  font(family: FontFamily): Promise<readonly [usual: Uint8Array, more: Uint8Array]>;
}

export interface InstrumentProgram {
  /** A script that is no module. */
  readonly script: string;
  readonly styles: string;
}

export type FontFamily = 'Instrument Sans' | 'JetBrains Mono';
