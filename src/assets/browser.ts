/** What ships with the app besides code, in a page or in a worker of one. */
import mono from '@fontsource-variable/jetbrains-mono/files/jetbrains-mono-latin-wght-normal.woff2?url';
import monoMore from '@fontsource-variable/jetbrains-mono/files/jetbrains-mono-latin-ext-wght-normal.woff2?url';
import sans from '@fontsource-variable/instrument-sans/files/instrument-sans-latin-wght-normal.woff2?url';
import sansMore from '@fontsource-variable/instrument-sans/files/instrument-sans-latin-ext-wght-normal.woff2?url';
import rasteriser from '@resvg/resvg-wasm/index_bg.wasm?url';
import tokens from '../styles/tokens.css?raw';
import type { Assets, FontFamily } from './assets';

const FONTS: Readonly<Record<FontFamily, readonly [string, string]>> = {
  'Instrument Sans': [sans, sansMore],
  'JetBrains Mono': [mono, monoMore],
};

const bytesAt = async (url: string) => new Uint8Array(await (await fetch(url)).arrayBuffer());

export const assets: Assets = {
  tokens: () => Promise.resolve(tokens),
  rasteriser: () => bytesAt(rasteriser),
  instrument: async () => (await import('virtual:instrument')).default,
  font: async (family) => {
    const [usual, more] = FONTS[family];
    return [await bytesAt(usual), await bytesAt(more)];
  },
};
