/** What ships with the app besides code, in a page or in a worker of one. */
import rasteriser from '@resvg/resvg-wasm/index_bg.wasm?url';
import tokens from '../styles/tokens.css?raw';
import type { Assets } from './assets';

export const assets: Assets = {
  tokens: () => Promise.resolve(tokens),
  rasteriser: async () => new Uint8Array(await (await fetch(rasteriser)).arrayBuffer()),
};
