/** What the middleware tells every page. */
/// <reference types="vite/client" />
declare namespace App {
  interface Locals {
    /** By which a page lets its editor's style through; another one for every answer. */
    styleNonce: string;
    /** Who asks; null on pages that are open to everybody. */
    asker: import('./wire/asker').Asker | null;
  }
}

/** The program of the stand-alone instrument: see astro.config.ts. */
declare module 'virtual:instrument' {
  const program: import('./assets/assets').InstrumentProgram;
  export default program;
}

/** The program of a respondent's page under a link: likewise. */
declare module 'virtual:respondent' {
  const program: import('./assets/assets').InstrumentProgram;
  export default program;
}

/** The package has its types under the name without an ending only, and its module under the one with it only. */
declare module 'comlink/dist/esm/node-adapter.mjs' {
  export { default } from 'comlink/dist/esm/node-adapter';
}
